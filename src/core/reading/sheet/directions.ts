import { gaussian } from '../../image/gaussian';
import type { GrayImage } from '../../image/raster';

/** Directions closer than this are one. */
const APART_DEGREES = 8;
/** A direction with less than this part of the strongest one's edges is not tried. */
const LEAST_PART = 0.3;
const MOST = 3;
/** Edges are drawn in steps of pixels, and look turned towards their rows: softened by this much they run as they do, to a degree and a half. */
const SOFT_PX = 2;

/**
 * Directions that straight edges in a picture run in, modulo a quarter turn, strongest first, in degrees from -45 to 45: a turn that has
 * edges along both of its axes counts twice. From the slopes of brightness, each by the square of its steepness.
 */
export function directionsIn({ data, width, height }: GrayImage): number[] {
  const { values } = gaussian({ values: Float64Array.from(data), width, height }, SOFT_PX, 'edge');
  const counts = new Float64Array(90);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const dx = values[at + 1]! - values[at - 1]!;
      const dy = values[at + width]! - values[at - width]!;
      const quarter = ((((Math.atan2(dy, dx) * 180) / Math.PI) % 90) + 90) % 90;
      counts[Math.min(89, Math.floor(quarter))]! += dx * dx + dy * dy;
    }
  // Over three degrees and around the end: an edge is no sharper than that.
  const smooth = counts.map((_, k) => counts[(k + 89) % 90]! + 2 * counts[k]! + counts[(k + 1) % 90]!);
  const order = [...smooth.keys()].sort((a, b) => smooth[b]! - smooth[a]!);
  const found: number[] = [];
  const away = (a: number, b: number): number => Math.min(Math.abs(a - b), 90 - Math.abs(a - b));
  for (const k of order) {
    if (found.length === MOST || !(smooth[k]! > LEAST_PART * smooth[order[0]!]!)) break;
    if (found.every((other) => away(k, other) >= APART_DEGREES)) found.push(k);
  }
  return found.map((k) => (k + 0.5 > 45 ? k + 0.5 - 90 : k + 0.5));
}
