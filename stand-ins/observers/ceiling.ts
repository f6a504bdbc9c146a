import type { CeilingFinding } from '../../src/cards/ceiling/find';
import type { Seen } from '../../src/core/card/asks';
import { mainBurn } from '../../src/core/card/layout';
import { trueLightness } from '../true-lightness';
import { crossing, lightnessOfPiece } from './measures';
import type { Burned, Observer } from './observer';
import { oncePer } from './once-per';
import { photographed } from './photographed';

/** One photo of each piece; a look goes by all wedges but one, and the last by all of them. */
function lookAt(burned: Burned, seed: string): Seen {
  const seen = sureOf(burned);
  const { cells } = burned.layout;
  const tops = [...new Set(cells.map(({ levels }) => Number(levels.top)))].sort((a, b) => a - b);
  // The uppermost is in every look: it alone shows that nothing gets stronger.
  const without = tops.slice(0, -1)[Number(seed.at(-1))];
  return { ...seen, readings: seen.readings.filter(({ cellIndex }) => cells[cellIndex]!.levels.top !== without) };
}

/** A photo that is marked all over is taken once more, as the finding asks. */
const sureOf = oncePer((burned: Burned): Seen => {
  const first = photographed(burned, burned.seed);
  const marked = first.readings.filter(({ doubts }) => doubts.includes('reflection'));
  return 2 * marked.length < first.readings.length ? first : photographed(burned, `${burned.seed} again`);
});

/** Neighbours in power that are taken together: what grain makes of one patch is no more than a share of it. */
const TOGETHER = 2;

export const ceilingObserver: Observer<CeilingFinding> = {
  on: ['marl', 'mdf'],
  look: lookAt,
  seeAll: sureOf,
  // Two L* below the strongest four patches, by means of neighbours and straight lines between them.
  truth: ({ piece, layout, pairing }) => {
    const off = layout.order.map((cell) => trueLightness(piece, layout, pairing, cell) - pairing.stock.bareLightness);
    const sign = Math.sign(off.reduce((sum, one) => sum + one, 0));
    const all = layout.cells
      .map((cell): [number, number] => [
        mainBurn(cell).settings.powerFraction,
        sign * lightnessOfPiece(piece, inner(cell.box)),
      ])
      .sort(([a], [b]) => a - b);
    const means = all.slice(TOGETHER - 1).map((_, from): [number, number] => {
      const some = all.slice(from, from + TOGETHER);
      return [0, 1].map((of) => some.reduce((sum, one) => sum + one[of as 0 | 1], 0) / TOGETHER) as [number, number];
    });
    const strongest = all
      .map(([, strength]) => strength)
      .sort((a, b) => b - a)
      .slice(0, 4);
    return [crossing(means, strongest.reduce((sum, one) => sum + one, 0) / 4 - 2)];
  },
  claims: ({ low, high }) => [[low!, high!]],
  widestClaim: 0.2,
};

const inner = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({
  x: x + 0.2 * width,
  y: y + 0.2 * height,
  width: 0.6 * width,
  height: 0.6 * height,
});
