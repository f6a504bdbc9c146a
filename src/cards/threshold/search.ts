import { wordOf, type Seen } from '../../core/card/asks';
import type { NextCell, Pairing } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import { formatPower } from '../../core/quantities/format';
import { patch, searchBox, SEARCH_PLACES } from './draw';
import { MARK_FIELD } from './asks';
import type { ThresholdPlan } from './plan';

/** Steps of the search, as ratios of power: wide until the answer turns for the first time, then fine. */
const WIDE = 1.35;
const FINE = 1.1;
/** Turns of the answer in the fine part after which the search stops. */
const ENOUGH_TURNS = 4;

/**
 * The next patch of a search down and up: weaker after a mark, stronger after none, by a wide step until the answer turns and by fine
 * ones after; it stops by itself after enough turns, at an end of its range, or when its places are used up. Null for a strip.
 * Source: W. J. Dixon, A. M. Mood, "A method for obtaining and analyzing sensitivity data", JASA 43 (1948) 109.
 */
export function nextPatch(layout: Layout, plan: ThresholdPlan, seen: Seen, on: Pairing): NextCell | null {
  if (plan.way !== 'search') return null;
  const { from, to } = plan.power;
  const tried = layout.cells.map((cell) => ({
    power: cell.levels.power as number,
    answer: wordOf(seen, MARK_FIELD, cell.index),
  }));
  const open = tried.findIndex(({ answer }) => answer === null);
  if (open >= 0)
    return { go: false, why: `Patch ${open + 1} (${formatPower(tried[open]!.power)}) waits to be looked at.` };
  const go = (power: number, why: string): NextCell => {
    const box = searchBox(plan, tried.length, layout.inner);
    return { go: true, cell: patch(plan, power, box, on), why };
  };
  const last = tried.at(-1);
  if (!last) return go(Math.sqrt(from * to), 'The middle of the range to begin with.');
  const marks = tried.map(({ answer }) => answer === 'marked');
  const turns = marks.filter((mark, index) => index > 0 && mark !== marks[index - 1]).length;
  const lastMarked = marks.at(-1)!;
  if (turns > ENOUGH_TURNS) return { go: false, why: `The answer has turned ${turns} times: that is enough.` };
  if (tried.length >= SEARCH_PLACES) return { go: false, why: 'All places of the card are used.' };
  const step = turns === 0 ? WIDE : FINE;
  const wanted = lastMarked ? last.power / step : last.power * step;
  const power = Math.min(to, Math.max(from, wanted));
  if (Math.abs(power - last.power) < 1e-4)
    return {
      go: false,
      why: lastMarked
        ? `Even ${formatPower(last.power)} marks, and that is the low end of the range.`
        : `Even ${formatPower(last.power)} leaves no mark, and that is the high end of the range.`,
    };
  const way = lastMarked ? 'weaker, since the last one marked' : 'stronger, since the last one left nothing';
  return go(
    power,
    turns === 0
      ? `A wide step ${way}.`
      : `A fine step ${way}; the answer has turned ${turns === 1 ? 'once' : `${turns} times`}.`,
  );
}
