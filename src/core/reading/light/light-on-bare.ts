import type { Layout } from '../../card/layout';
import type { Point, Rect } from '../../geometry/point';
import type { Rectified } from '../rectify';
import { bareTiles, type Further, type Tile } from './bare-tiles';
import { ratiosOf, strengthOf } from './cell-ratios';
import { CLEARLY, isWorth, MANY } from './explaining';
import { lookedUp } from './looked-up';
import { kinshipOf, nearbyStock, type Nearby } from './nearby-stock';
import { shadowEdge, type Edge } from './shadow';
import { smokedSurface } from './smoke';
import { robustSurface, sumAt, weightedFit, type Surface, type Term } from './surface';

/** Terms of the smooth surface: all products x^i y^j up to this order; where light was evened by what a sheet tells, none but the constant. */
const ORDER = 3;
const EVENED_ORDER = 0;
const LEAST_TILES = 60;

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
  /** Bare tiles that the bright end takes some of, by their centres. */
  readonly clippedAt: readonly Point[];
  /** The edge of a shadow across the card, and what light it leaves of the lamp's; null where none was found. */
  readonly shadow: (Pick<Edge, 'through' | 'along'> & { readonly leaves: number }) | null;
  /** Smoke on bare stock round strong cells, and what it takes of the light at most; null where none was found. */
  readonly smoke: { readonly takes: number } | null;
}

/** A whole power: quicker than the general one, and this is most of the work. */
function whole(value: number, power: number): number {
  let out = 1;
  for (let k = 0; k < power; k++) out *= value;
  return out;
}

function smoothTerms(layout: Layout, order: number): Term[] {
  const scale = 2 / Math.max(layout.widthMm, layout.heightMm);
  const [cx, cy] = [layout.widthMm / 2, layout.heightMm / 2];
  const terms: Term[] = [];
  for (let total = 0; total <= order; total++)
    for (let power = 0; power <= total; power++)
      terms.push((x, y) => whole((x - cx) * scale, total - power) * whole((y - cy) * scale, power));
  return terms;
}

/** The least of many values. */
const least = (values: readonly number[]): number => values.reduce((low, value) => Math.min(low, value), Infinity);

/** A cell brighter than bare stock by more than this glows over its edge, by so many mm for each power of e. */
const GLOWS = 1.3;
const GLOW_MM = 0.045;

/** Tiles that a surface of some terms is fitted to: more would not make it surer. */
const FITTED = 3000;

/** Some of many tiles, spread evenly: each by the golden ratio's turn of its place in the row. */
function thinned(tiles: readonly Tile[]): readonly Tile[] {
  const share = FITTED / tiles.length;
  return share >= 1 ? tiles : tiles.filter((_, index) => (index * 0.6180339887) % 1 < share);
}

/** Bare stock with a smooth surface through it: tiles to fit to, and all of them. */
interface Bare {
  readonly all: readonly Tile[];
  readonly tiles: readonly Tile[];
  readonly clippedShare: number;
  readonly clippedAt: readonly Point[];
  readonly surface: Surface;
}

function bareStock(image: Rectified, layout: Layout, further: Further, order: number): Bare | null {
  const { tiles: all, clippedShare, clippedAt } = bareTiles(image, layout, further);
  const tiles = thinned(all);
  if (tiles.length < LEAST_TILES) return null;
  return { all, tiles, clippedShare, clippedAt, surface: robustSurface(tiles, smoothTerms(layout, order), 8) };
}

/** As it is, or with more kept off cells that glow over their edge onto darker stock. */
function clearOfGlow(bare: Bare, image: Rectified, layout: Layout, further: number, order: number): Bare | null {
  const glow = new Map(
    ratiosOf(image, layout, bare.surface)
      .filter(({ ratio }) => ratio > GLOWS && GLOW_MM * Math.log(ratio) > further)
      .map(({ index, ratio }) => [index, GLOW_MM * Math.log(ratio)]),
  );
  if (glow.size === 0) return bare;
  return bareStock(image, layout, ({ index }) => glow.get(index) ?? further, order);
}

/**
 * The light on bare stock over a rectified card, so that it can be divided out: a third-order surface through the logarithm of linear light of
 * the bare tiles between the marks, with the edge of one shadow and smoke round strong cells where they explain a quarter of what is left; and
 * what bare stock near a cell tells beyond that. Null when fewer than 60 bare tiles can be seen.
 * `further` mm are kept off cells besides the usual, where it is not sure to a tenth of a millimetre where they lie. `isEvened` says that light is
 * alike all over already.
 */
export function fitLight(image: Rectified, layout: Layout, further = 0, isEvened = false): LightOnBare | null {
  const order = isEvened ? EVENED_ORDER : ORDER;
  const first = bareStock(image, layout, further, order);
  const bare = first && clearOfGlow(first, image, layout, further, order);
  if (!bare) return null;
  const { all, tiles, clippedShare, clippedAt } = bare;
  let { surface } = bare;
  // Where nearly all of it is explained there is nothing to look for.
  const open = (): boolean =>
    surface.residuals.filter((residual) => Math.abs(residual) > CLEARLY).length > MANY * tiles.length;
  const found = open() ? shadowEdge(tiles, surface, layout) : null;
  let edge: Edge | null = null;
  if (found) {
    const shaded = robustSurface(tiles, [...surface.terms, found.term], 8);
    if (isWorth(shaded, surface)) {
      surface = shaded;
      edge = found;
    }
  }
  const lampTerms = surface.terms.length;
  const burned = (): { box: Rect; strength: number }[] =>
    ratiosOf(image, layout, surface).map(({ box, ratio }) => ({ box, strength: strengthOf(ratio) }));
  const smoked = open() ? smokedSurface(tiles, surface, burned()) : null;
  surface = smoked ?? surface;

  const { terms, coefficients, design, weights, sigma } = surface;
  const channel = (of: (tile: Tile) => number): Float64Array =>
    weightedFit(
      design,
      Float64Array.from(tiles, (tile) => Math.log(of(tile))),
      weights,
    );
  const channels = [channel((tile) => tile.red), channel((tile) => tile.green), channel((tile) => tile.blue)] as const;
  const lightBy = (some: readonly Term[], x: number, y: number): [number, number, number] => {
    let [red, green, blue] = [0, 0, 0];
    for (let k = 0; k < some.length; k++) {
      const value = some[k]!(x, y);
      red += channels[0][k]! * value;
      green += channels[1][k]! * value;
      blue += channels[2][k]! * value;
    }
    return [Math.exp(red), Math.exp(green), Math.exp(blue)];
  };
  const residuals = Float64Array.from(all, ({ x, y, logLuminance }) => logLuminance - sumAt(terms, coefficients, x, y));
  const kinship = kinshipOf(all, residuals, sigma);
  const lamp = terms.slice(0, lampTerms);
  const at = lookedUp(layout, (x, y) => lightBy(terms, x, y));
  return {
    tileSigma: sigma,
    tiles: all.length,
    clippedShare,
    clippedAt,
    shadow: edge && {
      through: edge.through,
      along: edge.along,
      leaves: Math.exp(-Math.abs(coefficients[lampTerms - 1]!)),
    },
    smoke: smoked && {
      takes: 1 - Math.exp(least(tiles.map(({ x, y }) => coefficients[lampTerms]! * terms[lampTerms]!(x, y)))),
    },
    at,
    clean: smoked ? lookedUp(layout, (x, y) => lightBy(lamp, x, y)) : at,
    under: (area) => nearbyStock(all, residuals, kinship, area),
  };
}
