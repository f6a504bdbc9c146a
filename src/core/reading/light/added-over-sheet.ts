import { luminance } from '../../color/srgb';
import type { Point } from '../../geometry/point';
import { median } from '../../stats/robust';
import { PAPER_LUMINANCE } from '../../sheet/paper';
import type { Tile } from './bare-tiles';
import type { LightAt } from './evened';
import { lobeOf, type AddedHere, type Lobe } from './lobe';

/** Light that was added at a grey of a sheet beside what was added at all of them, as a share of what paper sends there. */
export interface AddedAtGrey extends Point {
  readonly added: number;
  /** What the grey sends back, as a share of what paper does; by which share of itself that is unsure, and by which it may grow from side to side. */
  readonly grey: number;
  readonly sigmaShare: number;
  readonly bentShare: number;
}

/** A sheet around a card, in mm of the card. */
export interface SheetAround {
  readonly paperLight: LightAt;
  readonly greys: readonly AddedAtGrey[];
}

/** Lighter greys than this tell more of light that falls on them than of light that was added. */
const DARK_GREY = 0.5;
/** A darker grey is stored in coarser steps: it is told no more surely than this one. */
const LEAST_GREY = 0.03;
/** Greys darker than this are the darkest of any print, and a camera without a bend leaves this much at the least. */
const DARKEST = 0.12;
const LEAST_SLOPE = 1e-5;
/** Fewer dark greys lie on one side only, and leave a lobe's place open. */
const FEWEST_GREYS = 8;
/** Side of the squares that bare stock is looked at in. */
const SQUARE_MM = 4;
const LEAST_TILES = 3;
/** What is added to so many squares beyond their middle one is no wall's: as a share of white, and in a square's own sigmas. */
const SPOT = 0.025;
const SPOT_SIGMAS = 5;
const SPOT_SQUARES = 2;
/** One square of bare stock differs from another by the first of these shares in all channels alike, light on it too, and by the other in each by itself. */
const ALIKE_SHARE = 0.02;
const APART_SHARE = 0.02;
/** Stock is paler or darker than its record by this share, a standard deviation, and one blotch beside another by so much of what one square is. */
const RECORD_SHARE = 0.15;
const BLOTCH = 0.5;
/** Of a square's noise this much is its own, however many tiles it has. */
const OWN_NOISE = 0.15;

/** What each channel counts where added light is told by all three, and how sure that is: a variance. */
interface Weighing {
  readonly weights: readonly number[];
  readonly variance: number;
}

/**
 * How what was added to bare stock is told by three channels, of which each is off by itself and all by one share of what the stock sends: the mean of
 * least variance. Grey stock, [0.1, 0.1, 0.1]: a third each.
 */
export function weighingOf(stock: readonly number[]): Weighing {
  // The inverse of D + s² r rᵀ. Source: J. Sherman, W. J. Morrison, Ann. Math. Statist. 21 (1950) 124.
  const own = stock.map((share) => 1 / (APART_SHARE * share) ** 2);
  const [both, once] = [0, 1].map((which) =>
    stock.reduce((sum, share, channel) => sum + own[channel]! * share * (which === 0 ? share : 1), 0),
  ) as [number, number];
  const shrink = ALIKE_SHARE ** 2 / (1 + ALIKE_SHARE ** 2 * both);
  const weights = stock.map((share, channel) => own[channel]! * (1 - shrink * share * once));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return { weights: weights.map((weight) => weight / total), variance: 1 / total };
}

/** Added light on squares of bare stock, up to what stock differs from its record by. */
function onStock(
  tiles: readonly Tile[],
  stock: readonly [number, number, number],
  { weights, variance }: Weighing,
  paperLight: LightAt,
): AddedHere[] {
  const sums = new Map<string, { x: number; y: number; added: number; tiles: number }>();
  for (const { x, y, red, green, blue } of tiles) {
    const paper = paperLight(x, y);
    const key = `${Math.floor(x / SQUARE_MM)} ${Math.floor(y / SQUARE_MM)}`;
    const sum = sums.get(key) ?? { x: 0, y: 0, added: 0, tiles: 0 };
    sum.x += x;
    sum.y += y;
    sum.tiles++;
    [red, green, blue].forEach((light, channel) => {
      sum.added += weights[channel]! * ((PAPER_LUMINANCE * light) / paper[channel]! - stock[channel]!);
    });
    sums.set(key, sum);
  }
  return [...sums.values()]
    .filter((sum) => sum.tiles >= LEAST_TILES)
    .map(({ x, y, added, tiles: count }) => ({
      x: x / count,
      y: y / count,
      added: added / count,
      sigma: Math.sqrt(variance * (OWN_NOISE + 1 / count)),
      onStock: true,
    }));
}

/** What dark greys of a sheet tell of added light, as shares of what white would send; null where too few of them are seen. */
function onGreys(greys: readonly AddedAtGrey[]): AddedHere[] | null {
  const told = greys
    .filter(({ grey }) => grey < DARK_GREY)
    .map(({ x, y, added, grey, sigmaShare }) => ({
      x,
      y,
      added: PAPER_LUMINANCE * added,
      sigma: PAPER_LUMINANCE * sigmaShare * Math.max(LEAST_GREY, grey),
      onStock: false,
    }));
  return told.length < FEWEST_GREYS ? null : told;
}

/** By how much what greys tell may grow from side to side because the camera's curve is bent: as the darkest of them has it. */
const slopeOf = (greys: readonly AddedAtGrey[]): number =>
  PAPER_LUMINANCE *
  Math.max(LEAST_SLOPE, ...greys.map(({ grey, bentShare }) => bentShare * grey * Number(grey < DARKEST)));

/** Whether some squares of stock have more added to them than a wall does: a lamp's reflection, which no broad lobe is like. */
function hasSpot(stock: readonly AddedHere[]): boolean {
  const middle = median(Float64Array.from(stock, ({ added }) => added));
  return (
    stock.filter(({ added, sigma }) => added - middle > Math.max(SPOT, SPOT_SIGMAS * sigma)).length >= SPOT_SQUARES
  );
}

/**
 * A broad reflection that lies over a card and the sheet around it, as shares of what white would send: by the sheet's dark greys, which it brightens
 * most, and by bare stock against the light that paper tells. Null where too few of the greys are seen; 'lamp' where a lamp's reflection lies on
 * the stock, which no broad lobe is like.
 */
export function addedOverSheet(
  tiles: readonly Tile[],
  stockLinear: readonly [number, number, number],
  sheet: SheetAround,
  middle: Point,
): Lobe | 'lamp' | null {
  const told = onGreys(sheet.greys);
  if (!told) return null;
  const weighing = weighingOf(stockLinear);
  const stock = onStock(tiles, stockLinear, weighing, sheet.paperLight);
  return hasSpot(stock)
    ? 'lamp'
    : lobeOf([...told, ...stock], middle, {
        all: RECORD_SHARE * luminance(...stockLinear),
        blotch: BLOTCH * Math.sqrt(weighing.variance),
        greySlope: slopeOf(sheet.greys),
      });
}

/** The same by the greys alone, over a piece of which nothing is known; less surely where it lies in their middle. */
export function addedByGreys(greys: readonly AddedAtGrey[], middle: Point): Lobe | null {
  const told = onGreys(greys);
  return told && lobeOf(told, middle, { all: 1, blotch: 1, greySlope: slopeOf(greys) });
}
