import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { DROP, EDGE } from '../../core/card/usual-asks';
import { formatSpeed } from '../../core/quantities/format';

export const PASSES_ASKS: readonly Ask[] = [DROP, EDGE];

/** What became of the shapes that were cut in as many passes. */
export interface PassCount {
  readonly passes: number;
  readonly settings: BurnSettings;
  readonly cells: readonly number[];
  readonly told: number;
  readonly dropped: number;
  /** Of those that dropped: with their tips, neither burned away nor charred, nor a flame seen. */
  readonly whole: number;
  readonly blackEdges: number;
}

export interface PassesFinding extends BaseFinding {
  readonly counts: readonly PassCount[];
  /** The fewest passes that drop everything and keep its detail; null where none do. */
  readonly best: PassCount | null;
  /** More passes of the same energy dropped less. */
  readonly harderInMore: boolean;
}

const DROPPED: readonly string[] = ['clean', 'charred', 'tip'];

function countsOf(layout: Layout, seen: Seen): PassCount[] {
  const all = [...new Set(layout.cells.map(({ levels }) => levels.passes as number))].sort((a, b) => a - b);
  return all.map((passes) => {
    const cells = layout.order.filter((index) => layout.cells[index]!.levels.passes === passes);
    const words = cells.flatMap((index) => wordOf(seen, DROP.field, index) ?? []);
    return {
      passes,
      settings: mainBurn(layout.cells.find(({ levels }) => levels.passes === passes)!).settings,
      cells,
      told: words.length,
      dropped: words.filter((word) => DROPPED.includes(word)).length,
      whole: words.filter((word) => word === 'clean').length,
      blackEdges: cells.filter((index) => wordOf(seen, EDGE.field, index) === 'black').length,
    };
  });
}

const passWords = (passes: number): string => (passes === 1 ? 'one pass' : `${passes} passes`);

/** In how few passes a shape drops with its detail kept, where all were cut with one energy; or why in none. */
export function findPasses(layout: Layout, seen: Seen, { pairing }: Known): PassesFinding {
  const counts = countsOf(layout, seen).filter(({ told }) => told > 0);
  const liked = pairing.machine.likedUnits;
  const drops = counts.filter(({ told, dropped }) => dropped === told);
  const best = drops.find(({ dropped, whole }) => whole === dropped) ?? null;
  const [first, last] = [counts[0], counts.at(-1)];
  const harderInMore =
    first !== undefined && last !== undefined && last.dropped / last.told < first.dropped / first.told;
  const none = { counts, best, harderInMore };
  const lacks = (words: string): PassesFinding => ({ ...none, best: null, missing: [words], says: '' });
  if (counts.length < 2)
    return lacks('Tap the sheet and say of every shape what happened, of two counts of passes at least.');
  const charred = counts.every(({ cells }) =>
    cells.some((index) => ['charred', 'tip', 'flare'].includes(wordOf(seen, DROP.field, index) ?? '')),
  );
  if (counts.every(({ dropped }) => dropped === 0))
    return lacks(
      charred
        ? 'Nothing dropped, and it chars in as few passes as in many: this stock burns before it is through. Engrave it only, or cut a thinner sheet.'
        : 'Nothing dropped: burn a card with more energy, or find the cut by a card of cut squares first.',
    );
  if (drops.length === 0)
    return lacks('At no count of passes did every shape drop: burn a card with more energy, slower.');
  if (!best)
    return lacks(
      harderInMore
        ? 'Where every shape drops, tips burn away; in more passes they keep, and no longer all drop. Burn a card with a little more energy.'
        : 'Every count of passes that drops burns tips away: draw them blunter, take more passes, mask the face, or more air.',
    );
  const { passes, settings, dropped } = best;
  const fewer = counts.filter((count) => count.passes < passes);
  const why =
    fewer.length === 0
      ? ''
      : fewer.some((count) => count.whole < count.dropped)
        ? ` In fewer, detail burns away.`
        : ' In fewer, not all dropped.';
  return {
    ...none,
    missing: [],
    says: `Cut it in ${passWords(passes)} at ${formatSpeed(settings.speedMmPerS, liked)}: ${dropped} of ${dropped} dropped with their tips.${why}${harderInMore ? ' In more, with the same energy, it drops less.' : ''}`,
  };
}
