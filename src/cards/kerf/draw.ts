import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { letter } from '../../core/card/lettering';
import { rectOutline } from '../../core/card/shape';
import { formatLength } from '../../core/quantities/format';
import type { Rect } from '../../core/geometry/point';
import { NUMBER_MM, sizesOf, type KerfPlan } from './plan';

/** The squares in a row, their upper edges level. */
function boxesOf(plan: KerfPlan): Rect[] {
  let x = 0;
  return sizesOf(plan).map((size) => {
    const box = { x: Math.round(x * 1e4) / 1e4, y: 0, width: size, height: size };
    x += size + plan.gapMm;
    return box;
  });
}

/** Squares side by side, each numbered on its face before it is cut out. */
export function drawKerf(plan: KerfPlan, on: Pairing): Drawn {
  const { sizeMm, smallMm, cut, frame } = plan;
  const boxes = boxesOf(plan);
  const lettered = [sizeMm, ...(smallMm === null ? [] : [smallMm])]
    .map((size) => formatLength(size, on.machine.likedUnits).toUpperCase())
    .join(', ');
  // Numbers only mark: as the frame's lettering, sharp on the face.
  const number = { ...cut, ...frame.lettering, passes: 1, focusOffsetMm: 0, runUpMm: null };
  return {
    widthMm: boxes.at(-1)!.x + boxes.at(-1)!.width,
    heightMm: sizeMm,
    cells: boxes.map((box) => ({
      box,
      levels: { size: box.width, side: 'part and hole' },
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
    units: `KERF ${lettered}`,
    caption: `KERF SQUARES ${lettered}`,
    constants: cutText(cut, on.machine.likedUnits),
    markers: 'none',
    air: cut.air,
  };
}
