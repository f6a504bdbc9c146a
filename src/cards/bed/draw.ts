import { letterOf } from '../../core/card/channels';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, DrawnStation, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectRing } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import { offsetsOf, patchesSize, placeName, type BedPlan } from './plan';

/** Places row by row from the rear left, each with its three patches from the lowered to the raised. */
export function drawBed(plan: BedPlan, on: Pairing): Drawn {
  const { columns, rows, acrossMm, downMm, patchMm, gapMm, constants } = plan;
  const liked = on.machine.likedUnits;
  const size = patchesSize(plan);
  const offsets = offsetsOf(plan);
  const at = (index: number, count: number, spanMm: number, ownMm: number): number =>
    (index * (spanMm - ownMm)) / (count - 1);
  const places = Array.from({ length: rows * columns }, (_, index) => {
    const [row, column] = [Math.floor(index / columns), index % columns];
    const x = at(column, columns, acrossMm, size.width);
    const y = at(row, rows, downMm, size.height);
    return { name: placeName(row, column), box: { x, y, ...size } };
  });
  const cells = places.flatMap(({ name, box: { x, y } }) =>
    offsets.map((focusOffsetMm, index) => {
      const box: Rect = { x: x + index * (patchMm + gapMm), y, width: patchMm, height: patchMm };
      const settings = { ...constants, focusOffsetMm };
      return {
        box,
        levels: { place: name, focus: focusOffsetMm },
        burns: [{ shape: { do: 'sweep' as const, area: [rectRing(box)] }, settings }],
        risk: deliveredBy(settings, on).arealJPerMm2,
        expected: null,
        leftOut: false,
      };
    }),
  );
  return {
    widthMm: acrossMm,
    heightMm: downMm,
    cells,
    before: [],
    after: [],
    labels: cells.map(({ levels, box }) => {
      const { text, means } = letterOf('focus', levels.focus, liked);
      return { text, means, edge: 'above' as const, box };
    }),
    units: `FOCUS ${liked.length.toUpperCase()}`,
    caption: `FOCUS ${liked.length.toUpperCase()}, + RAISED`,
    constants: constantsText(constants, liked),
    markers: 'four',
    air: constants.air,
    stations: places.map(({ name, box }, index): DrawnStation => ({
      name,
      box,
      cells: offsets.map((_, patch) => index * offsets.length + patch),
    })),
  };
}
