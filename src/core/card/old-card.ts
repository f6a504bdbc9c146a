import type { Constants } from './settings';

/** One edge of an old card: what varies along it, from the left or from the top, in the channel's own unit. */
export interface OldAxis {
  readonly channel: 'power' | 'speed';
  readonly values: readonly number[];
}

/** A card that was burned long ago by other means: squares in rows and columns, told by whoever has it in hand. */
export interface OldCard {
  readonly across: OldAxis;
  readonly down: OldAxis;
  readonly cellMm: number;
  readonly gapMm: number;
  readonly constants: Constants;
}
