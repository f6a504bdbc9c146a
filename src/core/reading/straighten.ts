import type { Layout } from '../card/layout';
import { project, type Homography } from '../geometry/homography';
import type { RgbImage } from '../image/raster';
import { rectify, type Rectified } from './rectify';

/** Resolution of the straightened card. */
export const RECTIFIED_PX_PER_MM = 20;
/** Photo pixels along each side of the square that a straightened pixel is the mean of, at most: more of the photo's own than that fall between. */
const MOST_BOX_PX = 3;

/** Photo pixels for each card millimetre at the card's centre, along the axis that shows fewer. */
export function scaleAtCentre(h: Homography, layout: Layout): number {
  const x = layout.widthMm / 2;
  const y = layout.heightMm / 2;
  const a = project(h, x - 0.5, y);
  const b = project(h, x + 0.5, y);
  const c = project(h, x, y - 0.5);
  const d = project(h, x, y + 0.5);
  return Math.min(Math.hypot(a.x - b.x, a.y - b.y), Math.hypot(c.x - d.x, c.y - d.y));
}

/** The card of a layout, or a larger area around it, as seen straight on; see `rectify`. */
export function straightened(
  photo: RgbImage,
  toPhoto: Homography,
  layout: Layout,
  linear?: Float32Array,
  { width, height } = { width: layout.widthMm, height: layout.heightMm },
): Rectified {
  const boxPx = Math.min(MOST_BOX_PX, Math.max(1, Math.round(scaleAtCentre(toPhoto, layout) / RECTIFIED_PX_PER_MM)));
  return rectify(photo, toPhoto, width, height, RECTIFIED_PX_PER_MM, boxPx, linear);
}
