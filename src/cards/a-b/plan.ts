import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import type { WorkSetup } from '../../core/card/work-setup';
import { formatInterval, formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';

export const A_B_VERSION = 1;

/** The constants that can be set one against another. */
export const COMPARABLE = [
  'air',
  'direction',
  'bothWays',
  'passes',
  'intervalMm',
  'focusOffsetMm',
  'lineAngleDeg',
  'crossHatch',
  'frequencyKHz',
] as const;

export type Comparable = (typeof COMPARABLE)[number];

/** Two settings that differ by one constant, or one setting on stock that was made ready in two ways. */
export interface ABPlan extends BasePlan {
  readonly what: Comparable | 'prepared' | 'cleaned';
  /** Patches of each; each patch is of both sides where `what` is `cleaned`. */
  readonly pairs: number;
  readonly patchMm: number;
  readonly gapMm: number;
  /** A, and what B has too. */
  readonly constants: BurnSettings;
  /** What B has instead: the one that `what` names counts. */
  readonly other: Pick<BurnSettings, Comparable>;
  /** How the rows were made ready; counts where `what` is `prepared`. */
  readonly prepared: { readonly a: string; readonly b: string };
}

/** Both sides of patches that are looked at twice. */
export const UNCLEANED = 'as it was burned';
export const CLEANED = 'cleaned';

/** How a card is made ready that is looked at before it is cleaned and after. */
export const cleanedSetup = (setup: WorkSetup): WorkSetup => ({
  ...setup,
  finish: setup.finish === 'none' ? 'wiped' : setup.finish,
  lookedAt: 'both',
});

/** One side of the comparison: how it burns, and what it is called. */
export interface Side {
  readonly settings: BurnSettings;
  readonly words: string;
}

/** What a constant's value is called. */
function wordsOf(what: Comparable, settings: BurnSettings, liked: LikedUnits): string {
  switch (what) {
    case 'air':
      return `air ${settings.air}`;
    case 'direction':
      return settings.direction === 'horizontal' ? 'lines along X' : 'lines along Y';
    case 'bothWays':
      return settings.bothWays ? 'both ways' : 'one way';
    case 'passes':
      return settings.passes === 1 ? '1 pass' : `${settings.passes} passes`;
    case 'intervalMm':
      return `interval ${formatInterval(settings.intervalMm, liked)}`;
    case 'focusOffsetMm':
      return `focus ${settings.focusOffsetMm > 0 ? '+' : ''}${formatLength(settings.focusOffsetMm, liked, 3)}`;
    case 'lineAngleDeg':
      return `lines turned by ${plainNumber(settings.lineAngleDeg)}°`;
    case 'crossHatch':
      return settings.crossHatch ? 'cross-hatched' : 'lines one way';
    case 'frequencyKHz':
      return settings.frequencyKHz === null ? 'its usual pulses' : `${plainNumber(settings.frequencyKHz)} kHz`;
  }
}

/** Both sides of a plan. */
export function sidesOf(
  { what, constants, other, prepared }: Pick<ABPlan, 'what' | 'constants' | 'other' | 'prepared'>,
  liked: LikedUnits,
): { readonly a: Side; readonly b: Side } {
  if (what === 'cleaned')
    return { a: { settings: constants, words: UNCLEANED }, b: { settings: constants, words: CLEANED } };
  if (what === 'prepared')
    return { a: { settings: constants, words: prepared.a }, b: { settings: constants, words: prepared.b } };
  const settings: BurnSettings = { ...constants, [what]: other[what] };
  return {
    a: { settings: constants, words: wordsOf(what, constants, liked) },
    b: { settings, words: wordsOf(what, settings, liked) },
  };
}

export function upgradeABPlan(stored: object): ABPlan {
  const { version } = stored as { version?: number };
  if (version !== A_B_VERSION) throw new RangeError(`unknown A against B plan version: ${version}`);
  return stored as ABPlan;
}
