import type { Layout } from '../../card/layout';
import { LINEAR_OF_BYTE, luminance } from '../../color/srgb';
import { invertHomography, project, type Homography } from '../../geometry/homography';
import { grown, within, type Point } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import { meanAndSpread, quantile } from '../../stats/robust';
import type { Tile } from '../light/bare-tiles';
import { robustSurface, sumAt, type Term } from '../light/surface';

/** The light of the open table, as far as a photo shows it beside the piece, and under the card by a surface through it. */
export interface OpenLight {
  /** Its luminance at a place in card mm, as a share of the camera's full scale. */
  at(xMm: number, yMm: number): number;
  /** How sure its logarithm is: alike for all of the card. */
  readonly sigma: number;
}

/** Tiles along the photo's longer side. */
const TILES = 120;
/** Looks along each side of a tile. */
const LOOKS = 6;
/** The table is at least so bright, as a share of the brightest tiles; and so even within a tile. */
const OPEN_SHARE = 0.55;
const EVEN = 0.05;
/** Open light is not looked for nearer than this to the card, in mm: its piece goes on there. */
const KEEP_OFF_MM = 1;
/**
 * Light is looked for as near as it is seen: so many times the card's longer side from its middle. The further away it lies, the less a smooth
 * surface through it tells of the light under the card: how sure it is of its logarithm there. Measured on the bench, whose table falls off towards
 * one side and has no smooth end: 0.006, 0.010 and 0.015 in the mean.
 */
const REACHES = [
  { times: 0.8, sigma: 0.012 },
  { times: 1, sigma: 0.02 },
  { times: 1.5, sigma: 0.03 },
] as const;
/** Less than this of the camera's full scale is no lit table: it would be told by a few steps of what is stored. */
const LEAST_LIGHT = 0.01;
const LEAST_TILES = 40;
/** More of the open tiles than this at the end of the camera's range: what is left of them is too dark. */
const MOST_BLOWN_OUT = 0.1;
const BLOWN_OUT = 250;
/**
 * The open light around a card's piece on a light table. `no-open-light` where the photo does not show it on enough sides to tell what it is under
 * the card, `blown-out` where it is at the end of the camera's range.
 */
export function openLight(
  photo: RgbImage,
  toPhoto: Homography,
  layout: Layout,
  linear: Float32Array = LINEAR_OF_BYTE,
): OpenLight | 'no-open-light' | 'blown-out' {
  const lattice = latticeOf(photo, linear);
  const fromPhoto = invertHomography(toPhoto);
  const card = { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm };
  const middle = { x: card.width / 2, y: card.height / 2 };
  const longer = Math.max(card.width, card.height);
  const piece = grown(card, KEEP_OFF_MM);
  const outside = lattice.tiles
    .map((tile) => ({ ...tile, ...project(fromPhoto, tile.u, tile.v) }))
    .filter(({ x, y }) => !within(piece, { x, y }));
  if (outside.length < LEAST_TILES) return 'no-open-light';
  const least =
    OPEN_SHARE *
    quantile(
      outside.map(({ level }) => level),
      0.95,
    );
  if (least < LEAST_LIGHT) return 'no-open-light';
  const isOpen = (at: number): boolean => lattice.tiles[at]!.level >= least && lattice.tiles[at]!.uneven <= EVEN;
  // A tile counts with all of its neighbours: cells of another card on the same sheet are small.
  const open = outside.filter(({ at }) => lattice.around(at).every(isOpen));
  for (const { times, sigma } of REACHES) {
    const near = open.filter(({ x, y }) => Math.max(Math.abs(x - middle.x), Math.abs(y - middle.y)) <= times * longer);
    if (near.length < LEAST_TILES || !isSeenAround(near, middle)) continue;
    if (near.filter(({ blownOut }) => blownOut).length > MOST_BLOWN_OUT * near.length) return 'blown-out';
    const terms = squareTerms(middle, longer);
    const tiles = near.map(({ x, y, level }): Tile => ({
      x,
      y,
      red: level,
      green: level,
      blue: level,
      logLuminance: Math.log(level),
    }));
    const { coefficients } = robustSurface(tiles, terms, 6);
    return { at: (x, y) => Math.exp(sumAt(terms, coefficients, x, y)), sigma };
  }
  return 'no-open-light';
}

/** All products of places up to their squares. */
const squareTerms = (middle: Point, scale: number): Term[] => [
  () => 1,
  (x) => (x - middle.x) / scale,
  (_, y) => (y - middle.y) / scale,
  (x) => ((x - middle.x) / scale) ** 2,
  (x, y) => ((x - middle.x) * (y - middle.y)) / scale ** 2,
  (_, y) => ((y - middle.y) / scale) ** 2,
];

interface PhotoTile {
  readonly at: number;
  /** Its centre in photo pixels. */
  readonly u: number;
  readonly v: number;
  /** Mean luminance, and its spread as a share of that. */
  readonly level: number;
  readonly uneven: number;
  readonly blownOut: boolean;
}

function latticeOf(photo: RgbImage, linear: Float32Array): { tiles: PhotoTile[]; around: (at: number) => number[] } {
  const side = Math.max(LOOKS, Math.floor(Math.max(photo.width, photo.height) / TILES));
  const columns = Math.floor(photo.width / side);
  const rows = Math.floor(photo.height / side);
  const tiles: PhotoTile[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const looks: number[] = [];
      let brightest = 0;
      for (let v = 0; v < LOOKS; v++)
        for (let u = 0; u < LOOKS; u++) {
          const x = column * side + Math.floor(((u + 0.5) * side) / LOOKS);
          const y = row * side + Math.floor(((v + 0.5) * side) / LOOKS);
          const index = (y * photo.width + x) * 3;
          const [red, green, blue] = [photo.data[index]!, photo.data[index + 1]!, photo.data[index + 2]!];
          brightest = Math.max(brightest, red, green, blue);
          looks.push(luminance(linear[red]!, linear[green]!, linear[blue]!));
        }
      const { mean, spread } = meanAndSpread(looks);
      tiles.push({
        at: row * columns + column,
        u: (column + 0.5) * side - 0.5,
        v: (row + 0.5) * side - 0.5,
        level: Math.max(1e-5, mean),
        uneven: spread / Math.max(1e-5, mean),
        blownOut: brightest >= BLOWN_OUT,
      });
    }
  const around = (at: number): number[] => {
    const [column, row] = [at % columns, Math.floor(at / columns)];
    const near = [-1, 0, 1].flatMap((v) => [-1, 0, 1].map((u) => ({ u: column + u, v: row + v })));
    return near.filter(({ u, v }) => u >= 0 && v >= 0 && u < columns && v < rows).map(({ u, v }) => v * columns + u);
  };
  return { tiles, around };
}

/** Of eight directions from the card's middle, light from this many at the least: a surface is not drawn out over the card from one side of it. */
const LEAST_DIRECTIONS = 5;

function isSeenAround(tiles: readonly Point[], middle: Point): boolean {
  const seen = new Array<boolean>(8).fill(false);
  for (const { x, y } of tiles)
    seen[Math.floor(((Math.atan2(y - middle.y, x - middle.x) + Math.PI) / (2 * Math.PI)) * 8) % 8] = true;
  return seen.filter(Boolean).length >= LEAST_DIRECTIONS;
}
