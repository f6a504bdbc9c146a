import type { Rect } from '../../geometry/point';
import type { GrayImage } from '../../image/raster';

/** How a cell is compared with what is around it. */
interface Looks {
  readonly pxPerMm: number;
  /** Part of a cell about its middle that is looked at. */
  readonly part: number;
  /** Where what is around it begins and ends, in mm beyond its edge. */
  readonly ring: { readonly from: number; readonly to: number };
}

/** Means over rectangles of an image in four looks each. Source: F. C. Crow, SIGGRAPH Computer Graphics 18 (1984) 207. */
export class SummedArea {
  private readonly sums: Float64Array;
  private readonly stride: number;

  constructor(
    private readonly image: GrayImage,
    private readonly looks: Looks,
  ) {
    const { data, width, height } = image;
    this.stride = width + 1;
    this.sums = new Float64Array(this.stride * (height + 1));
    for (let row = 0; row < height; row++) {
      let line = 0;
      for (let column = 0; column < width; column++) {
        line += data[row * width + column]!;
        this.sums[(row + 1) * this.stride + column + 1] = this.sums[row * this.stride + column + 1]! + line;
      }
    }
  }

  /** Sum and count of the pixels of a rectangle in mm, cut to the image. */
  private over(left: number, top: number, right: number, bottom: number): { sum: number; count: number } {
    const { pxPerMm } = this.looks;
    const x0 = Math.max(0, Math.min(this.image.width, Math.round(left * pxPerMm)));
    const x1 = Math.max(x0, Math.min(this.image.width, Math.round(right * pxPerMm)));
    const y0 = Math.max(0, Math.min(this.image.height, Math.round(top * pxPerMm)));
    const y1 = Math.max(y0, Math.min(this.image.height, Math.round(bottom * pxPerMm)));
    const { sums, stride } = this;
    const sum = sums[y1 * stride + x1]! - sums[y0 * stride + x1]! - sums[y1 * stride + x0]! + sums[y0 * stride + x0]!;
    return { sum, count: (x1 - x0) * (y1 - y0) };
  }

  /** Mean gray of the middle of a cell, moved by x and y mm, less that of a ring around it; 0 where either lies beside the image. */
  insideLessAround(cell: Rect, x: number, y: number): number {
    const { part, ring } = this.looks;
    const [left, top] = [cell.x + x, cell.y + y];
    const [rimX, rimY] = [((1 - part) / 2) * cell.width, ((1 - part) / 2) * cell.height];
    const inside = this.over(left + rimX, top + rimY, left + cell.width - rimX, top + cell.height - rimY);
    const grown = (by: number) => this.over(left - by, top - by, left + cell.width + by, top + cell.height + by);
    const [hole, whole] = [grown(ring.from), grown(ring.to)];
    const around = whole.count - hole.count;
    if (inside.count === 0 || around === 0) return 0;
    return inside.sum / inside.count - (whole.sum - hole.sum) / around;
  }
}
