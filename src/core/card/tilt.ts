import { formatLength, type LikedUnits } from '../quantities/format';

/**
 * A board that is tilted under the head, so that one burn goes through many focus offsets: its left end stands on a spacer, and the face falls to the
 * right. Where it is level with the focus that was set, the offset is none; to the left of there the face is nearer to the head.
 */
export interface Tilt {
  /** How far the face falls for each millimetre to the right. */
  readonly fallMmPerMm: number;
  /** Where along the card the focus is set, from its left edge. */
  readonly levelAtMm: number;
  readonly spacerMm: number;
}

/** Steeper than this, boards slide, and marks are no longer alike for other reasons than focus. From memory, without a source. */
export const STEEPEST = 1 / 6;

/** The focus offset of a place of the card: positive where the face has fallen away from the head, as where that was raised. */
export const offsetOnTilt = ({ fallMmPerMm, levelAtMm }: Tilt, xMm: number): number => fallMmPerMm * (xMm - levelAtMm);

/** Where the spacer stands: so far to the left of the edge that the board rests on. */
export const spacerAwayMm = ({ spacerMm, fallMmPerMm }: Pick<Tilt, 'spacerMm' | 'fallMmPerMm'>): number =>
  spacerMm / fallMmPerMm;

/** How a board is tilted, as somebody does it, in one sentence without a stop at its end. */
export function tiltWords(tilt: Tilt, liked: LikedUnits): string {
  const length = (mm: number): string => formatLength(Math.round(mm * 10) / 10, liked, 4);
  return `tilt the board: rest its right end on the bed, push a spacer of ${length(tilt.spacerMm)} under it ${length(spacerAwayMm(tilt))} to the left of there, so that its left end is up; set the focus ${length(tilt.levelAtMm)} from the card’s left edge`;
}

/** What is to be checked before a card on a tilted board is burned, one line each. */
export function tiltChecks(tilt: Tilt | undefined, liked: LikedUnits): string[] {
  if (!tilt) return [];
  const words = tiltWords(tilt, liked);
  return [
    `${words[0]!.toUpperCase()}${words.slice(1)}.`,
    'The board cannot slide, and the head clears its raised end wherever it goes: move it there by hand first.',
  ];
}
