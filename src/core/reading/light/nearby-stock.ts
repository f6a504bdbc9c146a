import type { Point, Rect } from '../../geometry/point';
import { cholesky, solvedBy } from '../../stats/cholesky';

/** How what differs from the smooth light at one place goes with what differs at another: c exp(-d / reach), and a part that goes with nothing. */
export interface Kinship {
  readonly shared: number;
  readonly reachMm: number;
  readonly own: number;
}

/** Tiles whose pairs are looked at. */
const PAIRED = 300;
const LAG_MM = 0.5;
const LAGS = 12;
const REACHES_MM = [0.4, 0.7, 1.2, 2, 3.5, 6];

/** The covariance of residuals by their distance, fitted by weighted least squares over some reaches; residuals are held to four sigmas. */
export function kinshipOf(places: readonly Point[], residuals: ArrayLike<number>, sigma: number): Kinship {
  const held = Float64Array.from(residuals, (value) => Math.max(-4 * sigma, Math.min(4 * sigma, value)));
  const sums = new Float64Array(LAGS);
  const counts = new Float64Array(LAGS);
  let variance = 0;
  // Tiles are many: some of them are looked at against all later ones.
  const stride = Math.max(1, Math.round(places.length / PAIRED));
  const xs = Float64Array.from(places, ({ x }) => x);
  const ys = Float64Array.from(places, ({ y }) => y);
  for (let i = 0; i < places.length; i++) {
    variance += held[i]! ** 2 / places.length;
    if (i % stride !== 0) continue;
    for (let j = i + 1; j < places.length; j++) {
      const dy = ys[j]! - ys[i]!;
      // Tiles come row by row.
      if (dy > LAG_MM * LAGS) break;
      const dx = xs[j]! - xs[i]!;
      const bin = Math.floor(Math.sqrt(dx * dx + dy * dy) / LAG_MM);
      if (bin >= LAGS) continue;
      sums[bin]! += held[i]! * held[j]!;
      counts[bin]!++;
    }
  }
  let best: Kinship = { shared: 0, reachMm: 1, own: Math.max(1e-8, variance) };
  let least = Infinity;
  for (const reachMm of REACHES_MM) {
    let top = 0;
    let bottom = 0;
    for (let bin = 0; bin < LAGS; bin++) {
      const shape = Math.exp(-((bin + 0.5) * LAG_MM) / reachMm);
      top += shape * sums[bin]!;
      bottom += shape * shape * counts[bin]!;
    }
    const shared = Math.min(variance, Math.max(0, bottom > 0 ? top / bottom : 0));
    let misfit = 0;
    for (let bin = 0; bin < LAGS; bin++) {
      if (counts[bin] === 0) continue;
      const shape = Math.exp(-((bin + 0.5) * LAG_MM) / reachMm);
      misfit += counts[bin]! * (sums[bin]! / counts[bin]! - shared * shape) ** 2;
    }
    if (misfit < least) {
      least = misfit;
      best = { shared, reachMm, own: Math.max(0.05 * variance, variance - shared, 1e-8) };
    }
  }
  return best;
}

/** Many pairs of places are asked for theirs: five times as quick as the function that also holds for numbers whose squares are none. */
const distance = (dx: number, dy: number): number => Math.sqrt(dx * dx + dy * dy);

export interface Nearby {
  /** What the mean over the area is likely to differ from the smooth light by. */
  readonly shift: number;
  /** Standard deviation of that. */
  readonly sigma: number;
  /** How many tiles told it. */
  readonly tiles: number;
}

/** What differs by more than this logarithm is no stock: a mark, a finger, dirt. It tells nothing of what lies beside it, but that something is there. */
const NO_STOCK = 0.6;
/** Standard deviation that is added where everything near is no stock. */
const ASTRAY = 0.3;

/** Tiles that are asked about an area, and how far from it they may lie. */
const SECTORS = 8;
const A_SECTOR = 9;
const NEAR_MM = 2;

/**
 * What bare stock around an area tells of the stock under it: simple kriging of the residuals, for the mean over the area. Where residuals near
 * by are larger than over the card, so is the sigma. Source: G. Matheron, Economic Geology 58 (1963) 1246.
 */
export function nearbyStock(
  places: readonly Point[],
  residuals: ArrayLike<number>,
  kinship: Kinship,
  area: Rect,
): Nearby {
  const away = (p: Point): number =>
    distance(
      Math.max(area.x - p.x, 0, p.x - area.x - area.width),
      Math.max(area.y - p.y, 0, p.y - area.y - area.height),
    );
  // The nearest of each eighth of the circle: else all of them might lie to one side.
  const near: { index: number; d: number }[][] = Array.from({ length: SECTORS }, () => []);
  const [cx, cy] = [area.x + area.width / 2, area.y + area.height / 2];
  for (let index = 0; index < places.length; index++) {
    const place = places[index]!;
    if (Math.abs(place.y - area.y - area.height / 2) > NEAR_MM + area.height / 2) continue;
    const d = away(place);
    if (d > NEAR_MM) continue;
    const turn = Math.atan2(place.y - cy, place.x - cx) / (2 * Math.PI) + 0.5;
    near[Math.min(SECTORS - 1, Math.floor(turn * SECTORS))]!.push({ index, d });
  }
  const { shared, reachMm, own } = kinship;
  if (near.every((sector) => sector.length === 0)) return { shift: 0, sigma: Math.sqrt(shared), tiles: 0 };
  const close = near.flatMap((sector) =>
    sector
      .sort((a, b) => a.d - b.d || a.index - b.index)
      .slice(0, A_SECTOR)
      .map(({ index }) => index),
  );
  const asked = close.filter((index) => Math.abs(residuals[index]!) < NO_STOCK);
  const astray = (ASTRAY * (close.length - asked.length)) / close.length;
  if (asked.length === 0) return { shift: 0, sigma: Math.hypot(Math.sqrt(shared), astray), tiles: 0 };
  const n = asked.length;
  const spots = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => ({
    x: area.x + (((k % 3) + 0.5) / 3) * area.width,
    y: area.y + ((Math.floor(k / 3) + 0.5) / 3) * area.height,
  }));
  const alike = (a: Point, b: Point): number => shared * Math.exp(-distance(a.x - b.x, a.y - b.y) / reachMm);
  let within = 0;
  for (const a of spots) for (const b of spots) within += alike(a, b) / spots.length ** 2;
  let square = 0;
  for (const index of asked) square += residuals[index]! ** 2 / n;
  // Residuals here against residuals anywhere: knots, edges of shadows and smoke lie in places.
  const wild = Math.max(0.3, square / (shared + own));
  if (shared === 0) return { shift: 0, sigma: Math.hypot(Math.sqrt((wild * own) / n), astray), tiles: n };
  const among = new Float64Array(n * n);
  const withArea = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const a = places[asked[i]!]!;
    for (let j = 0; j < i; j++) among[i * n + j] = alike(a, places[asked[j]!]!);
    among[i * n + i] = shared + own;
    for (const spot of spots) withArea[i]! += alike(a, spot) / spots.length;
  }
  const lower = cholesky(among, n);
  if (!lower) throw new RangeError(`invalid kinship: ${shared} shared, ${own} own`);
  const weights = solvedBy(lower, withArea);
  let shift = 0;
  let told = 0;
  for (let i = 0; i < n; i++) {
    shift += weights[i]! * residuals[asked[i]!]!;
    told += weights[i]! * withArea[i]!;
  }
  return { shift, sigma: Math.hypot(Math.sqrt(wild * Math.max(0, within - told)), astray), tiles: n };
}
