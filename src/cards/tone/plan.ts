import type { BasePlan } from '../../core/card/contract';
import type { Tones } from '../../core/card/propose-tones';
import { lookedUp } from '../../core/picture/tone-table';

export const TONE_VERSION = 1;

/** Small patches of greys from nearly nothing to black, each several times, shuffled over the card. */
export interface TonePlan extends BasePlan, Tones {
  readonly steps: number;
  readonly repeats: number;
  readonly patchMm: number;
  readonly gapMm: number;
}

/** Greys that are asked for, the lightest first. */
export const wedgeGreys = ({ steps }: TonePlan): number[] =>
  Array.from({ length: steps }, (_, step) => Math.round(((step + 1) / steps) * 1e4) / 1e4);

/** What is burned for a grey: itself, or what the kept table makes of it. */
export const burnedGrey = ({ corrected, table }: TonePlan, grey: number): number =>
  corrected && table ? lookedUp(table.entries, grey) : grey;

export function upgradeTonePlan(stored: object): TonePlan {
  const { version } = stored as { version?: number };
  if (version !== TONE_VERSION) throw new RangeError(`unknown tone plan version: ${version}`);
  return stored as TonePlan;
}
