import type { Rgb } from '../core/color/srgb';

/** Colour of a place, with how much of it covers what lies under it, 0 to 255. */
export type Painted = readonly [...Rgb, number];

/**
 * A picture drawn place by place, row by row, as an address that an `<image>` takes; null where nothing can be drawn, as on a server. Places stay
 * sharp squares where it is shown larger, if whoever shows it asks for that.
 */
export function pictureUrl(columns: number, rows: number, paint: (place: number) => Painted): string | null {
  if (typeof document === 'undefined') return null;
  const canvas = document.createElement('canvas');
  canvas.width = columns;
  canvas.height = rows;
  const context = canvas.getContext('2d');
  if (!context) return null;
  const image = context.createImageData(columns, rows);
  for (let place = 0; place < columns * rows; place++) image.data.set(paint(place), 4 * place);
  context.putImageData(image, 0, 0);
  return canvas.toDataURL('image/png');
}
