import type { Point } from '../../geometry/point';
import { meanAndSpread } from '../../stats/robust';

/** The terms of light at a place: up to the second order, five of them. */
export type PlaceTerms = (place: Point) => number[];

/**
 * How light differs by place, up to the second order, each term nought on the average over some places: what is alike all over is the
 * exposure.
 */
export function placeBasis(places: readonly Point[]): PlaceTerms {
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  const reach = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 1e-9) / 2;
  const [cx, cy] = [meanAndSpread(xs).mean, meanAndSpread(ys).mean];
  const plain = ({ x, y }: Point): number[] => {
    const [u, v] = [(x - cx) / reach, (y - cy) / reach];
    return [u, v, u * u, u * v, v * v];
  };
  const all = places.map(plain);
  const means = Array.from({ length: all[0]!.length }, (_, k) => meanAndSpread(all.map((row) => row[k]!)).mean);
  return (place) => plain(place).map((value, k) => value - means[k]!);
}

/** The terms at each of some places. */
export const placeTerms = (places: readonly Point[]): number[][] => places.map(placeBasis(places));
