import type { Ask, Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { likedBest, likedWords, surelyLiked, type LikedBest } from '../../core/card/liked';
import { BETTER, isSpoiled, OUTCOME } from '../../core/card/usual-asks';
import { ceilingOf, type CeilingFit, type StrengthAtPower } from '../../core/fit/ceiling';
import { darkensFrom, type RimFit } from '../../core/fit/rim';
import { formatPower } from '../../core/quantities/format';
import { median } from '../../core/stats/robust';

export const CEILING_ASKS: readonly Ask[] = [{ field: 'tone', by: 'photo', measure: 'tone' }, OUTCOME, BETTER];

/** L* that two tones must differ by to be two tones to the eye, side by side. */
export const TOLD_APART_L = 2;

/** Two patches of one photo, one of them dark, are compared to no better than this. */
const LEAST_SIGMA_L = 0.5;
/** A photo less sure than this of the strong patches tells no ceiling. */
const MOST_SIGMA_L = 3;

export interface WedgePatch extends StrengthAtPower {
  readonly cellIndex: number;
}

/** How many of a wedge's darkest steps look the same. */
export interface WedgeMerged {
  readonly top: number;
  readonly steps: number;
  readonly merged: number;
}

export interface CeilingFinding extends BaseFinding {
  readonly patches: readonly WedgePatch[];
  readonly fit: CeilingFit | null;
  /** The least power that an operator called spoiled; null where none was. */
  readonly spoiledFrom: number | null;
  readonly wedges: readonly WedgeMerged[];
  /** Past it more power goes deeper and gets no stronger, or spoils; null where that is not told. */
  readonly ceiling: number | null;
  readonly low: number | null;
  readonly high: number | null;
  /** From which power on stock around patches is darker than bare by what an eye tells apart; null where that is not seen. */
  readonly edges: RimFit | null;
  /** What the operator likes best of the strong patches that were compared; it goes before what a photo shows where it is sure. */
  readonly liked: LikedBest | null;
}

/** Patches that an eye compares two at a time. */
const MOST_COMPARED = 8;

/** Powers that differ by less than this share look alike: there is nothing to prefer. */
const LEAST_APART = 0.04;

/**
 * Patches for the eye to compare: those of at least half the greatest power that were not called spoiled, no two of about one power, weakest first; of
 * many every so manieth, the strongest among them.
 */
export function comparedPatches(layout: Layout, seen: Seen): number[] {
  const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
  const sound = layout.order.filter((index) => !isSpoiled(seen, index)).sort((a, b) => powerOf(b) - powerOf(a));
  const most = sound[0] === undefined ? 0 : powerOf(sound[0]);
  const strong: number[] = [];
  for (const index of sound) {
    const last = strong.at(-1);
    const apart = last === undefined || powerOf(index) <= powerOf(last) * (1 - LEAST_APART);
    if (powerOf(index) >= most / 2 && apart) strong.push(index);
  }
  const each = Math.ceil(strong.length / MOST_COMPARED);
  return strong.filter((_, at) => at % each === 0).reverse();
}

/**
 * The power of the patch that the operator likes best, where comparisons of two at a time make that sure, or else what `byStrength` of all patches
 * says; that stands beside it then. It lies between the compared ones next to it.
 */
export function findCeiling(layout: Layout, seen: Seen, known: Known): CeilingFinding {
  const liked = likedBest(layout, seen);
  const measured = byStrength(layout, seen, known);
  const top = surelyLiked(liked);
  if (!liked || !top) return { ...measured, liked };
  const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
  const ceiling = powerOf(top.cellIndex);
  const powers = liked.ranking.map(({ cellIndex }) => powerOf(cellIndex));
  const beside =
    measured.ceiling === null || Math.abs(measured.ceiling - ceiling) < 0.005
      ? ''
      : ` By how strong patches are it would be ${formatPower(measured.ceiling)}.`;
  return {
    ...measured,
    liked,
    ceiling,
    low: Math.max(...powers.filter((power) => power < ceiling), 0),
    high: Math.min(...powers.filter((power) => power > ceiling), Math.max(...powers)),
    missing: [],
    says: `${formatPower(ceiling)} is ${likedWords(liked, 'patches')}.${beside}`,
  };
}

/**
 * The least power within 2 L* of the strongest that patches get, by a photo; lower where the operator called patches from there on spoiled, which are
 * left out. Where patches still get stronger at the greatest power, or too few were read, what is missing is said instead.
 */
function byStrength(layout: Layout, seen: Seen, { pairing }: Known): Omit<CeilingFinding, 'liked'> {
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const told = layout.order.flatMap((cellIndex) => {
    const reading = readings.get(cellIndex);
    return reading ? [{ cellIndex, reading, power: mainBurn(layout.cells[cellIndex]!).settings.powerFraction }] : [];
  });
  const spoiled = told.filter(({ cellIndex }) => isSpoiled(seen, cellIndex));
  const spoiledFrom = spoiled.length === 0 ? null : Math.min(...spoiled.map(({ power }) => power));
  const strong = [...told].sort((a, b) => b.power - a.power).slice(0, Math.max(3, Math.round(told.length / 3)));
  const way = strong.length > 0 ? Math.sign(median(strong.map(({ reading }) => reading.deltaLightness))) : 0;
  const patches = told
    .filter(({ cellIndex }) => !isSpoiled(seen, cellIndex))
    .map(({ cellIndex, power, reading }): WedgePatch => ({
      cellIndex,
      power,
      strength: way * reading.deltaLightness,
      sigma: Math.max(LEAST_SIGMA_L, reading.lightnessSigma),
    }))
    .sort((a, b) => a.power - b.power);
  // Of spoiled ones too: they are what darkens most.
  const rims = told
    .filter(({ reading }) => Number.isFinite(reading.edgeHalo) && reading.lightnessSigma <= MOST_SIGMA_L)
    .map(({ power, reading }) => ({ power, darker: -reading.edgeHalo }));
  const edges = darkensFrom(rims, TOLD_APART_L);
  const none = { edges, patches, fit: null, spoiledFrom, wedges: [], ceiling: null, low: null, high: null, says: '' };
  if (seen.readings.length === 0)
    return { ...none, missing: ['No photo of this card was read yet: it tells how strong each patch is.'] };
  const strongest = patches.slice(-Math.max(3, Math.round(patches.length / 3)));
  if (strongest.some(({ sigma }) => sigma > MOST_SIGMA_L))
    return {
      ...none,
      missing: [
        'The photo is not sure enough of the strong patches, for the reasons they are marked with: take one more in other light, or turned a quarter.',
      ],
    };
  const fit = ceilingOf(patches, TOLD_APART_L);
  if (!fit)
    return {
      ...none,
      missing: ['Too few patches were read, or hardly any marked: burn wedges with more power, or slower.'],
    };
  const wedges = wedgesOf(layout, patches);
  const highest = Math.max(...patches.map(({ power }) => power));
  if (!fit.reached && spoiledFrom === null)
    return {
      ...none,
      fit,
      wedges,
      missing: [
        highest >= pairing.machine.powerCap - 1e-6
          ? `Patches still get stronger at ${formatPower(highest)}, this machine’s cap: at this speed the cap is the ceiling. Go slower to see the stock’s own.`
          : `Patches still get stronger at ${formatPower(highest)}: burn wedges up to more power, or slower.`,
      ],
    };
  // Sound patches end below the first spoiled one.
  const sound = patches.filter(({ power }) => spoiledFrom === null || power < spoiledFrom).at(-1);
  const bounded = spoiledFrom !== null && (!fit.reached || fit.power >= spoiledFrom);
  if (bounded && !sound)
    return {
      ...none,
      fit,
      wedges,
      missing: ['Even the weakest patches were called spoiled: burn wedges with less power.'],
    };
  const ceiling = bounded ? sound!.power : fit.power;
  const [low, high] = bounded ? [sound!.power, spoiledFrom] : [fit.low, Math.min(fit.high, spoiledFrom ?? Infinity)];
  return {
    ...none,
    fit,
    wedges,
    ceiling,
    low,
    high,
    missing: [],
    says: `${
      bounded
        ? `Up to ${formatPower(ceiling)} patches are sound; from ${formatPower(spoiledFrom)} on they were called spoiled.`
        : `From ${formatPower(ceiling)} on nothing gets stronger by ${TOLD_APART_L} L*: more power only goes deeper.${fallWords(fit)}`
    }${edges ? ` From ${formatPower(edges.from)} on edges darken: soot, which wipes off, or char.` : ''}`,
  };
}

const fallWords = ({ fallsFrom }: CeilingFit): string =>
  fallsFrom === null ? '' : ` From ${formatPower(fallsFrom)} on patches even get weaker again.`;

/** How many steps of each wedge, from its strongest down, lie no further than the eye tells apart from that. */
function wedgesOf(layout: Layout, patches: readonly WedgePatch[]): WedgeMerged[] {
  const tops = [...new Set(layout.cells.map(({ levels }) => Number(levels.top)))].sort((a, b) => a - b);
  return tops.flatMap((top) => {
    const steps = patches.filter(({ cellIndex }) => layout.cells[cellIndex]!.levels.top === top);
    const last = steps.at(-1);
    if (!last) return [];
    const differs = steps.filter(({ strength }) => Math.abs(strength - last.strength) >= TOLD_APART_L).at(-1);
    const merged = steps.length - 1 - (differs ? steps.indexOf(differs) : -1);
    return [{ top, steps: steps.length, merged }];
  });
}

/** What is seen of a wedge, in words. */
export const wedgeWords = ({ steps, merged }: WedgeMerged): string =>
  merged <= 1 ? `all ${steps} steps differ` : `the strongest ${merged} of ${steps} steps look the same`;
