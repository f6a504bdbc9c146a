/** A hole and the part that goes into it, both cut. */
export interface Joint {
  /** What the part shall measure. */
  readonly sizeMm: number;
  /** What the hole shall be wider: nothing for flush, less than nothing to be pressed in. */
  readonly clearanceMm: number;
  /** Full width that a cut takes of the hole's stock, and of the part's. */
  readonly holeKerfMm: number;
  readonly partKerfMm: number;
  /** Standard uncertainty of either kerf; null where nobody knows. */
  readonly kerfSigmaMm: number | null;
}

/** Who is drawn other than true: both, one for both, one for itself alone, or nobody. */
export const SCHOOLS = ['both', 'part', 'hole', 'part-alone', 'nobody'] as const;
export type School = (typeof SCHOOLS)[number];

export interface DrawnJoint {
  readonly school: School;
  /** Widths as they are drawn. */
  readonly holeMm: number;
  readonly partMm: number;
  /** What there is between them once they are cut. */
  readonly clearanceMm: number;
  /** Standard uncertainty of that; null where nobody knows the kerf's. */
  readonly sigmaMm: number | null;
}

function checkKerf(kerfMm: number, sizeMm: number): void {
  if (!(kerfMm >= 0)) throw new RangeError('A cut takes something away: the kerf is 0 or more.');
  if (!(sizeMm > kerfMm)) throw new RangeError('The part is no wider than the cut: nothing would be left of it.');
}

/**
 * How a hole and a part are drawn under each school, and what that leaves between them. Cut on its line, a hole comes out larger by the full kerf, a part
 * smaller: drawn true they are loose by both kerfs. Schools that compensate for both cuts give what is wanted, wherever they put it; the one that
 * compensates the part for its own cut alone leaves the hole's kerf. Throws RangeError for a kerf below nothing or as wide as the part.
 *
 * 10 mm, flush, kerfs of 0.2 mm: both 9.8 and 10.2; the part for both 10 and 10.4; the part alone 10 and 10.2, which leaves 0.2 mm; nobody leaves 0.4 mm.
 */
export function jointBySchool({ sizeMm, clearanceMm, holeKerfMm, partKerfMm, kerfSigmaMm }: Joint): DrawnJoint[] {
  checkKerf(holeKerfMm, sizeMm);
  checkKerf(partKerfMm, sizeMm);
  return SCHOOLS.map((school) => {
    const { holeSideMm, partSideMm } = perSideOf(school, { holeKerfMm, partKerfMm, clearanceMm });
    const [holeMm, partMm] = [sizeMm + 2 * holeSideMm, sizeMm + 2 * partSideMm];
    if (!(holeMm > 0)) throw new RangeError('The hole would be drawn with no width: the kerf is too wide for it.');
    return {
      school,
      holeMm,
      partMm,
      clearanceMm: 2 * holeSideMm + holeKerfMm - (2 * partSideMm - partKerfMm),
      // One machine and one lens: where the kerf is off, it is off in both alike.
      sigmaMm: kerfSigmaMm === null ? null : 2 * kerfSigmaMm,
    };
  });
}

/**
 * How far a school moves the edges of a part, and those of a hole, outward on either side of what is wanted.
 *
 * Both, kerfs of 0.2 mm, 0.1 mm of clearance: the part 0.1 outward, the hole 0.05 inward.
 */
export function perSideOf(
  school: School,
  { holeKerfMm, partKerfMm, clearanceMm }: Pick<Joint, 'holeKerfMm' | 'partKerfMm' | 'clearanceMm'>,
): { readonly partSideMm: number; readonly holeSideMm: number } {
  const [ofPart, ofHole, wider] = [partKerfMm / 2, holeKerfMm / 2, clearanceMm / 2];
  return {
    both: { partSideMm: ofPart, holeSideMm: wider - ofHole },
    part: { partSideMm: ofPart + ofHole - wider, holeSideMm: 0 },
    hole: { partSideMm: 0, holeSideMm: wider - ofPart - ofHole },
    'part-alone': { partSideMm: ofPart, holeSideMm: 0 },
    nobody: { partSideMm: 0, holeSideMm: 0 },
  }[school];
}

/** A slot for a sheet that is stuck through it on edge: its thickness is not cut. */
export interface Slot {
  readonly thicknessMm: number;
  readonly thicknessSigmaMm: number | null;
  readonly clearanceMm: number;
  readonly kerfMm: number;
  readonly kerfSigmaMm: number | null;
}

/**
 * How wide a slot for a sheet is drawn: measured thickness and clearance, less the full kerf, and how sure the clearance is. Throws RangeError for a
 * kerf below nothing, or a slot that the cut alone is wider than.
 *
 * A sheet of 0.120 in and a kerf of 0.010 in: 0.110 in (common practice).
 */
export function slotForSheet({ thicknessMm, thicknessSigmaMm, clearanceMm, kerfMm, kerfSigmaMm }: Slot): {
  readonly drawnMm: number;
  readonly sigmaMm: number | null;
} {
  if (!(kerfMm >= 0)) throw new RangeError('A cut takes something away: the kerf is 0 or more.');
  const drawnMm = thicknessMm + clearanceMm - kerfMm;
  if (!(drawnMm > 0)) throw new RangeError('One cut alone is wider than this slot: it cannot be drawn.');
  const known = thicknessSigmaMm !== null && kerfSigmaMm !== null;
  return { drawnMm, sigmaMm: known ? Math.hypot(thicknessSigmaMm, kerfSigmaMm) : null };
}

/** Thicknesses that stand on labels, in mm: whole and half millimetres, and eighths and sixteenths of an inch. */
const LABELS_MM = [
  1,
  1.5,
  2,
  2.5,
  3,
  4,
  5,
  6,
  8,
  9,
  10,
  12,
  15,
  18,
  ...[1, 2, 3, 4, 6, 8].map((sixteenths) => (25.4 * sixteenths) / 16),
];

/** Whether a thickness looks like a label's and not like a caliper's: sheets sold as 1/8 in read 0.120 in (common practice). */
export const looksLikeLabel = (thicknessMm: number): boolean =>
  LABELS_MM.some((label) => Math.abs(label - thicknessMm) < 0.0005);
