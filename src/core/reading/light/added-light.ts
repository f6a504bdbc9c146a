import { linearToSrgb, luminance } from '../../color/srgb';
import { gaussian, type Plane } from '../../image/gaussian';
import { meanAndSpread, median, quantile, robustSigma } from '../../stats/robust';
import { TILE_MM, type Tile } from './bare-tiles';
import type { Rectified } from '../rectify';
import { reflectionMap, type ToldLight } from './reflection-map';

/**
 * Light that comes back from a card's surface like from a mirror: a lamp's reflection, or a bright wall's. It has the lamp's colour, not the
 * stock's, and is added to what the stock sends back. Values are shares of what white stock would send.
 */
export interface AddedLight {
  /** At a place in card mm. */
  at(xMm: number, yMm: number): number;
  /** Standard deviation of that, with what is added evenly all over, which no photo of one stock can tell. */
  sigmaAt(xMm: number, yMm: number): number;
  /** Largest less smallest over the card. */
  readonly range: number;
  /** What white stock would send at the card's middle, by channel. */
  readonly white: readonly [number, number, number];
}

/** Added light as the colour of bare stock tells it. */
interface AddedByColour extends AddedLight {
  /** A range larger than this would have been found. */
  readonly unseenRange: number;
}

const BLOCK_MM = 1;
const TILES_OF_BLOCK = (BLOCK_MM / TILE_MM) ** 2;
const SMOOTH_MM = 2;
/** Where the card is clear of added light is told by the mean colour over so many mm: the clearest of many small places is only the noisiest. */
const CLEAR_MM = 6;
/** Stock less coloured than this looks the same with added light as with more light. */
const LEAST_COLOUR = 0.3;
/** Variation that noise of single blocks may make over a card, in its sigmas: stored colours step in patches as wide as blocks. */
const SURE = 9;
/** Stored photos step their colours by about so much of full scale; variation of fewer steps cannot be told from none. */
const COLOUR_STEP = 0.9 / 255;
const STEPS = 2;
const UNFOUND_SHARE = 0.04;
/** Tones that were undone from two photos are off by some sigmas somewhere, which looks like added light; less than this is never told there, but doubted. */
const TONE_SIGMAS = 10;
const TONE_LEAST = 0.05;
/** Share of what lies over half of the card that may lie under all of it, unseen. */
const EVEN_SHARE = 0.5;
/** Less than this comes from walls and not from lamps: it lies over all of the card, and as much as it differs by may lie under all of it. */
const WEAK = 0.02;
/** A reflection is told over the whole card by so many squares of bare stock at the most, none smaller than this. */
const MOST_SQUARES = 150;
const LEAST_SQUARE_MM = 2;
/** How well the ratio of the lamp's and the stock's own colours is known, as a logarithm: by what a stored photo rounds, and by the stock's record. */
const COLOUR_SIGMA = 0.014;
/** What sends more than white stock would beside its own light is blown out, or a white thing that lies there: it tells nothing of what lies beside it. */
const MOST_ADDED = 1;
/** Blocks so near to such a thing may lie under its edge, and look like a strong reflection. */
const EDGE_BLOCKS = 2;
/** Nothing is told more surely than this: pictures without noise are drawn, not taken. */
const LEAST_SIGMA = 1e-4;
/** What a stored step's rounding leaves all over a photo alike, as a share of it: the standard deviation of a uniform law. */
const ROUNDED = 1 / Math.sqrt(12);

/** Fewer blocks tell no added light. */
const LEAST_BLOCKS = 20;
/** What stock does not show by itself: so much of a block's own light beside stock and lamp, and so many sigmas of all blocks. */
const FOREIGN = 0.02;
const FOREIGN_SIGMAS = 5;
const MOST_FOREIGN = 0.2;
/** Natural logarithm by which a block may be darker than the middle one. */
const MOST_DARKENED = 0.45;

/** Bare stock's mean colour over a square millimetre. */
interface Block {
  readonly column: number;
  readonly row: number;
  readonly rgb: readonly [number, number, number];
  readonly tiles: number;
}

function blocksOf(tiles: readonly Tile[]): Block[] {
  const sums = new Map<string, { column: number; row: number; rgb: [number, number, number]; tiles: number }>();
  for (const tile of tiles) {
    const [column, row] = [Math.floor(tile.x / BLOCK_MM), Math.floor(tile.y / BLOCK_MM)];
    const key = `${column} ${row}`;
    const sum = sums.get(key) ?? { column, row, rgb: [0, 0, 0], tiles: 0 };
    sum.rgb[0] += tile.red;
    sum.rgb[1] += tile.green;
    sum.rgb[2] += tile.blue;
    sum.tiles++;
    sums.set(key, sum);
  }
  return [...sums.values()].map(({ rgb, ...block }) => ({
    ...block,
    rgb: [rgb[0] / block.tiles, rgb[1] / block.tiles, rgb[2] / block.tiles] as const,
  }));
}

const luminanceOf = ({ rgb }: Block): number => Math.log(luminance(...rgb));

/** Without blocks that are darker than those around: a finger, a knot, a shadow. Added light only brightens. */
function notDarkened(blocks: readonly Block[]): Block[] {
  const values = Float64Array.from(blocks, luminanceOf);
  const middle = median(values);
  return blocks.filter((_, index) => values[index]! > middle - MOST_DARKENED);
}

/** What a block shows as so much light on stock and so much light of the lamp's colour, and what it shows beside that, relative to itself. */
interface Parted {
  readonly added: number;
  readonly beside: number;
}

/** Relative noise is alike in all three channels. */
function parted(
  rgb: readonly [number, number, number],
  white: readonly [number, number, number],
  stock: readonly [number, number, number],
): Parted {
  let [ss, s, one, sn, n] = [0, 0, 0, 0, 0];
  for (const channel of [0, 1, 2] as const) {
    const shown = rgb[channel] / white[channel];
    const weight = 1 / shown ** 2;
    ss += weight * stock[channel] ** 2;
    s += weight * stock[channel];
    one += weight;
    sn += weight * stock[channel] * shown;
    n += weight * shown;
  }
  const below = ss * one - s * s;
  const [added, light] = [(ss * n - s * sn) / below, (one * sn - s * n) / below];
  let squares = 0;
  for (const channel of [0, 1, 2] as const)
    squares += (1 - (light * stock[channel] + added) / (rgb[channel] / white[channel])) ** 2;
  const shownGreen = rgb[1] / white[1];
  return { added, beside: Math.sqrt(squares) * Math.sign(shownGreen - light * stock[1] - added) };
}

/** Values on the squares of a card. */
type Squares = Plane;

/** The weighted mean of blocks' values near each square of a card; far from every block it is the mean of all. */
function smoothed(
  blocks: readonly Block[],
  values: ArrayLike<number>,
  columns: number,
  rows: number,
  nearMm: number,
): Squares {
  const weights = new Float64Array(columns * rows).fill(1e-9);
  const sums = new Float64Array(columns * rows).fill(1e-9 * meanAndSpread(values).mean);
  const spread = (of: Float64Array): Float64Array =>
    gaussian({ values: of, width: columns, height: rows }, nearMm / BLOCK_MM, 'nothing').values;
  blocks.forEach(({ column, row, tiles }, index) => {
    weights[row * columns + column]! += tiles;
    sums[row * columns + column]! += tiles * values[index]!;
  });
  const total = spread(weights);
  return { width: columns, height: rows, values: spread(sums).map((sum, at) => sum / total[at]!) };
}

/** Means of blocks' values over larger squares of a card, few enough that each is told from all others. */
function squaresOf(blocks: readonly Block[], added: ArrayLike<number>): ToldLight[] {
  const side = Math.max(LEAST_SQUARE_MM, BLOCK_MM * Math.sqrt(blocks.length / MOST_SQUARES));
  const white = blocks.filter((_, index) => added[index]! > MOST_ADDED);
  const isBesideWhite = (column: number, row: number): boolean =>
    white.some((block) => Math.max(Math.abs(block.column - column), Math.abs(block.row - row)) <= EDGE_BLOCKS);
  const sums = new Map<string, { x: number; y: number; added: number; trust: number }>();
  blocks.forEach(({ column, row, tiles }, index) => {
    if (isBesideWhite(column, row)) return;
    const [x, y] = [(column + 0.5) * BLOCK_MM, (row + 0.5) * BLOCK_MM];
    const key = `${Math.floor(x / side)} ${Math.floor(y / side)}`;
    const sum = sums.get(key) ?? { x: 0, y: 0, added: 0, trust: 0 };
    sum.x += tiles * x;
    sum.y += tiles * y;
    sum.added += tiles * added[index]!;
    sum.trust += tiles;
    sums.set(key, sum);
  });
  return [...sums.values()].map(({ x, y, added: sum, trust }) => ({
    x: x / trust,
    y: y / trust,
    added: sum / trust,
    trust,
  }));
}

/** Values of the squares that blocks lie in. */
const atPlaces = ({ values, width }: Squares, blocks: readonly Block[]): Float64Array =>
  Float64Array.from(blocks, ({ column, row }) => values[row * width + column]!);

/** The index of the square that a place of the card lies in; of one beside the card that of the nearest. */
function squareAt({ width, height }: Squares, xMm: number, yMm: number): number {
  const column = Math.max(0, Math.min(width - 1, Math.floor(xMm / BLOCK_MM)));
  const row = Math.max(0, Math.min(height - 1, Math.floor(yMm / BLOCK_MM)));
  return row * width + column;
}

type Channel = 0 | 1 | 2;

/** The channels that a stock sends most and least of: red and blue of wood, green and red of moss. */
function channelsOf(stock: readonly [number, number, number]): readonly [strong: Channel, weak: Channel] {
  const [weak, , strong] = ([0, 1, 2] as Channel[]).sort((a, b) => stock[a] - stock[b]) as [Channel, Channel, Channel];
  return [strong, weak];
}

/** What white stock would send, by channel: by the blocks that look least like the lamp, which are taken to have nothing added. */
function whiteOf(
  blocks: readonly Block[],
  stock: readonly [number, number, number],
  columns: number,
  rows: number,
): readonly [number, number, number] {
  const [strong, weak] = channelsOf(stock);
  const colour = Float64Array.from(blocks, ({ rgb }) => Math.log(rgb[strong] / rgb[weak]));
  const around = atPlaces(smoothed(blocks, colour, columns, rows, CLEAR_MM), blocks);
  const own = quantile(around, 0.85);
  const clear = blocks.filter((_, index) => around[index]! >= own);
  const mean = (channel: 0 | 1 | 2): number =>
    Math.exp(clear.reduce((sum, { rgb }) => sum + Math.log(rgb[channel]), 0) / clear.length);
  return [mean(0) / stock[0], mean(1) / stock[1], mean(2) / stock[2]];
}

/**
 * Without blocks whose colour no light on this stock and no lamp's reflection make together: skin, tape, a thing that lies there. They would be taken
 * for added light, and stock that is not like them for more of it than there is. Where many are like that it is the lamps that differ, and all stay.
 */
function ofStock(
  blocks: readonly Block[],
  white: readonly [number, number, number],
  stock: readonly [number, number, number],
): readonly Block[] {
  const beside = Float64Array.from(blocks, ({ rgb }) => parted(rgb, white, stock).beside);
  const middle = median(beside);
  const most = Math.max(FOREIGN, FOREIGN_SIGMAS * robustSigma(beside));
  const own = blocks.filter((_, index) => Math.abs(beside[index]! - middle) <= most);
  return own.length >= Math.max(LEAST_BLOCKS, (1 - MOST_FOREIGN) * blocks.length) ? own : blocks;
}

/**
 * Added light over a card, from the colour of its bare stock: where light was added, coloured stock looks more like the lamp. What was least
 * changed is taken to have none. Null for stock too near to grey, where added light looks like more light. `colourSigma` is how sure the ratio
 * of two lights is by the camera's tones, as a logarithm: nought where they are taken on trust.
 */
export function addedLight(
  tiles: readonly Tile[],
  stockLinear: readonly [number, number, number],
  widthMm: number,
  heightMm: number,
  colourSigma: (strong: number, weak: number) => number = () => 0,
): AddedByColour | null {
  const [strong, weak] = channelsOf(stockLinear);
  if (Math.log(stockLinear[strong] / stockLinear[weak]) < LEAST_COLOUR) return null;
  const columns = Math.ceil(widthMm / BLOCK_MM);
  const rows = Math.ceil(heightMm / BLOCK_MM);
  const seen = notDarkened(blocksOf(tiles).filter((block) => block.tiles >= 2));
  if (seen.length < LEAST_BLOCKS) return null;
  const blocks = ofStock(seen, whiteOf(seen, stockLinear, columns, rows), stockLinear);
  const near = (values: ArrayLike<number>): Squares => smoothed(blocks, values, columns, rows, SMOOTH_MM);
  const atBlocks = (squares: Squares): Float64Array => atPlaces(squares, blocks);
  const white = whiteOf(blocks, stockLinear, columns, rows);
  const parts = blocks.map(({ rgb }) => parted(rgb, white, stockLinear));
  const added = Float64Array.from(parts, (part) => part.added);
  const shape = near(added);
  const level = atBlocks(shape);
  const noise = robustSigma(Float64Array.from(added, (value, index) => value - level[index]!));
  // Some dozen blocks speak for each place.
  const settled = noise / 3;
  const [least, most] = [quantile(level, 0.03), quantile(level, 0.97)];
  const range = most - least;
  // What one step of a stored colour is mistaken for, where stock is darkest and steps count most.
  const step = (stockLinear[strong] * stockLinear[weak]) / (stockLinear[strong] - stockLinear[weak]);
  const stepped = blocks.map(({ rgb }) => {
    const stored = Math.max(1 / 255, linearToSrgb(Math.min(rgb[strong], rgb[weak])));
    return ((step * rgb[1]) / white[1] / stockLinear[1]) * ((2.2 * COLOUR_STEP) / stored);
  });
  const unsure = colourSigma(stockLinear[strong] * white[strong], stockLinear[weak] * white[weak]);
  const tones = unsure > 0 ? Math.max(TONE_LEAST, TONE_SIGMAS * step * unsure) : 0;
  const coarse = Math.max(tones, STEPS * quantile(stepped, 0.9));
  const unseenRange = Math.max(SURE * noise, coarse);
  const found = range > unseenRange;
  // Bent tones or added light: nobody knows which, and where it is nothing is taken out and all of it is doubted.
  const inDoubt = !found && range > Math.max(SURE * noise, STEPS * quantile(stepped, 0.9));
  const middle = quantile(level, 0.5);
  // A reflection that leaves most of the card alone lies in one place; one that lies over most of it may lie under the rest as well.
  const under = Math.max(range < WEAK ? range : 0, middle);
  const even = found ? EVEN_SHARE * under : UNFOUND_SHARE * range;
  const squares = found ? squaresOf(blocks, added) : [];
  const map =
    squares.length > 1
      ? reflectionMap(
          squares,
          {
            partSigma: Math.max(LEAST_SIGMA, noise * Math.sqrt(TILES_OF_BLOCK)),
            alikeSigma: Math.max(LEAST_SIGMA, ROUNDED * quantile(stepped, 0.5)),
          },
          widthMm,
          heightMm,
        )
      : null;
  const at = (x: number, y: number): number => map?.at(x, y) ?? 0;
  const [bright, dark] = [stockLinear[strong], stockLinear[weak]];
  // A ratio of (bright + added) : (dark + added) that is off by its own logarithm's sigma, beyond what it is off by where nothing was added.
  const byColour = (share: number): number =>
    (COLOUR_SIGMA * ((bright + share) * (dark + share) - bright * dark)) / (bright - dark);
  const inDoubtAt = (x: number, y: number): number =>
    inDoubt ? Math.max(0, shape.values[squareAt(shape, x, y)]! - middle) : 0;
  return {
    range: found ? range : 0,
    unseenRange,
    sigmaAt: (x, y) => Math.hypot(map?.sigmaAt(x, y) ?? settled, even, byColour(at(x, y)), inDoubtAt(x, y)),
    white,
    at,
  };
}

/** What is left where more was taken out than there was: black stock still has a logarithm. */
const LEAST_LIGHT = 1e-5;

/** The picture without the light that was added to it. */
export function withoutAdded(image: Rectified, added: AddedLight): Rectified {
  const { width, height, pxPerMm } = image;
  const data = image.data.slice();
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const share = added.at((x + 0.5) / pxPerMm, (y + 0.5) / pxPerMm);
      const at = (y * width + x) * 3;
      for (let channel = 0; channel < 3; channel++)
        data[at + channel] = Math.max(LEAST_LIGHT, data[at + channel]! - share * added.white[channel]!);
    }
  return { ...image, data };
}
