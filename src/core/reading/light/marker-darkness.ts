import { sampleCorrelation } from 'simple-statistics';
import type { Layout, MarkerPlace } from '../../card/layout';
import { MARKER_MODULES, markerModules } from '../../card/markers';
import { luminance } from '../../color/srgb';
import { grown, within } from '../../geometry/point';
import { gaussian, type Plane } from '../../image/gaussian';
import { meanAndSpread, median, quantile, robustSigma } from '../../stats/robust';
import type { Tile } from './bare-tiles';
import type { Rectified } from '../rectify';

/** How dark a card's corner marker is where it was burned, as the photo shows it. */
export interface MarkerDarkness {
  /** Its middle, in card mm. */
  readonly x: number;
  readonly y: number;
  /** Luminance of its burned modules as a share of that of bare stock beside it. */
  readonly ratio: number;
  /** Standard deviation of bare stock beside it from tile to tile, as a share. */
  readonly stockSpread: number;
}

/** Bare stock around a marker, so that its border is softened too. */
const RIM_MM = 0.4;
/** How soft a photo's edges are taken to be, as the standard deviation of a normal law. */
const SOFT_MM = 0.12;

/** Where a marker's modules are burned, on the pixels of a part of the straightened card whose upper left pixel is given. */
function burnedPlane(marker: MarkerPlace, left: number, top: number, side: number, pxPerMm: number): Plane {
  const modules = markerModules(marker.id);
  const moduleMm = marker.sizeMm / MARKER_MODULES;
  const isBurned = (x: number, y: number): boolean => {
    const [column, row] = [Math.floor((x - marker.x) / moduleMm), Math.floor((y - marker.y) / moduleMm)];
    return (
      column >= 0 &&
      row >= 0 &&
      column < MARKER_MODULES &&
      row < MARKER_MODULES &&
      modules[row * MARKER_MODULES + column]!
    );
  };
  const values = Float64Array.from({ length: side * side }, (_, at) => {
    const [x, y] = [(left + (at % side) + 0.5) / pxPerMm, (top + Math.floor(at / side) + 0.5) / pxPerMm];
    return isBurned(x, y) ? 1 : 0;
  });
  return { values, width: side, height: side };
}

/** Pixels deep inside burned modules tell how dark they are: the twentieth that softened edges change least. */
const DEEP = 0.05;
/** How far around a marker bare stock is what its burned modules are compared with. */
const BESIDE_MM = 2;
/** Share of a marker's pixels that must not be clipped or out of the picture. */
const LEAST_SEEN = 0.7;
const LEAST_TILES = 8;

/** A marker that is covered, smudged or lies elsewhere does not look like its pattern by so much of a correlation. */
const LIKE_ITSELF = 0.8;

function darknessOf(image: Rectified, tiles: readonly Tile[], marker: MarkerPlace): MarkerDarkness | null {
  const { pxPerMm, width, height, data, clipped } = image;
  const left = Math.floor((marker.x - RIM_MM) * pxPerMm);
  const top = Math.floor((marker.y - RIM_MM) * pxPerMm);
  const side = Math.ceil((marker.sizeMm + 2 * RIM_MM) * pxPerMm);
  const { values } = gaussian(burnedPlane(marker, left, top, side, pxPerMm), SOFT_MM * pxPerMm, 'edge');
  const shares: number[] = [];
  const shown: number[] = [];
  values.forEach((share, at) => {
    const [x, y] = [left + (at % side), top + Math.floor(at / side)];
    const pixel = y * width + x;
    if (x < 0 || y < 0 || x >= width || y >= height || clipped[pixel] === 1) return;
    shares.push(share);
    shown.push(luminance(data[3 * pixel]!, data[3 * pixel + 1]!, data[3 * pixel + 2]!));
  });
  const area = { x: marker.x, y: marker.y, width: marker.sizeMm, height: marker.sizeMm };
  const beside = tiles.filter((tile) => within(grown(area, BESIDE_MM), tile));
  if (shares.length < LEAST_SEEN * values.length || beside.length < LEAST_TILES) return null;
  if (!(Math.abs(sampleCorrelation(shares, shown)) > LIKE_ITSELF)) return null;
  const deep = quantile(shares, 1 - DEEP);
  const logs = Float64Array.from(beside, ({ logLuminance }) => logLuminance);
  return {
    x: marker.x + marker.sizeMm / 2,
    y: marker.y + marker.sizeMm / 2,
    ratio: meanAndSpread(shown.filter((_, at) => shares[at]! >= deep)).mean / Math.exp(median(logs)),
    stockSpread: robustSigma(logs),
  };
}

/** How dark each corner marker of a straightened card is beside bare stock; those that are not seen well enough are left out. */
export function markerDarkness(image: Rectified, tiles: readonly Tile[], layout: Layout): MarkerDarkness[] {
  return layout.frame.markers.flatMap((marker) => darknessOf(image, tiles, marker) ?? []);
}
