import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import { LEAST_CUT_SPEED } from '../../core/card/propose-cut';
import type { BurnSettings } from '../../core/card/settings';
import { COUNT, NOT_DROPPED } from '../../core/card/usual-asks';
import { cutWindowOf, type ChanceBand, type CutWindow } from '../../core/fit/cut-window';
import { formatLength, formatSpeed, plainNumber } from '../../core/quantities/format';
import { heldUpPer100Mm } from '../../core/stock/cutting';
import { goodForThickness } from '../../core/stock/good-for';
import { thicknessOf } from '../../core/stock/stock';

export const PASS_COUNT_ASKS: readonly Ask[] = [COUNT];

export interface PassCountWish {
  /** Share of parts that must drop. */
  readonly certainty: number;
  /** Length of the outline of the parts to be made; null for squares like the card's. */
  readonly outlineMm: number | null;
}

export const USUAL_PASS_COUNT_WISH: PassCountWish = { certainty: 0.98, outlineMm: null };

/** Passes that surely drop a part. */
export interface CountedCut {
  readonly settings: BurnSettings;
  /** J/mm for each mm of thickness of all of them. */
  readonly energy: number;
  readonly chance: ChanceBand;
}

export interface PassCountFinding extends BaseFinding {
  /** After how many passes it dropped; null where nobody said, or it did not. */
  readonly passes: number | null;
  /** J/mm for each mm of thickness of one pass. */
  readonly eachPass: number;
  readonly window: CutWindow | null;
  readonly outlineMm: number;
  readonly thicknessMm: { readonly from: number; readonly to: number };
  readonly cut: CountedCut | null;
}

/** More passes than so many times those that it took are not proposed: another speed is tried, or a card of squares. */
const MOST_TIMES = 3;

/** The least whole number of which something holds that holds of every greater one, and of `most`. */
function leastFrom(least: number, most: number, holds: (count: number) => boolean): number {
  let [low, high] = [least, most];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return high;
}

/** How many such passes surely drop a part, by the pass in which one square dropped: a single place, so the margin is wide. */
export function findPassCount(layout: Layout, seen: Seen, { pairing }: Known, wish: PassCountWish): PassCountFinding {
  const { machine, stock } = pairing;
  const liked = machine.likedUnits;
  const [cell] = layout.cells;
  const { settings } = mainBurn(cell!);
  const squareMm = 4 * cell!.box.width;
  const outlineMm = wish.outlineMm ?? squareMm;
  const eachPass = deliveredBy(settings, pairing).lineJPerMm / thicknessOf(stock).meanMm;
  const word = wordOf(seen, COUNT.field, 0);
  const passes = word === null || word === NOT_DROPPED ? null : Number(word);
  const none = { passes, eachPass, window: null, outlineMm, thicknessMm: goodForThickness(stock), cut: null };
  const lacks = (missing: string, window: CutWindow | null = null): PassCountFinding => ({
    ...none,
    window,
    missing: [missing],
    says: '',
  });
  if (!(eachPass > 0)) return lacks('With this power the source does not fire: nothing was cut.');
  if (word === null) return lacks('Say after which pass the square dropped.');
  if (passes === null)
    return lacks(
      settings.speedMmPerS <= LEAST_CUT_SPEED * 1.2
        ? `It did not drop, at ${formatSpeed(settings.speedMmPerS, liked)}: slower it would only char. This sheet is only for engraving on this machine.`
        : 'It did not drop: cut it slower, so that each pass lays down more.',
    );
  if (passes === 1)
    return lacks(
      'It dropped in the first pass, which may have been far too much: cut it faster, so that it takes three or more.',
    );
  const at = (count: number) => ({ energy: count * eachPass, passes: count });
  const window = cutWindowOf(
    [{ ...at(passes), outlineMm: squareMm, drops: true, heldAt: at(passes - 1) }],
    heldUpPer100Mm(stock.family),
  );
  const drops = (count: number): boolean => window.meanChanceAt(count * eachPass, count, outlineMm) >= wish.certainty;
  const enough = drops(passes * MOST_TIMES) ? leastFrom(1, passes * MOST_TIMES, drops) : undefined;
  const share = `${plainNumber(100 * wish.certainty, 3)} of 100`;
  if (enough === undefined)
    return lacks(
      `By one square ${share} parts with ${formatLength(outlineMm, liked, 3)} of outline are not to be promised, in however many passes: burn a card of cut squares, or make do with fewer.`,
      window,
    );
  const cut = {
    settings: { ...settings, passes: enough },
    energy: enough * eachPass,
    chance: window.chanceAt(enough * eachPass, enough, outlineMm),
  };
  const parts =
    wish.outlineMm === null ? 'squares like this' : `parts with ${formatLength(outlineMm, liked, 3)} of outline`;
  return {
    ...none,
    window,
    cut,
    missing: [],
    says: `${enough} passes at ${formatSpeed(settings.speedMmPerS, liked)}: ${share} ${parts} drop, all doubt included. It took ${passes}, in one place; a card of cut squares tells more, and mostly takes less.`,
  };
}
