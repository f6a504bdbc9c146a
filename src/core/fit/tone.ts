import { lookedUp, TABLE_SIZE } from '../picture/tone-table';
import { monotoneCubic } from '../stats/monotone-cubic';
import { risingBlocks } from '../stats/isotonic';
import { meanAndSpread } from '../stats/robust';

/** How strong a patch is that was burned for a grey: by how many L* it differs from bare stock, the way this burn turns. */
export interface StrengthAtGrey {
  /** 0 for nothing to 1 for all there is. */
  readonly grey: number;
  readonly strength: number;
  readonly sigma: number;
}

export interface ToneKnot extends StrengthAtGrey {
  readonly patches: number;
}

export interface ToneFit {
  /** Bare stock, and the mean of each grey as it was measured. */
  readonly means: readonly ToneKnot[];
  /** The curve that never falls, at each of those. */
  readonly knots: readonly { readonly grey: number; readonly strength: number }[];
  readonly strengthAt: (grey: number) => number;
  /** The strongest that the curve gets. */
  readonly strongest: number;
  /** Standard deviation of patches of one grey about their mean; null where no grey has two. */
  readonly scatter: number | null;
  /** From this grey on nothing gets stronger by more than chance; 1 where the last step still does. */
  readonly levelFrom: number;
}

/** The palest grey that a picture has beside white; where power follows grey it is burned with the power of the floor. */
export const NEXT_TO_NOTHING = Math.ceil(1e4 / (TABLE_SIZE - 1)) / 1e4;
/** A curve through fewer greys tells no tone. */
export const LEAST_GREYS = 5;
/** Patches of one grey scatter by this at the least: what a photo compares two of them to. */
const LEAST_SIGMA_L = 0.3;
/**
 * The curve of strength over grey: means of patches of one grey, pooled where they would fall, and a monotone cubic through them, from bare stock on.
 * No shape but that is taken for granted. Null for fewer than five greys. Throws RangeError for a grey outside 0 to 1, or a sigma of 0 or less.
 */
export function toneOf(patches: readonly StrengthAtGrey[]): ToneFit | null {
  for (const { grey, sigma } of patches)
    if (!(grey > 0 && grey <= 1 && sigma > 0)) throw new RangeError(`invalid patch: grey ${grey}, sigma ${sigma}`);
  const greys = [...new Set(patches.map(({ grey }) => grey))].sort((a, b) => a - b);
  if (greys.length < LEAST_GREYS) return null;
  const groups = greys.map((grey) => patches.filter((patch) => patch.grey === grey));
  const scatter = pooledScatter(groups);
  const means = groups.map((group): ToneKnot => {
    const own = Math.sqrt(group.reduce((sum, { sigma }) => sum + sigma ** 2, 0)) / group.length;
    return {
      grey: group[0]!.grey,
      strength: meanAndSpread(group.map(({ strength }) => strength)).mean,
      sigma: Math.max(LEAST_SIGMA_L, own, (scatter ?? 0) / Math.sqrt(group.length)),
      patches: group.length,
    };
  });
  const rising = risingBlocks(means.map(({ strength, sigma }) => ({ y: strength, weight: 1 / sigma ** 2 })));
  // Nothing burned is bare stock, and no grey is weaker than that.
  const knots = [
    { grey: 0, strength: 0 },
    ...rising.flatMap(({ first, last, y }) =>
      means.slice(first, last + 1).map(({ grey }) => ({ grey, strength: Math.max(0, y) })),
    ),
  ];
  const strongest = knots.at(-1)!.strength;
  const near = 2 * means.at(-1)!.sigma;
  return {
    means: [{ grey: 0, strength: 0, sigma: LEAST_SIGMA_L, patches: 0 }, ...means],
    knots,
    strengthAt: monotoneCubic(knots.map(({ grey, strength }) => ({ x: grey, y: strength }))),
    strongest,
    scatter,
    levelFrom: knots.find(({ strength }) => strength >= strongest - near)!.grey,
  };
}

/** Standard deviation within groups, over all of them; null where none has two. */
function pooledScatter(groups: readonly (readonly StrengthAtGrey[])[]): number | null {
  let squares = 0;
  let freedom = 0;
  for (const group of groups) {
    const { mean } = meanAndSpread(group.map(({ strength }) => strength));
    squares += group.reduce((sum, { strength }) => sum + (strength - mean) ** 2, 0);
    freedom += group.length - 1;
  }
  return freedom === 0 ? null : Math.sqrt(squares / freedom);
}

const BISECTIONS = 40;

/** The least grey that is as strong as wanted, by the curve; 1 where none is. */
export function greyFor(
  { strengthAt, strongest }: Pick<ToneFit, 'strengthAt' | 'strongest'>,
  strength: number,
): number {
  if (strength <= 0) return 0;
  if (strength >= strongest) strength = strongest;
  let [low, high] = [0, 1];
  for (let turn = 0; turn < BISECTIONS; turn++) {
    const middle = (low + high) / 2;
    // On a level stretch the curve is as high as its end but for the last bits.
    if (strengthAt(middle) >= strength - 1e-9) high = middle;
    else low = middle;
  }
  return high;
}

/**
 * The inverse as a table of 256: what to burn for each grey of a picture, so that L* falls in even steps from bare stock to the strongest. Entry 0 burns
 * nothing. Rounded to a ten-thousandth. Where next to nothing was burned and left a tone, paler ones cannot be had: they are burned like it, or not at
 * all, whichever is nearer.
 */
export function toneTable(fit: Pick<ToneFit, 'strengthAt' | 'strongest' | 'knots'>): number[] {
  const palest = fit.knots[1]!;
  const least = palest.grey <= NEXT_TO_NOTHING ? palest.strength : 0;
  return Array.from({ length: TABLE_SIZE }, (_, entry) => {
    const wanted = (entry / (TABLE_SIZE - 1)) * fit.strongest;
    if (wanted < least / 2) return 0;
    return Math.round(Math.max(wanted < least ? palest.grey : 0, greyFor(fit, wanted)) * 1e4) / 1e4;
  });
}

/** How far from a straight line, in L* rms, greys of a wedge come out by a curve that are burned through a table. */
export function leftByTable(
  { strengthAt, strongest }: ToneFit,
  table: readonly number[],
  greys: readonly number[],
): number {
  return offStraight(
    greys.map((grey) => ({ grey, strength: strengthAt(lookedUp(table, grey)) })),
    strongest,
  );
}

/**
 * How far strengths lie from the straight line between bare stock and the strongest, in L* rms: what a picture burned so is off by. Greys need not be
 * those that were burned: of a corrected wedge they are those that were asked for.
 */
export function offStraight(means: readonly Pick<StrengthAtGrey, 'grey' | 'strength'>[], strongest: number): number {
  const squares = means.map(({ grey, strength }) => (strength - grey * strongest) ** 2);
  return Math.sqrt(squares.reduce((sum, square) => sum + square, 0) / squares.length);
}

/**
 * How much of a patch looks covered by the strongest tone, by the light that comes back from bare stock, from the patch and from the strongest.
 * Source: A. Murray, Monochrome reproduction in photoengraving, J. Franklin Inst. 221 (1936) 721.
 *
 * murrayDaviesCoverage(0.5, 0.3, 0.1) -> 0.5
 */
export const murrayDaviesCoverage = (bare: number, patch: number, strongest: number): number =>
  (bare - patch) / (bare - strongest);
