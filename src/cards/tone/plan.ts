import type { BasePlan } from '../../core/card/contract';
import type { BurnSettings } from '../../core/card/settings';
import { lookedUp } from '../../core/fit/tone';
import { PICTURE_MODES, type PictureMode } from '../../core/picture/mode';

export const TONE_VERSION = 1;

export { PICTURE_MODES };
export type { PictureMode };

/** A table as it was kept, and what it was measured with: it corrects nothing else. */
export interface KeptTable {
  readonly mode: PictureMode;
  readonly floorFraction: number;
  readonly topFraction: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  /** 256 greys to burn, for the greys of a picture. */
  readonly entries: readonly number[];
}

/** Small patches of greys from nearly nothing to black, each several times, shuffled over the card. */
export interface TonePlan extends BasePlan {
  readonly mode: PictureMode;
  readonly steps: number;
  readonly repeats: number;
  /** Power of a grey of next to nothing, where power follows grey. */
  readonly floorFraction: number;
  /** Power of black, and of every dot. */
  readonly topFraction: number;
  /** Whether greys go through the kept table first: a wedge that proves it. */
  readonly corrected: boolean;
  readonly table: KeptTable | null;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'powerFraction' | 'lineAngleDeg' | 'crossHatch'>;
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
