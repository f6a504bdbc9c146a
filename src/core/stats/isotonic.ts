/** A value and how much it counts. */
export interface Weighed {
  readonly y: number;
  readonly weight: number;
}

/** Neighbours that share one value: the first and the last of them, both included. */
export interface Block {
  readonly first: number;
  readonly last: number;
  readonly y: number;
  readonly weight: number;
}

/**
 * The values nearest to those given, by weighted squares, that never fall: blocks of neighbours pooled where they would. Values of one block are their
 * weighted mean. [1, 2, 6, 2, 3, 7, 6] with equal weights: 1, 2, then 3.667 three times, then 6.5 twice.
 * Source: R. E. Barlow, D. J. Bartholomew, J. M. Bremner, H. D. Brunk, Statistical Inference under Order Restrictions (1972), 1.2.
 */
export function risingBlocks(values: readonly Weighed[]): Block[] {
  const blocks: Block[] = [];
  values.forEach(({ y, weight }, index) => {
    let block: Block = { first: index, last: index, y, weight };
    for (let before = blocks.at(-1); before && before.y >= block.y; before = blocks.at(-1)) {
      const total = before.weight + block.weight;
      const mean = (before.y * before.weight + block.y * block.weight) / total;
      block = { first: before.first, last: index, y: mean, weight: total };
      blocks.pop();
    }
    blocks.push(block);
  });
  return blocks;
}

/** A point of a curve that never falls, with the standard uncertainty of its height. */
export interface RisingPoint {
  readonly x: number;
  readonly y: number;
  readonly sigma: number;
}

/** The curve that never falls through points that ascend in x, each as sure as it says: level over each block of `risingBlocks`, straight between them. */
export function risingCurve(points: readonly RisingPoint[]): RisingPoint[] {
  const blocks = risingBlocks(points.map(({ y, sigma }) => ({ y, weight: 1 / sigma ** 2 })));
  return blocks.flatMap(({ first, last, y, weight }) =>
    (first === last ? [first] : [first, last]).map((index) => ({
      x: points[index]!.x,
      y,
      sigma: 1 / Math.sqrt(weight),
    })),
  );
}

/** Where a rising curve comes to a level, by straight lines between its points; its first or last x where the level lies beyond them. Expects a point. */
export function reaches(curve: readonly RisingPoint[], level: number): number {
  const next = curve.findIndex(({ y }) => y >= level);
  if (next < 0) return curve.at(-1)!.x;
  if (next === 0) return curve[0]!.x;
  const [a, b] = [curve[next - 1]!, curve[next]!];
  return a.x + ((level - a.y) / (b.y - a.y)) * (b.x - a.x);
}

/** The greater of the sigmas of the points of a curve on both sides of an x. */
export function sigmaBeside(curve: readonly RisingPoint[], x: number): number {
  const next = curve.findIndex((point) => point.x >= x);
  const beside = next < 0 ? curve.slice(-1) : curve.slice(Math.max(0, next - 1), next + 1);
  return Math.max(...beside.map(({ sigma }) => sigma));
}
