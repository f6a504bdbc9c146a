import type { PrintOrder } from '../bench/printed-sheet';
import { frameSheet, GREY_STEPS, type SheetFormat } from '../core/sheet/frame-sheet';
import { markerBars } from '../core/sheet/marker-bars';

/** What the printer by the bench is sent. */
export function printOrder(format: SheetFormat): PrintOrder {
  const { widthMm, heightMm, window, markers, patches } = frameSheet(format);
  return {
    widthMm,
    heightMm,
    window,
    marks: [
      ...markers.flatMap(({ id, x, y, sizeMm }) => markerBars(id, x, y, sizeMm).map((bar) => ({ ...bar, bare: 0 }))),
      ...patches
        .filter(({ step }) => GREY_STEPS[step]! < 1)
        .map(({ step, box }) => ({ ...box, bare: GREY_STEPS[step]! })),
    ],
  };
}
