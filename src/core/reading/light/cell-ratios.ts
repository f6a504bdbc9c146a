import type { Layout } from '../../card/layout';
import { luminance } from '../../color/srgb';
import type { Rect } from '../../geometry/point';
import { pixelsOfArea } from '../pixels-of-area';
import type { Rectified } from '../rectify';
import { sumAt, type Surface } from './surface';

/** A cell as it looks at a first glance. */
export interface Glance {
  readonly index: number;
  readonly box: Rect;
  /** Its luminance as a share of bare stock's; 1 where nothing of it is seen. */
  readonly ratio: number;
}

/** How bright each cell's middle half is as a share of bare stock, by a first surface: every other pixel is looked at. */
export function ratiosOf(image: Rectified, layout: Layout, { terms, coefficients }: Surface): Glance[] {
  const { data, width } = image;
  return layout.cells
    .filter((cell) => !cell.leftOut)
    .map(({ box, index }) => {
      const half = {
        x: box.x + box.width / 4,
        y: box.y + box.height / 4,
        width: box.width / 2,
        height: box.height / 2,
      };
      const { left, top, right, bottom } = pixelsOfArea(image, half);
      let sum = 0;
      let count = 0;
      for (let y = top; y < bottom; y += 2)
        for (let x = left; x < right; x += 2, count++) {
          const at = (y * width + x) * 3;
          sum += luminance(data[at]!, data[at + 1]!, data[at + 2]!);
        }
      const bare = Math.exp(sumAt(terms, coefficients, box.x + box.width / 2, box.y + box.height / 2));
      return { index, box, ratio: count === 0 ? 1 : sum / count / bare };
    });
}

/** How far a cell is from bare stock, 0 for none: about its difference in L* over bare stock's. */
export const strengthOf = (ratio: number): number => Math.min(1.5, Math.abs(1 - Math.cbrt(ratio)));
