import type { Ask, Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Cell, type Layout } from '../../core/card/layout';
import { isSpoiled, OUTCOME } from '../../core/card/usual-asks';
import { lightnessOfLuminance, luminanceOfLightness } from '../../core/color/lab';
import {
  leftByTable,
  murrayDaviesCoverage,
  offStraight,
  toneOf,
  toneTable,
  type StrengthAtGrey,
  type ToneFit,
} from '../../core/fit/tone';
import { PICTURE_MODE_NAMES, type PictureMode } from '../../core/picture/mode';
import { plainNumber } from '../../core/quantities/format';
import { meanAndSpread, median } from '../../core/stats/robust';

export const TONE_ASKS: readonly Ask[] = [{ field: 'tone', by: 'photo', measure: 'tone' }, OUTCOME];

/** Two patches of one photo are compared to no better than this. */
const LEAST_SIGMA_L = 0.5;
/** A photo less sure than this of half of the patches tells no tones. */
const MOST_SIGMA_L = 3;
/** A table of fewer L* from bare stock to black is not worth a picture. */
const LEAST_STRENGTH_L = 5;
/** A corrected wedge no further from straight than this is proven. */
export const STRAIGHT_L = 2.5;

export interface TonePatch extends StrengthAtGrey {
  readonly cellIndex: number;
  /** The grey that was asked for; `grey` is what was burned for it. */
  readonly asked: number;
}

/** How much darker dots come out than they cover. */
export interface DotGain {
  readonly asked: number;
  readonly covered: number;
}

export interface ToneFinding extends BaseFinding {
  readonly mode: PictureMode;
  readonly corrected: boolean;
  readonly patches: readonly TonePatch[];
  readonly fit: ToneFit | null;
  /** What to burn for each of 256 greys; null where nothing is told. */
  readonly table: readonly number[] | null;
  /** L* rms that the wedge as it was burned lies off a straight line from bare stock to its strongest. */
  readonly offL: number | null;
  /** L* rms that is left of it through the table, by the curve; null where nothing is told. */
  readonly leftL: number | null;
  /** At a quarter, half and three quarters of what was burned. */
  readonly gain: readonly DotGain[];
}

/** Grey that was burned for a cell: as asked for, or what the kept table made of that. */
const burnedOf = ({ levels }: Cell): number => Number(levels.burnedAs ?? levels.grey);

/** How a card's greys were burned. */
export function modeOf(layout: Layout): PictureMode {
  const { shape } = mainBurn(layout.cells[0]!);
  return shape.do === 'dots' ? shape.screen : 'power';
}

/**
 * The curve of tone over grey by a photo, its inverse as a table, and how straight the wedge came out as it was burned. Patches that the operator called
 * spoiled are left out. Where too few greys were read, or hardly anything marked, what is missing is said instead.
 */
export function findTone(layout: Layout, seen: Seen, _known: Known): ToneFinding {
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const mode = modeOf(layout);
  const corrected = layout.cells.some(({ levels }) => levels.burnedAs !== undefined);
  const told = layout.order.flatMap((cellIndex) => {
    const reading = readings.get(cellIndex);
    return reading && !isSpoiled(seen, cellIndex) ? [{ cell: layout.cells[cellIndex]!, reading }] : [];
  });
  const none = { mode, corrected, patches: [], fit: null, table: null, offL: null, leftL: null, gain: [], says: '' };
  if (seen.readings.length === 0)
    return { ...none, missing: ['No photo of this card was read yet: it tells how strong each patch is.'] };
  const dark = told.filter(({ cell }) => burnedOf(cell) >= 0.5);
  const way = dark.length > 0 ? Math.sign(median(dark.map(({ reading }) => reading.deltaLightness))) : 0;
  const all = told.map(({ cell, reading }): TonePatch => ({
    cellIndex: cell.index,
    asked: Number(cell.levels.grey),
    grey: burnedOf(cell),
    strength: way * reading.deltaLightness,
    sigma: Math.max(LEAST_SIGMA_L, reading.lightnessSigma),
  }));
  // The lightest entries of a table may burn nothing at all: that tells no tone, but what they came out as counts.
  const patches = all.filter(({ grey }) => grey > 0);
  const some = { ...none, patches };
  const unsure = patches.filter(({ sigma }) => sigma > MOST_SIGMA_L);
  if (2 * unsure.length > patches.length)
    return {
      ...some,
      missing: [
        'The photo is not sure enough of most patches, for the reasons they are marked with: take one more in other light, or turned a quarter.',
      ],
    };
  const fit = toneOf(patches);
  if (!fit) return { ...some, missing: ['Patches of too few greys were read: at least five tell a curve.'] };
  if (fit.strongest < LEAST_STRENGTH_L)
    return {
      ...some,
      fit,
      missing: [
        `The strongest patch differs by ${plainNumber(fit.strongest, 2)} L* from bare stock: burn with more power for black, or slower.`,
      ],
    };
  const means = meansByAsked(all);
  const off = offStraight(means, fit.strengthAt(Math.max(...patches.map(({ grey }) => grey))));
  const bare = median(told.map(({ reading }) => luminanceOfLightness(reading.lightness - reading.deltaLightness)));
  const lightAt = (strength: number): number =>
    luminanceOfLightness(Math.max(0, lightnessOfLuminance(bare) + way * strength));
  const gain = [0.25, 0.5, 0.75].map((asked): DotGain => ({
    asked,
    covered: murrayDaviesCoverage(bare, lightAt(fit.strengthAt(asked)), lightAt(fit.strongest)),
  }));
  const level =
    fit.levelFrom < 0.9
      ? ` From ${percent(fit.levelFrom)} grey on nothing gets stronger: black can do with less power.`
      : '';
  const table = toneTable(fit);
  const leftL = leftByTable(
    fit,
    table,
    means.map(({ grey }) => grey),
  );
  const palest = fit.knots[1]!;
  const pale =
    leftL > STRAIGHT_L
      ? ` Next to nothing is burned too strongly: it comes out ${plainNumber(palest.strength, 2)} L* from bare stock, and nothing paler can be had. Find the floor with a threshold card, or go faster.`
      : '';
  return {
    ...some,
    fit,
    table,
    offL: off,
    leftL,
    gain,
    missing: [],
    says: corrected
      ? off <= STRAIGHT_L
        ? `The table holds: greys come out in a straight line to ${plainNumber(off, 2)} L*.${level}`
        : `Corrected greys still lie ${plainNumber(off, 2)} L* off a straight line: keep the new table, which this wedge makes, and prove it.${pale || level}`
      : `${plainNumber(fit.strongest, 2)} L* from bare stock to black, ${PICTURE_MODE_NAMES[mode]}. Uncorrected, greys lie ${plainNumber(off, 2)} L* off a straight line; the table brings them ${leftL < 1 ? 'onto it' : `to ${plainNumber(leftL, 2)} L* of it`}.${pale || level}`,
  };
}

/** Mean strength of the patches of each grey that was asked for. */
function meansByAsked(patches: readonly TonePatch[]): { grey: number; strength: number }[] {
  return [...new Set(patches.map(({ asked }) => asked))].map((grey) => ({
    grey,
    strength: meanAndSpread(patches.filter(({ asked }) => asked === grey).map(({ strength }) => strength)).mean,
  }));
}

const percent = (share: number): string => `${plainNumber(100 * share, 2)} %`;

/** How greys gain, in words: "looks like 62 % of black". */
export const gainWords = ({ covered }: DotGain): string => `looks like ${percent(covered)} of black`;

/**
 * The powers of next to nothing and of black, from what was burned: greys go by power in a straight line, and the two furthest apart tell it best. Of
 * dots black is their one power, and nothing is below them.
 */
export function powersOf(layout: Layout): { floorFraction: number; topFraction: number } {
  const cells = [...layout.cells].sort((a, b) => burnedOf(a) - burnedOf(b));
  const [low, high] = [cells[0]!, cells.at(-1)!];
  const powerOf = (cell: Cell): number => mainBurn(cell).settings.powerFraction;
  if (modeOf(layout) !== 'power') return { floorFraction: 0, topFraction: powerOf(high) };
  const slope = (powerOf(high) - powerOf(low)) / (burnedOf(high) - burnedOf(low));
  const round = (fraction: number): number => Math.round(fraction * 1e4) / 1e4;
  return {
    floorFraction: round(Math.max(0, powerOf(high) - slope * burnedOf(high))),
    topFraction: round(Math.min(1, powerOf(high) + slope * (1 - burnedOf(high)))),
  };
}
