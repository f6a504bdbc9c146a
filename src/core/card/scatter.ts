import seedrandom from 'seedrandom';

/** So many orders are tried; the one that goes least with the card's own directions is taken. */
const TRIES = 200;

/** Correlation of two rows of numbers; 0 where one of them is all alike. */
function correlation(a: readonly number[], b: readonly number[]): number {
  const middle = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [aMiddle, bMiddle] = [middle(a), middle(b)];
  let [both, aa, bb] = [0, 0, 0];
  a.forEach((value, at) => {
    const [x, y] = [value - aMiddle, b[at]! - bMiddle];
    both += x * y;
    aa += x * x;
    bb += y * y;
  });
  return aa * bb > 0 ? both / Math.sqrt(aa * bb) : 0;
}

/** How much an order of levels goes with the card's directions: the largest correlation of a level's column or row with its place. */
export function alignedShare(order: readonly number[], columns: number): number {
  const column = (at: number): number => at % columns;
  const row = (at: number): number => Math.floor(at / columns);
  const levels = order.map((_, level) => level);
  const pairs = [column, row].flatMap((ofLevel) => [column, row].map((ofPlace) => [ofLevel, ofPlace] as const));
  return Math.max(...pairs.map(([ofLevel, ofPlace]) => Math.abs(correlation(levels.map(ofLevel), order.map(ofPlace)))));
}

function shuffled(count: number, random: () => number): number[] {
  const order = Array.from({ length: count }, (_, index) => index);
  for (let at = count - 1; at > 0; at--) {
    const other = Math.floor(random() * (at + 1));
    [order[at], order[other]] = [order[other]!, order[at]!];
  }
  return order;
}

/**
 * Where the levels of a grid lie when they are scattered, as places counted row by row over a card of `columns` by `rows` times `repeats`: for each
 * level, counted row by row too, the places of its repeats. Of many shuffles the one is taken whose levels go least with either direction of the card;
 * every second repeat is the one before it in a point mirror, so that what changes evenly across a card cancels. The same card is the same each time.
 * Source of the idea: R. A. Fisher, The Design of Experiments (1935), on randomised plots.
 */
export function scatteredPlaces(columns: number, rows: number, repeats: number): number[][] {
  const count = columns * rows;
  const last = count * repeats - 1;
  const random = seedrandom.alea(`${columns} x ${rows}`);
  const orderOf = (): number[] => {
    let best = shuffled(count, random);
    let least = alignedShare(best, columns);
    for (let turn = 1; turn < TRIES; turn++) {
      const order = shuffled(count, random);
      const aligned = alignedShare(order, columns);
      if (aligned < least) [best, least] = [order, aligned];
    }
    return best;
  };
  const orders = Array.from({ length: Math.ceil(repeats / 2) }, orderOf);
  return Array.from({ length: count }, (_, level) =>
    Array.from({ length: repeats }, (_unused, repeat) => {
      const pair = Math.floor(repeat / 2);
      const place = pair * count + orders[pair]![level]!;
      return repeat % 2 === 0 ? place : last - place;
    }),
  );
}
