/**
 * How lines of the way back come to lie beside those of the way there: a beam, or a head, that answers late shifts each by its speed, and play in
 * the drive by an amount that stands at every speed. Told along one axis, for the speeds it was measured at.
 */
export interface LagLaw {
  /** The beam burns so much later than it was told; negative where it is early, or where the head is late. */
  readonly lagS: number;
  /** Part of the scan offset that is there at every speed. */
  readonly standingMm: number;
  readonly fromMmPerS: number;
  readonly toMmPerS: number;
}

/**
 * The scan offset that undoes a lag at a speed: both ways are shifted by speed times lag, away from each other. 0.1 ms late at 200 mm/s: lines of the
 * way back are laid 0.04 mm less far, -0.04.
 */
export const scanOffsetAt = ({ lagS, standingMm }: Pick<LagLaw, 'lagS' | 'standingMm'>, speedMmPerS: number): number =>
  standingMm - 2 * lagS * speedMmPerS;

/** Past its measured speeds a law is asked no further than by this factor. */
const REACH = 1.5;

/** Whether a law says something of a speed. */
export const holdsAt = (
  { fromMmPerS, toMmPerS }: Pick<LagLaw, 'fromMmPerS' | 'toMmPerS'>,
  speedMmPerS: number,
): boolean => speedMmPerS >= fromMmPerS / REACH && speedMmPerS <= toMmPerS * REACH;
