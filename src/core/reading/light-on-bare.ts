import { Matrix, solve } from 'ml-matrix';
import { LUMINANCE_BLUE, LUMINANCE_GREEN, LUMINANCE_RED } from '../color/srgb';
import type { Rect } from '../geometry/point';
import type { Cell, Layout } from '../card/layout';
import { robustSigma } from '../stats/robust';
import { bareTiles, type Tile } from './bare-tiles';
import { kinshipOf, nearbyStock, type Nearby } from './nearby-stock';
import type { Rectified } from './rectify';

/** Terms of the smooth surface: all products x^i y^j up to this order. */
const ORDER = 3;
const TUKEY = 4.685;
const LEAST_TILES = 60;
/** An explanation is taken only where it leaves at most so much of what was left without it, */
const WORTH = 0.75;
/** and explains so many of the tiles better by this much of the logarithm. */
const MANY = 0.08;
const CLEARLY = 0.004;

/** The light on bare stock over the card, as the camera saw it. */
export interface LightOnBare {
  /** Bare stock's linear red, green and blue at a place in card mm, with shadow and smoke where they were found. */
  at(xMm: number, yMm: number): readonly [red: number, green: number, blue: number];
  /** The same without smoke on it. */
  clean(xMm: number, yMm: number): readonly [red: number, green: number, blue: number];
  /** Natural logarithm by which stock under an area is likely to differ from the surface, as bare stock around it tells, with its sigma. */
  under(area: Rect): Nearby;
  /** Robust standard deviation of one tile about the surface, in logarithm of luminance. */
  readonly tileSigma: number;
  readonly tiles: number;
  /** Share of bare stock at the bright end of the camera's range. */
  readonly clippedShare: number;
  /** What the light was found to hold besides its smooth fall. */
  readonly holds: readonly ('smoke' | 'shadow')[];
}

/** A term of the light's logarithm. */
type Term = (x: number, y: number) => number;

/** A whole power: quicker than the general one, and this is most of the work. */
function whole(value: number, power: number): number {
  let out = 1;
  for (let k = 0; k < power; k++) out *= value;
  return out;
}

function smoothTerms(layout: Layout): Term[] {
  const scale = 2 / Math.max(layout.widthMm, layout.heightMm);
  const [cx, cy] = [layout.widthMm / 2, layout.heightMm / 2];
  const terms: Term[] = [];
  for (let total = 0; total <= ORDER; total++)
    for (let power = 0; power <= total; power++)
      terms.push((x, y) => whole((x - cx) * scale, total - power) * whole((y - cy) * scale, power));
  return terms;
}

/** The terms at a place. */
function rowAt(terms: readonly Term[], x: number, y: number): Float64Array {
  const row = new Float64Array(terms.length);
  for (let k = 0; k < row.length; k++) row[k] = terms[k]!(x, y);
  return row;
}

const rowsOf = (tiles: readonly Tile[], terms: readonly Term[]): Float64Array[] =>
  tiles.map(({ x, y }) => rowAt(terms, x, y));

function weightedFit(rows: readonly Float64Array[], values: ArrayLike<number>, weights: Float64Array): Float64Array {
  const n = rows[0]!.length;
  const normal = new Float64Array(n * n);
  const right = new Float64Array(n);
  for (let k = 0; k < rows.length; k++) {
    const weight = weights[k]!;
    if (weight === 0) continue;
    const row = rows[k]!;
    for (let i = 0; i < n; i++) {
      const wi = weight * row[i]!;
      right[i]! += wi * values[k]!;
      for (let j = 0; j <= i; j++) normal[i * n + j]! += wi * row[j]!;
    }
  }
  const matrix = Matrix.zeros(n, n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) matrix.set(i, j, normal[Math.max(i, j) * n + Math.min(i, j)]! + (i === j ? 1e-9 : 0));
  return Float64Array.from(solve(matrix, Matrix.columnVector([...right])).to1DArray());
}

function dot(coefficients: Float64Array, row: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < row.length; i++) sum += coefficients[i]! * row[i]!;
  return sum;
}

interface Fit {
  readonly terms: readonly Term[];
  readonly rows: readonly Float64Array[];
  readonly weights: Float64Array;
  readonly residuals: Float64Array;
  readonly sigma: number;
}

/**
 * Iteratively reweighted least squares of the logarithm of luminance on some terms, with Tukey's biweight, so that knots and smudges weigh
 * little. Source of the weights: A. E. Beaton, J. W. Tukey, Technometrics 16 (1974) 147.
 */
function robustFit(tiles: readonly Tile[], terms: readonly Term[], turns: number, from?: Float64Array): Fit {
  const rows = rowsOf(tiles, terms);
  const values = Float64Array.from(tiles, (tile) => tile.logLuminance);
  const weights = from ? Float64Array.from(from) : new Float64Array(tiles.length).fill(1);
  const residuals = new Float64Array(tiles.length);
  let sigma = 0;
  for (let turn = 0; turn < turns; turn++) {
    const coefficients = weightedFit(rows, values, weights);
    for (let k = 0; k < tiles.length; k++) residuals[k] = values[k]! - dot(coefficients, rows[k]!);
    sigma = Math.max(1e-6, robustSigma(residuals));
    for (let k = 0; k < tiles.length; k++) {
      const u = residuals[k]! / (TUKEY * sigma);
      weights[k] = Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
    }
  }
  return { terms, rows, weights, residuals, sigma };
}

/** Mean square of residuals that are held to so much: what one fit leaves against what another does. */
function leftBy({ residuals }: Fit, most: number): number {
  let sum = 0;
  for (const residual of residuals) sum += Math.min(residual * residual, most * most);
  return sum / residuals.length;
}

/** Share of tiles that one fit explains clearly better than another. */
function betterFor(better: Fit, other: Fit): number {
  let count = 0;
  for (let k = 0; k < other.residuals.length; k++)
    if (Math.abs(other.residuals[k]!) - Math.abs(better.residuals[k]!) > CLEARLY) count++;
  return count / other.residuals.length;
}

/**
 * Whether an explanation is worth its terms: it leaves at most three quarters of what was left without it, and explains many tiles, not only
 * the knot that lies in one place.
 */
function isWorth(better: Fit, other: Fit): boolean {
  const most = Math.max(0.01, 4 * other.sigma);
  return leftBy(better, most) < WORTH * leftBy(other, most) && betterFor(better, other) > MANY;
}

const REACHES_MM = [0.5, 0.8, 1.2, 1.8, 2.6, 4];

/** Smoke lies on stock round cells, the more the stronger they are burned, and less with distance. */
function smokeTerm(weights: readonly { readonly box: Rect; readonly weight: number }[], reachMm: number): Term {
  return (x, y) => {
    let total = 0;
    for (const { box, weight } of weights) {
      const dx = Math.max(box.x - x, x - box.x - box.width, 0);
      const dy = Math.max(box.y - y, y - box.y - box.height, 0);
      if (dx > 6 * reachMm || dy > 6 * reachMm) continue;
      total += weight * Math.exp(-Math.sqrt(dx * dx + dy * dy) / reachMm);
    }
    return total;
  };
}

/** How far each cell is from bare stock, 0 for none, by a first surface. */
function strengthsOf(image: Rectified, layout: Layout, bareAt: (x: number, y: number) => number) {
  const { data, width, height, pxPerMm } = image;
  const shown = layout.cells.filter((cell: Cell) => !cell.leftOut);
  return shown.map(({ box }) => {
    let sum = 0;
    let count = 0;
    const [left, right] = [box.x + 0.25 * box.width, box.x + 0.75 * box.width].map((mm) => Math.round(mm * pxPerMm)) as [number, number]; // prettier-ignore
    const [top, bottom] = [box.y + 0.25 * box.height, box.y + 0.75 * box.height].map((mm) => Math.round(mm * pxPerMm)) as [number, number]; // prettier-ignore
    for (let y = Math.max(0, top); y < Math.min(height, bottom); y += 2)
      for (let x = Math.max(0, left); x < Math.min(width, right); x += 2, count++) {
        const at = (y * width + x) * 3;
        sum += LUMINANCE_RED * data[at]! + LUMINANCE_GREEN * data[at + 1]! + LUMINANCE_BLUE * data[at + 2]!;
      }
    const ratio = count === 0 ? 1 : sum / count / bareAt(box.x + box.width / 2, box.y + box.height / 2);
    return { box, strength: Math.min(1.5, Math.abs(1 - Math.cbrt(Math.max(0, ratio)))) };
  });
}

/** The edge of a shadow: light falls across a line by one amount, more or less softly. */
const edgeTerm =
  (angle: number, offset: number, soft: number, cx: number, cy: number): Term =>
  (x, y) =>
    1 / (1 + Math.exp((-1.7 * ((x - cx) * Math.cos(angle) + (y - cy) * Math.sin(angle) - offset)) / soft));

/** An orthonormal basis of what rows span over some tiles, column by column (Gram and Schmidt, twice for the last digits). */
function basisOf(rows: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (let term = 0; term < rows[0]!.length; term++) {
    const column = Float64Array.from(rows, (row) => row[term]!);
    for (let turn = 0; turn < 2; turn++)
      for (const known of basis) {
        const share = dot(known, column);
        for (let k = 0; k < column.length; k++) column[k]! -= share * known[k]!;
      }
    const length = Math.sqrt(dot(column, column));
    if (length > 1e-9) basis.push(column.map((value) => value / length));
  }
  return basis;
}

/** Tiles that explanations are looked for on: enough for a shape, few enough for many shapes. */
const LOOKED_AT = 500;

/**
 * How much of what a fit leaves a further term would explain beside its own, on a part of the tiles: a sum of squares. It is told by the part of
 * the term that is square to the fit's own. Source: R. Frisch, F. V. Waugh, Econometrica 1 (1933) 387.
 */
function explaining(tiles: readonly Tile[], base: Fit): (term: Term) => number {
  const stride = Math.max(1, Math.floor(tiles.length / LOOKED_AT));
  const some = tiles.filter((_, index) => index % stride === 0);
  const basis = basisOf(base.rows.filter((_, index) => index % stride === 0));
  const values = Float64Array.from(some, (tile) => tile.logLuminance);
  for (const known of basis) {
    const share = dot(known, values);
    for (let k = 0; k < values.length; k++) values[k]! -= share * known[k]!;
  }
  const column = new Float64Array(some.length);
  return (term) => {
    for (let k = 0; k < some.length; k++) column[k] = term(some[k]!.x, some[k]!.y);
    let square = dot(column, column);
    for (const known of basis) square -= dot(known, column) ** 2;
    return square < 1e-6 * some.length ? 0 : dot(column, values) ** 2 / square;
  };
}

/** The straight edge across the card that explains most of what the surface leaves; null where none does. */
function shadowTerm(tiles: readonly Tile[], base: Fit, layout: Layout): Term | null {
  const [cx, cy] = [layout.widthMm / 2, layout.heightMm / 2];
  const reach = Math.hypot(layout.widthMm, layout.heightMm) / 2;
  const explained = explaining(tiles, base);
  let best = { explains: 0, angle: 0, offset: 0, soft: 1 };
  const tryEdge = (angle: number, offset: number, soft: number): void => {
    const explains = explained(edgeTerm(angle, offset, soft, cx, cy));
    if (explains > best.explains) best = { explains, angle, offset, soft };
  };
  for (let turn = 0; turn < 18; turn++)
    for (let offset = -0.8 * reach; offset <= 0.8 * reach; offset += 1.5) tryEdge((turn * Math.PI) / 18, offset, 0.8);
  for (const [angleStep, offsetStep] of [[Math.PI / 36, 1], [Math.PI / 90, 0.4], [Math.PI / 240, 0.15]] as const) {
    const { angle, offset, soft } = best;
    for (const a of [-1, 0, 1])
      for (const o of [-1, 0, 1])
        for (const s of [0.6, 1, 1.6]) tryEdge(angle + a * angleStep, offset + o * offsetStep, Math.max(0.15, soft * s));
  } // prettier-ignore
  return best.explains === 0 ? null : edgeTerm(best.angle, best.offset, best.soft, cx, cy);
}

/** How far apart light is worked out; between, it is straight. */
const LATTICE_MM = 0.3;

type Light = (x: number, y: number) => readonly [red: number, green: number, blue: number];

/** The same light, worked out on a lattice over the card and its edge, and looked up between: it is asked for at each pixel. */
function lookedUp(layout: Layout, light: Light): Light {
  const columns = Math.ceil(layout.widthMm / LATTICE_MM) + 2;
  const rows = Math.ceil(layout.heightMm / LATTICE_MM) + 2;
  const lattice = new Float64Array(columns * rows * 3);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      lattice.set(light(column * LATTICE_MM, row * LATTICE_MM), (row * columns + column) * 3);
  return (x, y) => {
    const u = Math.max(0, Math.min(columns - 1.001, x / LATTICE_MM));
    const v = Math.max(0, Math.min(rows - 1.001, y / LATTICE_MM));
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [u - column, v - row];
    const top = (row * columns + column) * 3;
    const low = top + columns * 3;
    const [a, b, c, d] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
    const channel = (k: number): number =>
      a * lattice[top + k]! + b * lattice[top + 3 + k]! + c * lattice[low + k]! + d * lattice[low + 3 + k]!;
    return [channel(0), channel(1), channel(2)];
  };
}

/** The luminance of bare stock by a fit. */
function luminanceBy(tiles: readonly Tile[], { rows, weights, terms }: Fit): (x: number, y: number) => number {
  const coefficients = weightedFit(rows, Float64Array.from(tiles, (tile) => tile.logLuminance), weights); // prettier-ignore
  return (x, y) =>
    Math.exp(
      dot(
        coefficients,
        Float64Array.from(terms, (term) => term(x, y)),
      ),
    );
}

/** The fit with smoke of the reach, and the law by strength, that explain most; null where smoke is not worth it, or would be light. */
function smokedFit(
  tiles: readonly Tile[],
  plain: Fit,
  strengths: readonly { readonly box: Rect; readonly strength: number }[],
): Fit | null {
  const explained = explaining(tiles, plain);
  let best: { term: Term; explains: number } | null = null;
  for (const power of [1, 2]) {
    const weights = strengths.map(({ box, strength }) => ({ box, weight: strength ** power }));
    for (const reachMm of REACHES_MM) {
      const term = smokeTerm(weights, reachMm);
      const explains = explained(term);
      if (!best || explains > best.explains) best = { term, explains };
    }
  }
  if (!best) return null;
  const smoked = robustFit(tiles, [...plain.terms, best.term], 5, plain.weights);
  if (!isWorth(smoked, plain)) return null;
  const values = Float64Array.from(tiles, (tile) => tile.logLuminance);
  const takes = weightedFit(smoked.rows, values, smoked.weights).at(-1)!;
  return takes < 0 ? smoked : null;
}

/**
 * The light on bare stock over a rectified card, so that it can be divided out: a third-order surface through the logarithm of linear light of
 * the bare tiles between the marks, with the edge of one shadow and smoke round strong cells where they explain a quarter of what is left; and
 * what bare stock near a cell tells beyond that. Null when fewer than 60 bare tiles can be seen.
 * `further` mm are kept off cells besides the usual, where it is not sure to a tenth of a millimetre where they lie.
 */
export function fitLight(image: Rectified, layout: Layout, further = 0): LightOnBare | null {
  const { tiles, clippedShare } = bareTiles(image, layout, further);
  if (tiles.length < LEAST_TILES) return null;
  const smooth = smoothTerms(layout);
  let fit = robustFit(tiles, smooth, 8);
  const holds: ('smoke' | 'shadow')[] = [];
  // Where nearly all of it is explained there is nothing to look for.
  const open = (): boolean =>
    fit.residuals.filter((residual) => Math.abs(residual) > CLEARLY).length > MANY * tiles.length;
  const edge = open() ? shadowTerm(tiles, fit, layout) : null;
  if (edge) {
    const shaded = robustFit(tiles, [...smooth, edge], 8);
    if (isWorth(shaded, fit)) {
      fit = shaded;
      holds.push('shadow');
    }
  }
  const lampTerms = fit.terms.length;
  const smoked = open() ? smokedFit(tiles, fit, strengthsOf(image, layout, luminanceBy(tiles, fit))) : null;
  if (smoked) {
    fit = smoked;
    holds.push('smoke');
  }

  const channel = (of: (tile: Tile) => number): Float64Array =>
    weightedFit(
      fit.rows,
      Float64Array.from(tiles, (tile) => Math.log(of(tile))),
      fit.weights,
    );
  const red = channel((tile) => tile.red);
  const green = channel((tile) => tile.green);
  const blue = channel((tile) => tile.blue);

  const kinship = kinshipOf(tiles, fit.residuals, fit.sigma);
  const { terms, residuals, sigma } = fit;

  return {
    tileSigma: sigma,
    tiles: tiles.length,
    clippedShare,
    holds,
    at: lookedUp(layout, (x, y) => {
      const row = rowAt(terms, x, y);
      return [Math.exp(dot(red, row)), Math.exp(dot(green, row)), Math.exp(dot(blue, row))];
    }),
    clean: (x, y) => {
      const row = Float64Array.from(terms, (term, index) => (index < lampTerms ? term(x, y) : 0));
      return [Math.exp(dot(red, row)), Math.exp(dot(green, row)), Math.exp(dot(blue, row))];
    },
    under: (area) => nearbyStock(tiles, residuals, kinship, area),
  };
}
