/** How a camera says that it exposed a photo. */
export interface Exposure {
  /** Maker and model, as the photo has them. */
  readonly camera: string;
  readonly timeS: number;
  readonly iso: number;
  /** Null where the photo does not say: phones mostly have one. */
  readonly fNumber: number | null;
  /** By how many stops the operator asked for more light than the camera would give; null where the photo does not say. */
  readonly biasStops: number | null;
}

/** By how much more light one photo was given than another: natural logarithm, with its standard deviation. */
export interface ExposureRatio {
  readonly logRatio: number;
  readonly logRatioSigma: number;
}

/** How well shutters keep their time, and how well gains keep to their number (from memory: electronic shutters are good to a per cent). */
const TIME_SIGMA = 0.01;
const GAIN_SIGMA = 0.03;
const APERTURE_SIGMA = 0.06;

/**
 * The light of the first photo over the second's by what their camera says; null for photos of two cameras, or where only one of them says its
 * aperture.
 *
 * 1/60 s against 1/240 s, both at ISO 100 -> ln 4
 */
export function exposureRatio(first: Exposure, second: Exposure): ExposureRatio | null {
  if (first.camera !== second.camera || (first.fNumber === null) !== (second.fNumber === null)) return null;
  const aperture = first.fNumber === null ? 0 : 2 * Math.log(second.fNumber! / first.fNumber);
  const gain = Math.log(first.iso / second.iso);
  return {
    logRatio: Math.log(first.timeS / second.timeS) + gain + aperture,
    logRatioSigma: Math.hypot(TIME_SIGMA, gain === 0 ? 0 : GAIN_SIGMA, aperture === 0 ? 0 : APERTURE_SIGMA),
  };
}

/** Exposures less apart tell a camera's curve only by noise; further apart, what is seen in one is black or white in the other. */
const LEAST_APART = Math.log(1.5);
const MOST_APART = Math.log(10);
/** How many stops darker than the first the second of two photos is taken where this program asks for them. */
export const STOPS_LESS = 1.5;
/** Two stops tell most. */
const BEST_APART = Math.log(4);

/**
 * How far the ratio may be from what was asked for, in stops. A camera's own meter tells whether the light was alike: if it had changed, so would
 * the exposure, without having been asked. Two photos that differ unasked are never taken for two exposures of one light.
 */
const UNASKED_STOPS = 0.15;

function wasAsked(first: Exposure, second: Exposure, logRatio: number): boolean {
  if (first.biasStops === null || second.biasStops === null) return false;
  return Math.abs(logRatio / Math.LN2 - (first.biasStops - second.biasStops)) <= UNASKED_STOPS;
}

/** A photo that may serve as another one's second exposure. */
export interface Exposed {
  readonly exposure: Exposure | null;
  /** Whether it shows the piece before or after its finish; null when nobody said. */
  readonly finish: 'before' | 'after' | null;
}

/** Of other photos of a card the one that tells most of a photo's tones, with their ratio; null where none can. */
export function secondExposureOf<Photo extends Exposed>(
  photo: Exposed,
  others: readonly Photo[],
): { readonly photo: Photo; readonly ratio: ExposureRatio } | null {
  const { exposure, finish } = photo;
  if (!exposure) return null;
  const useful = others.flatMap((other) => {
    if (!other.exposure || other.finish !== finish) return [];
    const ratio = exposureRatio(exposure, other.exposure);
    const apart = ratio ? Math.abs(ratio.logRatio) : 0;
    return ratio && wasAsked(exposure, other.exposure, ratio.logRatio) && apart >= LEAST_APART && apart <= MOST_APART
      ? [{ photo: other, ratio, off: Math.abs(apart - BEST_APART) }]
      : [];
  });
  const [best] = useful.sort((a, b) => a.off - b.off);
  return best ? { photo: best.photo, ratio: best.ratio } : null;
}
