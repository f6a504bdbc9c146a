import type { Layout } from '../card/layout';
import { luminance } from '../color/srgb';
import { grown, within, type Point, type Rect } from '../geometry/point';
import { quantile } from '../stats/robust';
import { edgeWidth } from './edge-width';
import type { AddedLight } from './light/added-light';
import type { CellReading } from './observations';
import { FLAT_ENOUGH_MM, LEAST_PX_PER_MM, type PhotoContext } from './photo-context';

/**
 * What somebody who takes photos can do something about. `amount` is, by fault: of bare stock, the share that is as bright as the camera can
 * tell; the light that was added, as a share of white; the light that a shadow leaves; the light that smoke takes at most; photo pixels for
 * each mm; the 10-90 % width of edges in mm; stops below a fair exposure; mm that markers lie beside one flat sheet's places; light over it that
 * another photo of the piece does not have, as a share of white.
 */
export type FaultName =
  | 'overexposed'
  | 'reflection'
  | 'shadow'
  | 'smoke'
  | 'too-far'
  | 'out-of-focus'
  | 'too-dark'
  | 'not-flat'
  | 'more-light';

export interface PhotoFault {
  readonly fault: FaultName;
  readonly amount: number;
  /** Where on the card, in mm; null where it holds all over it. */
  readonly area: Rect | null;
  /** A shadow's edge, from border to border; null for everything else. */
  readonly line: readonly [Point, Point] | null;
  /** Indexes of the cells it lies on, in order; none where it holds all over the card. */
  readonly cells: readonly number[];
}

/** Bare stock clipped by more than this is said. */
const SAID_CLIPPED = 0.02;
/** A cell lies in clipped stock where so many tiles within this reach of it are. */
const NEAR_MM = 1;
const NEAR_TILES = 6;
/** Added light that is said, as a share of white, and the part of the most of it that marks where it lies. */
const SAID_ADDED = 0.02;
const PART_OF_MOST = 0.35;
/** A shadow, or smoke, that takes less than this is not worth a word. */
const SAID_SHADOW = 0.1;
const SAID_SMOKE = 0.03;
/** An edge this wide, of a normal law, has a twentieth of its height left where bare stock begins to be looked for beside a cell. */
const WIDEST_EDGE_MM = 0.35;
/** L* between a cell and bare stock from which on its edges tell how sharp the photo is. */
const STRONG = 12;
/** Stops that a photo may be darker than one whose white is just not clipped. */
const DARKEST_STOPS = 2.5;

/** The box that holds all but the outermost of many points. */
function boxOf(points: readonly Point[], rim: number): Rect {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, top] = [quantile(xs, rim), quantile(ys, rim)];
  return { x: left, y: top, width: quantile(xs, 1 - rim) - left, height: quantile(ys, 1 - rim) - top };
}

/** Indexes of the burned cells of which something holds, in order. */
const cellsWhere = ({ cells }: Layout, holds: (box: Rect) => boolean): number[] =>
  cells.filter((cell) => !cell.leftOut && holds(cell.box)).map(({ index }) => index);

const middleOf = ({ x, y, width, height }: Rect): Point => ({ x: x + width / 2, y: y + height / 2 });

function overexposed({ field, lightIsTold }: PhotoContext, layout: Layout): PhotoFault | null {
  // Where a sheet tells the light, it does not matter that stock does not.
  if (field.clippedShare <= SAID_CLIPPED || lightIsTold) return null;
  const { clippedAt } = field;
  return {
    fault: 'overexposed',
    amount: field.clippedShare,
    area: clippedAt.length > 0 ? boxOf(clippedAt, 0.02) : null,
    line: null,
    cells: cellsWhere(layout, (box) => {
      const near = grown(box, NEAR_MM);
      return clippedAt.filter((place) => within(near, place)).length >= NEAR_TILES;
    }),
  };
}

function reflection(added: AddedLight | null, layout: Layout): PhotoFault | null {
  if (!added || added.range < SAID_ADDED) return null;
  const squares: (Point & { share: number })[] = [];
  for (let y = 0.5; y < layout.heightMm; y++)
    for (let x = 0.5; x < layout.widthMm; x++) squares.push({ x, y, share: added.at(x, y) });
  const most = Math.max(...squares.map(({ share }) => share));
  const bound = PART_OF_MOST * most;
  return {
    fault: 'reflection',
    amount: most,
    area: grown(
      boxOf(
        squares.filter(({ share }) => share >= bound),
        0,
      ),
      0.5,
    ),
    line: null,
    cells: cellsWhere(layout, (box) => added.at(middleOf(box).x, middleOf(box).y) >= bound),
  };
}

/** The part of a line that lies on the card; null for one that passes beside it. Source: Y.-D. Liang, B. A. Barsky, ACM Trans. Graph. 3 (1984) 1. */
function acrossCard(through: Point, along: Point, { widthMm, heightMm }: Layout): [Point, Point] | null {
  let [from, to] = [-Infinity, Infinity];
  for (const [at, step, end] of [
    [through.x, along.x, widthMm],
    [through.y, along.y, heightMm],
  ] as const) {
    // A line along a side crosses it at infinity: on both hands where it lies on the card, on one where it passes beside.
    const [a, b] = [-at / step, (end - at) / step];
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  const place = (t: number): Point => ({ x: through.x + t * along.x, y: through.y + t * along.y });
  return from < to ? [place(from), place(to)] : null;
}

function shadow({ field }: PhotoContext, layout: Layout): PhotoFault | null {
  const edge = field.shadow;
  if (!edge || 1 - edge.leaves < SAID_SHADOW) return null;
  const { through, along } = edge;
  const side = ({ x, y }: Point): number => (x - through.x) * along.y - (y - through.y) * along.x;
  return {
    fault: 'shadow',
    amount: edge.leaves,
    area: null,
    line: acrossCard(through, along, layout),
    cells: cellsWhere(layout, ({ x, y, width, height }) => {
      const sides = [
        side({ x, y }),
        side({ x: x + width, y }),
        side({ x, y: y + height }),
        side({ x: x + width, y: y + height }),
      ];
      return Math.min(...sides) < 0 && Math.max(...sides) > 0;
    }),
  };
}

/** A fault of the whole photo. */
const ofAll = (fault: FaultName, amount: number): PhotoFault => ({ fault, amount, area: null, line: null, cells: [] });

/** So many edges at least tell how sharp a photo is. */
const ENOUGH_EDGES = 4;

/**
 * How wide the sharper edges of strongly burned cells are, in the direction that a hand moved in if it moved; null where too few are strong.
 * The sharper ones, since a burn out of focus, or of lines that do not meet, has wide edges of its own.
 */
function edgeWidthMm(context: PhotoContext, layout: Layout, read: readonly CellReading[]): number | null {
  const strong = read.filter(({ deltaLightness }) => Math.abs(deltaLightness) >= STRONG);
  const told = (['left', 'upper'] as const)
    .map((edge) => strong.flatMap(({ cellIndex }) => edgeWidth(context, layout.cells[cellIndex]!.box, edge) ?? []))
    .filter((widths) => widths.length >= ENOUGH_EDGES);
  return told.length > 0 ? Math.max(...told.map((widths) => quantile(widths, 0.25))) : null;
}

/** Stops by which white in the brightest part of the card lies below the camera's range. */
function stopsBelowWhite({ field, stockLinear }: PhotoContext, { widthMm, heightMm }: Layout): number {
  const stock = luminance(...stockLinear);
  const whites = [0.1, 0.5, 0.9].flatMap((u) =>
    [0.1, 0.5, 0.9].map((v) => luminance(...field.at(u * widthMm, v * heightMm)) / stock),
  );
  return -Math.log2(Math.max(...whites));
}

/** What is wrong with a photo of which these cells were read, worst first; nothing where it is as it should be. */
export function photoFaults(
  context: PhotoContext,
  added: AddedLight | null,
  layout: Layout,
  read: readonly CellReading[],
): PhotoFault[] {
  const edgeMm = edgeWidthMm(context, layout, read);
  const stops = stopsBelowWhite(context, layout);
  const { smoke } = context.field;
  const all: readonly (PhotoFault | null)[] = [
    context.frameErrorMm > FLAT_ENOUGH_MM ? ofAll('not-flat', context.frameErrorMm) : null,
    overexposed(context, layout),
    reflection(added, layout),
    stops > DARKEST_STOPS ? ofAll('too-dark', stops) : null,
    context.photoPxPerMm < LEAST_PX_PER_MM ? ofAll('too-far', context.photoPxPerMm) : null,
    edgeMm !== null && edgeMm > WIDEST_EDGE_MM ? ofAll('out-of-focus', edgeMm) : null,
    shadow(context, layout),
    smoke && smoke.takes > SAID_SMOKE ? ofAll('smoke', smoke.takes) : null,
  ];
  return all.filter((fault) => fault !== null);
}
