import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { rectOutline } from '../../core/card/shape';
import { burnsOf, waysOf, type CutFocusPlan } from './plan';

/** Squares in a column for each way, the face first, each row a repeat. */
export function drawFocusCuts(plan: CutFocusPlan, on: Pairing): Drawn {
  const { repeats, sizeMm, gapMm, cut } = plan;
  const ways = waysOf(plan);
  const across = rowOfBoxes(ways.length, sizeMm, sizeMm, gapMm);
  const down = columnOfBoxes(repeats, sizeMm, sizeMm, gapMm);
  const cells = down.flatMap(({ y }) =>
    ways.map((way, column) => {
      const box = { ...across[column]!, y };
      return {
        box,
        levels: { side: way, size: sizeMm },
        burns: burnsOf(plan, way).map((settings) => ({
          shape: { do: 'follow' as const, lines: [rectOutline(box)] },
          settings,
        })),
        risk: deliveredBy(cut, on).lineJPerMm,
        expected: null,
        leftOut: false,
      };
    }),
  );
  return {
    widthMm: across.at(-1)!.x + sizeMm,
    heightMm: down.at(-1)!.y + sizeMm,
    cells,
    before: [],
    after: [],
    labels: ways.map((way, column) => ({
      text: way.toUpperCase(),
      means: `focus ${way}`,
      edge: 'above' as const,
      box: cells[column]!.box,
    })),
    lettersAll: true,
    units: 'FOCUS',
    caption: 'CUT, FOCUS ACROSS',
    constants: constantsText(
      { powerFraction: cut.powerFraction, speedMmPerS: cut.speedMmPerS, passes: cut.passes, air: cut.air },
      on.machine.likedUnits,
    ),
    markers: 'none',
    air: cut.air,
  };
}
