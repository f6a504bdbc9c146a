import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { letter } from '../../core/card/lettering';
import { rowOfBoxes } from '../../core/card/row';
import { rectOutline } from '../../core/card/shape';
import { formatLength } from '../../core/quantities/format';
import { NUMBER_MM, type KerfPlan } from './plan';

/** Squares side by side, each numbered on its face before it is cut out. */
export function drawKerf({ sizeMm, count, gapMm, cut, frame }: KerfPlan, on: Pairing): Drawn {
  const boxes = rowOfBoxes(count, sizeMm, sizeMm, gapMm);
  // Numbers only mark: as the frame's lettering, sharp on the face.
  const number = { ...cut, ...frame.lettering, passes: 1, focusOffsetMm: 0, runUpMm: null };
  return {
    widthMm: boxes.at(-1)!.x + sizeMm,
    heightMm: sizeMm,
    cells: boxes.map((box) => ({
      box,
      levels: { size: sizeMm, side: 'outside' },
      burns: [{ shape: { do: 'follow' as const, lines: [rectOutline(box)] }, settings: cut }],
      risk: deliveredBy(cut, on).lineJPerMm,
      expected: null,
      leftOut: false,
    })),
    before: boxes.map(({ x, y, width, height }, index) => ({
      shape: {
        do: 'follow' as const,
        lines: letter(String(index + 1), {
          x: x + width / 2,
          y: y + (height - NUMBER_MM) / 2,
          heightMm: Math.min(NUMBER_MM, height / 2),
          anchor: 'middle',
        }),
      },
      settings: number,
    })),
    after: [],
    labels: [],
    units: `KERF ${formatLength(sizeMm, on.machine.likedUnits).toUpperCase()}`,
    caption: `KERF SQUARES ${formatLength(sizeMm, on.machine.likedUnits).toUpperCase()}`,
    constants: constantsText(
      {
        powerFraction: cut.powerFraction,
        speedMmPerS: cut.speedMmPerS,
        passes: cut.passes,
        focusOffsetMm: cut.focusOffsetMm,
        air: cut.air,
      },
      on.machine.likedUnits,
    ),
    markers: 'none',
    air: cut.air,
  };
}
