import type { Point } from '../geometry/point';

/** A connected set of marked pixels, by the outline points that can lie on its convex hull. */
export interface Blob {
  readonly pixels: number;
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  /** Leftmost and rightmost pixel of each row. */
  readonly outline: readonly Point[];
}

/**
 * Blobs of 1s (eight-connected) whose bounding box is within the given side lengths. `mask` is used up: visited pixels become 2.
 * Blobs that touch the image's edge are left out: what is cut off cannot be measured.
 */
export function blobsInPlace(
  mask: Uint8Array,
  width: number,
  height: number,
  leastSide: number,
  mostSide: number,
): Blob[] {
  const found: Blob[] = [];
  const stack = new Int32Array(width * height);
  const members = new Int32Array(width * height);
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] !== 1) continue;
    let depth = 0;
    let count = 0;
    let left = width;
    let right = 0;
    let top = height;
    let bottom = 0;
    stack[depth++] = start;
    mask[start] = 2;
    while (depth > 0) {
      const at = stack[--depth]!;
      members[count++] = at;
      const y = (at / width) | 0;
      const x = at - y * width;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      // Past the end of a row lies the next one: only blobs at the edge go there, and those are left out.
      for (let v = -1; v <= 1; v++) {
        for (let u = -1; u <= 1; u++) {
          const next = at + v * width + u;
          if (mask[next] === 1) {
            mask[next] = 2;
            stack[depth++] = next;
          }
        }
      }
    }
    const wide = right - left + 1;
    const high = bottom - top + 1;
    if (wide < leastSide || high < leastSide || wide > mostSide || high > mostSide) continue;
    if (left === 0 || top === 0 || right === width - 1 || bottom === height - 1) continue;
    const rowLeft = new Int32Array(high).fill(width);
    const rowRight = new Int32Array(high).fill(-1);
    for (let index = 0; index < count; index++) {
      const y = (members[index]! / width) | 0;
      const x = members[index]! - y * width;
      rowLeft[y - top] = Math.min(rowLeft[y - top]!, x);
      rowRight[y - top] = Math.max(rowRight[y - top]!, x);
    }
    const outline: Point[] = [];
    for (let row = 0; row < high; row++) {
      outline.push({ x: rowLeft[row]!, y: top + row }, { x: rowRight[row]!, y: top + row });
    }
    found.push({ pixels: count, left, top, right, bottom, outline });
  }
  return found;
}
