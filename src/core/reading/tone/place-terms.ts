import type { Point } from '../../geometry/point';
import { meanAndSpread } from '../../stats/robust';

/** How light differs by place, up to the second order: five terms, each nought on the average. What is alike all over is the exposure. */
export function placeTerms(places: readonly Point[]): number[][] {
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  const reach = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 1e-9) / 2;
  const [cx, cy] = [meanAndSpread(xs).mean, meanAndSpread(ys).mean];
  const terms = places.map(({ x, y }) => {
    const [u, v] = [(x - cx) / reach, (y - cy) / reach];
    return [u, v, u * u, u * v, v * v];
  });
  const means = Array.from({ length: terms[0]!.length }, (_, k) => meanAndSpread(terms.map((row) => row[k]!)).mean);
  return terms.map((row) => row.map((value, k) => value - means[k]!));
}
