/** Two sheets that meet at a corner, fingers of one in the gaps of the other. */
export interface BoxJoint {
  /** Along the corner. */
  readonly lengthMm: number;
  /** Of the sheet that is stuck through, as measured: fingers are as long. */
  readonly thicknessMm: number;
  /** About how wide a finger is to be. */
  readonly fingerMm: number;
  /** What a gap shall be wider than the finger in it; below zero to be pressed in. */
  readonly clearanceMm: number;
  readonly kerfMm: number;
}

export interface DrawnBoxJoint {
  /** Fingers and gaps along either edge together: an odd number, so that both ends of an edge are alike. */
  readonly count: number;
  /** A finger and a gap as they come out. */
  readonly fingerMm: number;
  readonly gapMm: number;
  /** And as they are drawn. */
  readonly drawnFingerMm: number;
  readonly drawnGapMm: number;
  /** How much of either end finger is drawn: its outer side is the sheet's own edge, cut as well. */
  readonly drawnEndMm: number;
  /** How deep gaps are drawn: from the outer edge, which is drawn out by half of the kerf. */
  readonly drawnDepthMm: number;
  /** What finger and gap would have between them if they were drawn as they are wanted. */
  readonly undoneMm: number;
}

/** Fewer do not hold. */
const LEAST_COUNT = 3;

/**
 * How the edges of a box joint are drawn. Along one edge fingers and gaps share their borders, so that a gap cannot be widened without its
 * neighbours: each border gives a quarter of the clearance, on either sheet. Fingers come out narrower by a kerf and gaps wider, so each border is drawn
 * half a kerf into its gap. No error adds up along the edge: borders lie at even places. Throws RangeError for sizes that leave no finger or no gap,
 * for a kerf below nothing, and for an edge too short for three.
 *
 * An edge of 90 mm, fingers of about 10, a kerf of 0.2, flush: nine of 10 mm, fingers drawn 10.2 and gaps 9.8.
 */
export function boxJoint({ lengthMm, thicknessMm, fingerMm, clearanceMm, kerfMm }: BoxJoint): DrawnBoxJoint {
  if (!(kerfMm >= 0)) throw new RangeError('A cut takes something away: the kerf is 0 or more.');
  if (!(thicknessMm > 0 && fingerMm > 0)) throw new RangeError('Fingers have a width, and sheets a thickness.');
  const near = Math.round(lengthMm / fingerMm);
  const count = near % 2 === 1 ? near : near + (lengthMm / fingerMm > near ? 1 : -1);
  if (count < LEAST_COUNT) throw new RangeError('The edge is too short for three fingers of this width.');
  const pitch = lengthMm / count;
  const [finger, gap] = [pitch - clearanceMm / 2, pitch + clearanceMm / 2];
  const drawnGapMm = gap - kerfMm;
  if (!(drawnGapMm > 0)) throw new RangeError('The cut alone is wider than a gap: make fingers wider.');
  if (!(finger > 0)) throw new RangeError('With so much clearance nothing is left of a finger.');
  return {
    count,
    fingerMm: finger,
    gapMm: gap,
    drawnFingerMm: finger + kerfMm,
    drawnGapMm,
    // Its inner border alone gives clearance: a quarter of it.
    drawnEndMm: pitch - clearanceMm / 4 + kerfMm,
    drawnDepthMm: thicknessMm,
    undoneMm: 2 * kerfMm,
  };
}
