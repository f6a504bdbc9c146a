import type { BasePlan } from '../../core/card/contract';
import type { Tones } from '../../core/card/propose-tones';
import { NEXT_TO_NOTHING } from '../../core/fit/tone';
import { lookedUp } from '../../core/picture/tone-table';

export const TONE_VERSION = 1;

/** Small patches of greys from nearly nothing to black, each several times, shuffled over the card. */
export interface TonePlan extends BasePlan, Tones {
  readonly steps: number;
  readonly repeats: number;
  readonly patchMm: number;
  readonly gapMm: number;
}

/**
 * Greys that are asked for, the lightest first. Where power follows grey that is next to nothing, which is burned with the power of the floor: what
 * that leaves no other patch tells. Dots of next to nothing are none.
 */
export const wedgeGreys = ({ mode, steps }: Pick<TonePlan, 'mode' | 'steps'>): number[] =>
  Array.from({ length: steps }, (_, step) =>
    mode !== 'power' ? rounded((step + 1) / steps) : step === 0 ? NEXT_TO_NOTHING : rounded(step / (steps - 1)),
  );

const rounded = (grey: number): number => Math.round(grey * 1e4) / 1e4;

/** What is burned for a grey: itself, or what the kept table makes of it. */
export const burnedGrey = ({ corrected, table }: TonePlan, grey: number): number =>
  corrected && table ? lookedUp(table.entries, grey) : grey;

export function upgradeTonePlan(stored: object): TonePlan {
  const { version } = stored as { version?: number };
  if (version !== TONE_VERSION) throw new RangeError(`unknown tone plan version: ${version}`);
  return stored as TonePlan;
}
