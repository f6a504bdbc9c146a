import { bestOf, type NextOf } from '../../../components/use-comparing';
import type { Layout } from '../../../core/card/layout';
import { sideOf } from '../find';

/** A patch of each side, another two each time and each side as often on the left, until it is sure which side is liked. */
export function sidesInTurn(layout: Layout): NextOf {
  const [a, b] = (['a', 'b'] as const).map((side) =>
    layout.order.filter((index) => sideOf(layout.cells[index]!) === side),
  ) as [number[], number[]];
  const open = bestOf([0, 1]);
  return (said) => {
    const place = (index: number): number => (a.includes(index) ? 0 : 1);
    const sides = said.filter(({ better, worse }) => place(better) !== place(worse));
    const asked = sides.map((one) => ({ ...one, better: place(one.better), worse: place(one.worse) }));
    if (a.length === 0 || b.length === 0 || !open(asked)) return null;
    const turn = sides.length;
    const pair = [a[turn % a.length]!, b[turn % b.length]!] as const;
    return turn % 2 === 0 ? pair : [pair[1], pair[0]];
  };
}
