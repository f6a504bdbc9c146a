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
