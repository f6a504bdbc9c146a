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

/** Marked pixels that lie side by side in one row: from `start`, before `end`. */
interface Runs {
  readonly row: number[];
  readonly start: number[];
  readonly end: number[];
  /** A run of the same blob that comes before it, or itself: the blob's first. */
  readonly parent: number[];
}

/**
 * Blobs of 1s (eight-connected) whose bounding box is within the given side lengths, in the order of their first pixels.
 * Blobs that touch the image's edge are left out: what is cut off cannot be measured.
 * Runs of each row are joined to those that they touch in the row above. Source: A. Rosenfeld, J. L. Pfaltz, J. ACM 13 (1966) 471.
 */
export function blobsOf(mask: Uint8Array, width: number, height: number, leastSide: number, mostSide: number): Blob[] {
  const runs: Runs = { row: [], start: [], end: [], parent: [] };
  let above = 0;
  for (let row = 0; row < height; row++) {
    const first = runs.row.length;
    addRuns(runs, mask, row, width);
    joinToAbove(runs, above, first);
    above = first;
  }
  return boxesOf(runs)
    .filter(({ left, right, top, bottom }) => {
      const [wide, high] = [right - left + 1, bottom - top + 1];
      const isWhole = left > 0 && top > 0 && right < width - 1 && bottom < height - 1;
      return isWhole && Math.min(wide, high) >= leastSide && Math.max(wide, high) <= mostSide;
    })
    .map((box) => blobOf(runs, box));
}

function addRuns({ row, start, end, parent }: Runs, mask: Uint8Array, y: number, width: number): void {
  const from = y * width;
  for (let x = 0; x < width; x++) {
    if (mask[from + x] !== 1) continue;
    const left = x;
    while (x < width && mask[from + x] === 1) x++;
    parent.push(row.length);
    row.push(y);
    start.push(left);
    end.push(x);
  }
}

/** Joins the runs of a row, from `first` on, to those of the row above, from `above` on, that they touch, at a corner too. */
function joinToAbove(runs: Runs, above: number, first: number): void {
  const { start, end, parent } = runs;
  let next = above;
  for (let run = first; run < parent.length; run++) {
    while (next < first && end[next]! < start[run]!) next++;
    for (let other = next; other < first && start[other]! <= end[run]!; other++) {
      const [one, two] = [firstOf(parent, run), firstOf(parent, other)];
      parent[Math.max(one, two)] = Math.min(one, two);
    }
  }
}

/** The first run of a run's blob; the way there is halved for those who ask later. */
function firstOf(parent: number[], run: number): number {
  let at = run;
  while (parent[at] !== at) {
    parent[at] = parent[parent[at]!]!;
    at = parent[at]!;
  }
  return at;
}

interface Box {
  readonly first: number;
  last: number;
  pixels: number;
  left: number;
  right: number;
  readonly top: number;
  bottom: number;
}

function boxesOf({ row, start, end, parent }: Runs): Box[] {
  const boxes = new Map<number, Box>();
  for (let run = 0; run < row.length; run++) {
    const first = firstOf(parent, run);
    const [left, right, y] = [start[run]!, end[run]! - 1, row[run]!];
    const box = boxes.get(first);
    if (!box) {
      boxes.set(first, { first, last: run, pixels: right - left + 1, left, right, top: y, bottom: y });
      continue;
    }
    box.last = run;
    box.pixels += right - left + 1;
    box.left = Math.min(box.left, left);
    box.right = Math.max(box.right, right);
    box.bottom = y;
  }
  return [...boxes.values()];
}

function blobOf({ row, start, end, parent }: Runs, { first, last, pixels, left, right, top, bottom }: Box): Blob {
  const sides = Array.from({ length: bottom - top + 1 }, () => ({ left: Infinity, right: -1 }));
  for (let run = first; run <= last; run++) {
    if (firstOf(parent, run) !== first) continue;
    const side = sides[row[run]! - top]!;
    side.left = Math.min(side.left, start[run]!);
    side.right = Math.max(side.right, end[run]! - 1);
  }
  const outline = sides.flatMap((side, index) => [
    { x: side.left, y: top + index },
    { x: side.right, y: top + index },
  ]);
  return { pixels, left, top, right, bottom, outline };
}
