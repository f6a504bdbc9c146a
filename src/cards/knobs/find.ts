import type { Ask, Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import { pairsOfCard } from '../../core/card/mates-of-card';
import { MATE } from '../../core/card/usual-asks';
import {
  chancesAt,
  clearanceFor,
  fitBounds,
  FIT_WORDS,
  FITS,
  type Fit,
  type FitBounds,
  type WantedFit,
} from '../../core/fit/fit-bounds';
import type { Mates, PairOfMates } from '../../core/joint/mates';
import { formatLength, plainNumber } from '../../core/quantities/format';

export const KNOBS_ASKS: readonly Ask[] = [MATE];

export interface KnobsWish {
  readonly fit: WantedFit;
}

export const USUAL_KNOBS_WISH: KnobsWish = { fit: 'snug' };

export interface TriedPair extends PairOfMates {
  readonly fit: Fit;
}

export interface KnobsFinding extends BaseFinding {
  readonly pairs: readonly TriedPair[];
  readonly mates: Mates | null;
  /** By drawn clearance, full width: less than nothing by twice what a pair is tighter on every side. Both kerfs are in it, whatever they are. */
  readonly bounds: FitBounds | null;
  /** How much tighter hole and part are drawn together on every side for the wished fit. */
  readonly tighterMm: number | null;
  /** What is between them then, full width, by the kerfs the card was drawn with; below nothing where they press. */
  readonly betweenMm: number | null;
  readonly chances: Readonly<Record<Fit, number>> | null;
  /** Pairs that went looser than one that is drawn looser by two fits or more. */
  readonly odd: readonly TriedPair[];
}

/** Fewer pairs than this tell nothing that would be worth a sheet. */
const LEAST_PAIRS = 4;
/** A tighter pair that goes looser by two fits or more contradicts the others. */
const ODD_BY = 2;

/** Where each fit begins by the sum of what hole and part are drawn tighter, and the sum for the one that is wanted. */
export function findKnobs(layout: Layout, seen: Seen, { pairing }: Known, wish: KnobsWish): KnobsFinding {
  const liked = pairing.machine.likedUnits;
  const mates = layout.mates ?? null;
  const pairs = pairsOfCard(layout, seen)
    .flatMap((pair): TriedPair[] => (pair.fit === null ? [] : [{ ...pair, fit: pair.fit }]))
    .sort((a, b) => a.tighterMm - b.tighterMm);
  const rank = ({ fit }: TriedPair): number => FITS.indexOf(fit);
  const odd = pairs.filter((pair, k) => pairs.slice(0, k).some((looser) => rank(pair) - rank(looser) >= ODD_BY));
  const none = { pairs, mates, bounds: null, tighterMm: null, betweenMm: null, chances: null, odd };
  const lacks = (missing: string): KnobsFinding => ({ ...none, missing: [missing], says: '' });
  if (!mates) return lacks('This card has no holes and parts that go together.');
  if (pairs.length < LEAST_PAIRS)
    return lacks(`Put parts into holes and say how each goes: ${LEAST_PAIRS} pairs at the least.`);
  if (pairs.every(({ fit }) => fit === 'no'))
    return lacks('No pair goes together: begin with a looser one, or measure the kerf again.');
  if (pairs.every(({ fit }) => fit === 'loose'))
    return lacks('Every pair is loose: take wider steps, or measure the kerf again.');
  const kerfsMm = mates.kerfMm.hole + mates.kerfMm.part;
  const felt = pairs.map(({ tighterMm, fit }) => ({ clearanceMm: -2 * tighterMm, fit }));
  const bounds = fitBounds(felt, kerfsMm);
  const { clearanceMm } = clearanceFor(bounds, wish.fit);
  const chances = chancesAt(bounds, clearanceMm);
  const tighterMm = -clearanceMm / 2;
  const length = (mm: number): string => formatLength(Math.round(mm * 1000) / 1000, liked, 3);
  return {
    ...none,
    bounds,
    tighterMm,
    betweenMm: clearanceMm + kerfsMm,
    chances,
    missing: [],
    says: `Drawn tighter by ${length(tighterMm)} a side in all, ${length(2 * tighterMm)} full width: ${FIT_WORDS[wish.fit]} in ${plainNumber(100 * chances[wish.fit], 2)} of 100. Only the sum counts: on the part, on the hole, or shared.`,
  };
}
