import { sampleCovariance, sampleVariance } from 'simple-statistics';
import type { addedAtMarkers } from './added-by-markers';
import type { AddedLight } from './added-light';

/** Of what bare stock's colour says was added, the markers show less than this part where nothing was. */
const LEAST_SHOWN = 0.5;
/** Colour of lamps changes from corner to corner by most of what it changes by over the card; a reflection lies in a spot. */
const PART_AT_MARKERS = 0.5;
/** Standard uncertainties that it must be less by. */
const SURELY = 2;

/**
 * Whether bare stock changes its colour over a card because lamps of two colours light it, and not because light was added: a window on one
 * side and a lamp on the other. Both look alike on bare stock, but only added light brightens what is dark as well, and the markers are dark, or
 * light on dark stock. What they say was added is fitted to what colour says was added there; a slope of one is added light, of none lamps. False
 * where the markers are too few, or colour says nearly the same at all of them: a reflection between them.
 */
export function isLightOfLamps(byColour: AddedLight, atMarkers: ReturnType<typeof addedAtMarkers>): boolean {
  if (!atMarkers) return false;
  const { clear, added, sigma } = atMarkers;
  const told = clear.map(({ x, y }) => byColour.at(x, y));
  if (Math.max(...told) - Math.min(...told) < PART_AT_MARKERS * byColour.range) return false;
  const variance = sampleVariance(told);
  const slope = sampleCovariance(told, [...added]) / variance;
  const slopeSigma = sigma / Math.sqrt(variance * (told.length - 1));
  return slope + SURELY * slopeSigma < LEAST_SHOWN;
}
