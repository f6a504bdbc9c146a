/** Usual distance to look at a small thing from, in mm. */
export const VIEWING_MM = 300;

/** An eye tells places apart that are a minute of arc from each other. */
const MINUTE_OF_ARC = Math.PI / 180 / 60;

/**
 * Side of a square over which the mean is as blurred as by an eye at a distance: an even spread over it has the variance of a Gaussian of a minute of
 * arc.
 *
 * blurredSideMm(300) ≈ 0.302
 */
export const blurredSideMm = (distanceMm: number): number => Math.sqrt(12) * MINUTE_OF_ARC * distanceMm;

/** The distance from which an eye blurs as a mean over squares of a side does. */
export const distanceOfSide = (sideMm: number): number => sideMm / (Math.sqrt(12) * MINUTE_OF_ARC);
