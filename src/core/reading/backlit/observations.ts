/** Why what a light table shows of a cell is not to be trusted without a look. */
export type ThroughDoubt =
  | 'blown-out'
  | 'blurred'
  | 'off-frame'
  | 'room-light'
  | 'tones-unknown'
  | 'photos-disagree'
  | 'half-open';

/** How much light comes through a cell on a light table. Shares are of the open table's light at the same place. */
export interface CellThrough {
  readonly cellIndex: number;
  /** Mean over the inner 60 % of the cell. */
  readonly through: number;
  /** Standard uncertainty of `through`. */
  readonly sigma: number;
  /** The part of it that cells of the same photo do not share: what two of them can be told apart by. */
  readonly ownSigma: number;
  /** What the darkest tenth of that area lets through: coat that was left in specks or between lines. */
  readonly darkestTenth: number;
  readonly doubts: readonly ThroughDoubt[];
}

/** Bright specks in bare stock between the cells: holes in a coat. */
export interface Pinholes {
  readonly count: number;
  /** Bare stock that was looked over, in mm². */
  readonly areaMm2: number;
}

/** What a photo of a card on a light table shows. */
export interface Backlit {
  readonly cells: readonly CellThrough[];
  /** Share of the open table's light that bare stock sends to the camera, whichever way. */
  readonly bareThrough: number;
  readonly pinholes: Pinholes;
}

/** A sigma over this is marked: two of them are a tenth of the open table's light. */
export const MOST_SIGMA = 0.05;
