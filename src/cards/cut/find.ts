import type { CutEdge } from '../../core/book/fact-values';
import type { Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { LEAST_CUT_SPEED } from '../../core/card/propose-cut';
import { boxOfShape } from '../../core/card/shape';
import { cutWindowOf, type CutTrial, type CutWindow } from '../../core/fit/cut-window';
import { formatLength, formatSpeed, plainNumber } from '../../core/quantities/format';
import { heldUpPer100Mm } from '../../core/stock/cutting';
import { goodForThickness } from '../../core/stock/good-for';
import { choicesOf, type CutChoice, type Want } from './choices';
import { tappedSquares, type TappedSquare } from './squares';

export interface CutWish {
  readonly want: Want;
  /** The darkest edge that will do. */
  readonly edge: 'any' | 'brown' | 'pale';
  /** Share of parts that must drop. */
  readonly certainty: number;
  /** Length of the outline of the parts to be made; null for squares like the card's. */
  readonly outlineMm: number | null;
  /** A part that a knife frees will do. */
  readonly knife: boolean;
}

export const USUAL_CUT_WISH: CutWish = { want: 'faster', edge: 'any', certainty: 0.98, outlineMm: null, knife: false };

export interface CutFinding extends BaseFinding {
  readonly squares: readonly TappedSquare[];
  readonly window: CutWindow | null;
  /** Length of the outline that the answer is for. */
  readonly outlineMm: number;
  readonly choices: readonly CutChoice[];
  /** The wanted one of them. */
  readonly chosen: CutChoice | null;
  /** Sheets that the answer is good for. */
  readonly thicknessMm: { readonly from: number; readonly to: number };
  /** Squares that held up although sound stock was surely through. */
  readonly heldUp: readonly number[];
}

/** Fewer tapped squares than this tell nothing. */
const LEAST_TAPPED = 6;
/** Energies are foretold so far beyond the greatest that was tried. */
const BEYOND_TRIED = 1.05;

/** What the answers lack for a curve through them; empty where nothing. */
function lacking(squares: readonly TappedSquare[], layout: Layout, { pairing }: Known): string {
  const told = squares.filter(({ drops }) => drops !== null);
  if (told.length < LEAST_TAPPED)
    return `Tap the sheet and say of at least ${LEAST_TAPPED} squares what happened, of all of them better.`;
  const [dropped, stuck] = [told.filter(({ drops }) => drops), told.filter(({ drops }) => !drops)];
  if (stuck.length === 0)
    return 'Every square dropped: burn a card with less energy, faster. Until then the least that drops is not known.';
  if (dropped.length === 0) {
    const slowest = Math.min(...layout.cells.map((cell) => mainBurn(cell).settings.speedMmPerS));
    return slowest <= LEAST_CUT_SPEED * 1.2
      ? `No square dropped, at ${formatSpeed(slowest, pairing.machine.likedUnits)}: slower it would only char. Burn a card with a pass or two more; if that does not drop any either, this sheet is only for engraving on this machine.`
      : 'No square dropped: burn a card with more energy, slower or with a pass more.';
  }
  const middle = (of: readonly TappedSquare[]): number =>
    of.reduce((sum, { energy }) => sum + Math.log(energy), 0) / of.length;
  if (middle(dropped) <= middle(stuck))
    return 'Squares with little energy dropped where squares with much did not: look at them again, or burn the card anew.';
  return '';
}

/**
 * From which energy on squares drop, by what tapping told; and from that, for each wish, a setting with which the wanted share of parts with such an outline
 * drops, all doubt included. Where the answers contradict each other, or the card does not reach so far, what is missing is said instead.
 */
export function findCut(layout: Layout, seen: Seen, known: Known, wish: CutWish): CutFinding {
  const { pairing } = known;
  const liked = pairing.machine.likedUnits;
  const squareMm = 4 * boxOfShape(mainBurn(layout.cells[0]!).shape).width;
  const outlineMm = wish.outlineMm ?? squareMm;
  const squares = tappedSquares(layout, seen, pairing, wish.knife);
  const thicknessMm = goodForThickness(pairing.stock);
  const none = { squares, window: null, outlineMm, thicknessMm, choices: [], chosen: null, heldUp: [], says: '' };
  const missing = lacking(squares, layout, known);
  if (missing !== '') return { ...none, missing: [missing] };
  const trials = squares.flatMap(({ energy, passes, drops }): CutTrial[] =>
    drops === null ? [] : [{ energy, passes, outlineMm: squareMm, drops }],
  );
  const window = cutWindowOf(trials, heldUpPer100Mm(pairing.stock.family));
  const heldUp = squares
    .filter(({ drops, energy, passes }) => drops === false && energy > window.comesThrough(passes).high)
    .map(({ cellIndex }) => cellIndex);
  const most = Math.max(...trials.map(({ energy }) => energy));
  const needed = new Map<number, number>();
  for (const passes of new Set(trials.map((trial) => trial.passes))) {
    const energy = window.energyFor(wish.certainty, passes, outlineMm);
    if (energy !== null && energy <= most * BEYOND_TRIED) needed.set(passes, energy);
  }
  const share = `${plainNumber(100 * wish.certainty, 3)} of 100`;
  const parts =
    wish.outlineMm === null ? 'squares like these' : `parts with ${formatLength(outlineMm, liked, 3)} of outline`;
  if (needed.size === 0) {
    const passes = Math.max(...trials.map((trial) => trial.passes));
    const chance = window.meanChanceAt(most, passes, outlineMm);
    return {
      ...none,
      window,
      heldUp,
      missing: [
        `With the most energy of this card, ${plainNumber(100 * chance, 2)} of 100 ${parts} would drop; ${share} are wanted. Burn a card with more energy, or with more squares, or make do with fewer.`,
      ],
    };
  }
  const choices = choicesOf(layout, squares, needed, window, outlineMm, pairing).filter(({ edge }) =>
    fits(edge, wish.edge),
  );
  const chosen = choices.find(({ wants }) => wants.includes(wish.want)) ?? choices[0] ?? null;
  if (!chosen)
    return {
      ...none,
      window,
      heldUp,
      missing: [
        wish.edge === 'any'
          ? 'What is needed lies beyond the speeds and powers of this card: burn one that reaches further.'
          : `No setting that drops ${share} leaves its edge so pale: try a card of more passes, which are quicker each.`,
      ],
    };
  return {
    squares,
    window,
    outlineMm,
    thicknessMm,
    choices,
    chosen,
    heldUp,
    missing: [],
    says: saysOf(chosen, share, parts, heldUp, pairing.machine.likedUnits),
  };
}

const DARKNESS = { pale: 0, brown: 1, black: 2 } as const;
/** Of an edge that nobody called, nothing is known: it will do only where any does. */
const fits = (edge: CutEdge | null, wanted: CutWish['edge']): boolean =>
  wanted === 'any' || (edge !== null && DARKNESS[edge] <= DARKNESS[wanted]);

function saysOf(
  { settings }: CutChoice,
  share: string,
  parts: string,
  heldUp: readonly number[],
  liked: Known['pairing']['machine']['likedUnits'],
): string {
  const passes = settings.passes === 1 ? 'one pass' : `${settings.passes} passes`;
  const held =
    heldUp.length === 0
      ? ''
      : ` ${heldUp.length === 1 ? 'One square' : `${heldUp.length} squares`} held up where sound stock was through: a knot or glue inside. The margin is larger for it.`;
  return `${plainNumber(100 * settings.powerFraction, 3)} %, ${formatSpeed(settings.speedMmPerS, liked)}, ${passes}: ${share} ${parts} drop, all doubt included.${held}`;
}
