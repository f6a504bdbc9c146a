import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import type { Point, Rect } from '../../core/geometry/point';
import { settingsFor, type PassesPlan } from './plan';

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** How wide a shape of a height is below its tip. */
export const widthOf = ({ sizeMm, tipDeg }: Pick<PassesPlan, 'sizeMm' | 'tipDeg'>): number =>
  round(2 * sizeMm * Math.tan((tipDeg / 2) * (Math.PI / 180)));

/** A triangle with its tip up, begun in the middle of its base. */
function outlineIn({ x, y, width, height }: Rect): Point[] {
  const middle = round(x + width / 2);
  const bottom = round(y + height);
  return [
    { x: middle, y: bottom },
    { x, y: bottom },
    { x: middle, y },
    { x: round(x + width), y: bottom },
  ];
}

/** Triangles in columns of as many passes, one on the left, each row a repeat. */
export function drawPasses(plan: PassesPlan, on: Pairing): Drawn {
  const { most, repeats, sizeMm, gapMm, cut } = plan;
  const liked = on.machine.likedUnits;
  const width = widthOf(plan);
  const across = rowOfBoxes(most, width, sizeMm, gapMm);
  const down = columnOfBoxes(repeats, width, sizeMm, gapMm);
  const cells = down.flatMap(({ y }) =>
    across.map((place, column) => {
      const box = { ...place, y };
      const outline = outlineIn(box);
      const settings = settingsFor(plan, column + 1);
      return {
        box,
        levels: { passes: column + 1, speed: settings.speedMmPerS },
        burns: [{ shape: { do: 'follow' as const, lines: [[...outline, outline[0]!]] }, settings }],
        risk: deliveredBy(settings, on).lineJPerMm / settings.speedMmPerS,
        expected: null,
        leftOut: false,
        wanted: { outline, on: { x: outline[0]!.x, y: round(y + 0.7 * sizeMm) } },
      };
    }),
  );
  return {
    widthMm: round(across.at(-1)!.x + width),
    heightMm: round(down.at(-1)!.y + sizeMm),
    cells,
    before: [],
    after: [],
    labels: across.map((box, column) => {
      const { text, means } = letterOf('passes', column + 1, liked);
      return { text, means, edge: 'above' as const, box: { ...box, y: 0 } };
    }),
    units: 'PASSES',
    caption: 'PASSES ACROSS, ONE ENERGY',
    constants: constantsText(
      { powerFraction: cut.powerFraction, focusOffsetMm: cut.focusOffsetMm, air: cut.air },
      liked,
    ),
    markers: 'none',
    air: cut.air,
  };
}
