import { luminance } from '../../color/srgb';
import { median } from '../../stats/robust';
import type { AddedLight } from './added-light';
import type { Tile } from './bare-tiles';
import type { MarkerDarkness } from './marker-darkness';
import { designOf, weightedFit, type Term } from './surface';

/**
 * How much markers of one burn differ in luminance, as a standard deviation of a share: focus, the bed's height and the stock's grain. Common
 * practice without a source; the simulated bench's differ by 2 to 5 in a hundred.
 */
const BURN_SPREAD = 0.04;
/** The range of so many normal deviates, in their standard deviations. Source: L. H. C. Tippett, Biometrika 17 (1925) 364. */
const EXPECTED_RANGE: Readonly<Record<number, number>> = { 3: 1.693, 4: 2.059 };
/**
 * What lies under all markers alike is not seen. Where they differ at all, as much may lie under all as they differ by, and half a hundredth of
 * white more, the glare of walls and lens: from memory, without a source.
 */
const EVEN = 0.005;
/** Light that adds more than this somewhere lies in a spot, not over the card as a plane: it is doubted, not taken out. */
const MOST_PLANE = 0.02;
/** The tail of a spot lies over one corner, and no plane does: by so much of its range the four may be twisted out of one. */
const MOST_TWIST = 0.3;
/** Markers that differ by so many times what colour would have found do so by their burn: no light did it. */
const MOST_OVER_COLOUR = 3;
/** A marker nearer to bare stock than this share tells nothing. */
const LEAST_CONTRAST = 0.1;

/** What corner markers say was added at each of them, beside the one with least. */
interface AddedAtMarkers {
  readonly clear: readonly MarkerDarkness[];
  /** As shares of what white stock would send, in their order. */
  readonly added: readonly number[];
  /** How much each is off by what burns differ by themselves. */
  readonly sigma: number;
}

/** Light that was added at markers of one burn; null where fewer than three of them stand out from bare stock, or not all to one side of it. */
export function addedAtMarkers(
  markers: readonly MarkerDarkness[],
  stockLinear: readonly [number, number, number],
): AddedAtMarkers | null {
  const stockLuminance = luminance(...stockLinear);
  const clear = markers.filter(({ ratio }) => Math.abs(1 - ratio) > LEAST_CONTRAST);
  const lighter = clear.filter(({ ratio }) => ratio > 1).length;
  if (EXPECTED_RANGE[clear.length] === undefined || (lighter > 0 && lighter < clear.length)) return null;
  // Where least light was added, a marker is furthest from bare stock: m there is its own reflectance. Elsewhere (m + a) / (s + a) = ratio.
  const ratios = clear.map(({ ratio }) => ratio);
  const own = stockLuminance * (lighter > 0 ? Math.max(...ratios) : Math.min(...ratios));
  return {
    clear,
    added: clear.map(({ ratio }) => (ratio * stockLuminance - own) / (1 - ratio)),
    sigma: Math.max(
      ...clear.map(({ ratio, stockSpread }) => (own * Math.hypot(BURN_SPREAD, stockSpread)) / Math.abs(1 - ratio)),
    ),
  };
}

/**
 * Added light over a card, by its corner markers: one burn, so of one darkness beside bare stock in any light, unless light was added, which
 * brings both nearer to each other. It tells on stock of any colour, grey too, but only the difference from corner to corner, and that by the
 * plane nearest to it. What the burns' own differences explain is not told: the more of the markers' range that is, the less is taken for
 * added light. Null where fewer than three markers stand out from bare stock, and where they differ by much more than the colour of bare stock would
 * have told: `unseenRange` is what it would not, Infinity for stock whose colour tells nothing.
 */
export function addedByMarkers(
  markers: readonly MarkerDarkness[],
  tiles: readonly Tile[],
  stockLinear: readonly [number, number, number],
  unseenRange = Infinity,
): AddedLight | null {
  const told = addedAtMarkers(markers, stockLinear);
  if (!told) return null;
  const { clear, added, sigma } = told;
  const seen = Math.max(...added);
  const real = Math.sqrt(Math.max(0, seen ** 2 - (EXPECTED_RANGE[clear.length]! * sigma) ** 2));
  if (real > MOST_OVER_COLOUR * unseenRange) return null;
  const share = seen > 0 ? (real / seen) ** 2 : 0;
  // Corners come one after another around the card.
  const twist = Math.abs(added.reduce((sum, value, k) => sum + (k % 2 === 0 ? value : -value), 0)) / 2;
  const taken = clear.length === 4 && seen < MOST_PLANE && twist < MOST_TWIST * seen ? share : 0;
  const terms: readonly Term[] = [() => 1, (x) => x, (_, y) => y];
  const plane = weightedFit(designOf(clear, terms), added, new Float64Array(clear.length).fill(1));
  const at = (x: number, y: number): number => taken * Math.max(0, plane[0]! + plane[1]! * x + plane[2]! * y);
  const middle = (of: (tile: Tile) => number): number => median(Float64Array.from(tiles, of));
  return {
    at,
    sigmaAt: () => Math.hypot(real, share * EVEN),
    range: taken * seen,
    white: [
      middle(({ red }) => red) / stockLinear[0],
      middle(({ green }) => green) / stockLinear[1],
      middle(({ blue }) => blue) / stockLinear[2],
    ],
  };
}
