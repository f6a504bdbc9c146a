import type { Point, Rect } from '../geometry/point';
import type { Greys } from '../picture/greys';
import type { PictureMode } from '../picture/mode';
import { evenDots, runsOfRow, type Dots, type Screen } from '../picture/screen';
import { burnedOf, coverageOfPicture, runsOfPicture } from './picture-shape';
import type { BurnSettings } from './settings';

/** Closed outlines; what lies in an odd number of them is inside. The last point of a ring is joined to its first. */
export type Region = readonly (readonly Point[])[];

/** An even grey over a box, made of square dots of one power that are as wide as the lines are apart. */
export interface DotsShape {
  readonly do: 'dots';
  readonly box: Rect;
  /** Share of it that is covered by dots. */
  readonly grey: number;
  readonly screen: Screen;
}

/** A picture over a box: a line for each of its rows, or columns where lines run along Y. */
export interface PictureShape {
  readonly do: 'picture';
  readonly box: Rect;
  /** How much is wanted of each place: 0 for bare stock, 255 for the strongest there is. */
  readonly wanted: Greys;
  /** What is burned for each of 256 that are wanted, as a share of the strongest; null burns what is wanted. */
  readonly table: readonly number[] | null;
  /** By dots of the settings' power, or by powers from the floor up to it. */
  readonly mode: PictureMode;
  readonly floorFraction: number;
}

/** What the head does with a burn: fill an area by sweeps, follow lines (cut, score, draw), or sweep over dots or a picture. */
export type Shape =
  | { readonly do: 'sweep'; readonly area: Region }
  | { readonly do: 'follow'; readonly lines: readonly (readonly Point[])[] }
  | DotsShape
  | PictureShape;

/** Something a hand must do before a burn goes on. */
export interface HandStep {
  readonly text: string;
}

export interface Burn {
  readonly shape: Shape;
  readonly settings: BurnSettings;
  readonly before?: HandStep;
}

/** The ring of a rectangle, clockwise from its upper left corner. */
export function rectRing({ x, y, width, height }: Rect): Point[] {
  return [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
}

/** The rectangle as a line that ends where it began. */
export function rectOutline(rect: Rect): Point[] {
  const ring = rectRing(rect);
  return [...ring, ring[0]!];
}

/** Outlines of what is filled or dotted, and lines that are followed. */
export function linesOf(shape: Shape): readonly (readonly Point[])[] {
  if (shape.do === 'dots' || shape.do === 'picture') return [rectRing(shape.box)];
  return shape.do === 'sweep' ? shape.area : shape.lines;
}

/** Whether a shape covers an area, which its lines go round; others are lines themselves. */
export const isArea = ({ do: does }: Shape): boolean => does !== 'follow';

/** Share of energy that a burn lays down over its area, against all of it burned at the settings' power. */
export function coverageOfBurn({ shape, settings }: Pick<Burn, 'shape' | 'settings'>): number {
  if (shape.do === 'picture') return coverageOfPicture(shape, settings);
  return shape.do === 'dots' ? shape.grey : 1;
}

/** How many of a thing fit into a length, one at the least. */
export const countIn = (lengthMm: number, stepMm: number): number => Math.max(1, Math.floor(lengthMm / stepMm + 1e-9));

/** The dots of a shape, a row for each line; lines that run along y have theirs turned with them. */
export function dotsOf(
  { box, grey, screen }: DotsShape,
  { intervalMm, direction }: Pick<BurnSettings, 'intervalMm' | 'direction'>,
): Dots {
  const [along, across] = direction === 'horizontal' ? [box.width, box.height] : [box.height, box.width];
  return evenDots(grey, countIn(along, intervalMm), countIn(across, intervalMm), screen);
}

/** Bounding box of a shape; a box of no size at 0, 0 for one without points. */
export function boxOfShape(shape: Shape): Rect {
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  for (const ring of linesOf(shape)) {
    for (const { x, y } of ring) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  return left > right
    ? { x: 0, y: 0, width: 0, height: 0 }
    : { x: left, y: top, width: right - left, height: bottom - top };
}

/** Everything that is burned of an area, for files: a ring for each run of dots, as high as a line. */
export function regionOf(shape: Shape, settings: Pick<BurnSettings, 'intervalMm' | 'direction'>): Region {
  if (shape.do === 'picture') return ringsOfPicture(shape, settings.direction === 'horizontal');
  if (shape.do !== 'dots') return linesOf(shape);
  const { intervalMm, direction } = settings;
  const dots = dotsOf(shape, settings);
  const { x, y, width, height } = shape.box;
  const lies = direction === 'horizontal';
  const left = x + (width - (lies ? dots.columns : dots.rows) * intervalMm) / 2;
  const top = y + (height - (lies ? dots.rows : dots.columns) * intervalMm) / 2;
  return Array.from({ length: dots.rows }, (_, row) =>
    runsOfRow(dots, row).map(([from, end]) => {
      const [start, length, across] = [from * intervalMm, (end - from) * intervalMm, row * intervalMm];
      return rectRing(
        lies
          ? { x: left + start, y: top + across, width: length, height: intervalMm }
          : { x: left + across, y: top + start, width: intervalMm, height: length },
      );
    }),
  ).flat();
}

/** A ring for each run of places of a picture along its lines, of those that are burned, or of those that a function of it gives a level. */
export function ringsOfPicture(
  shape: PictureShape,
  lies: boolean,
  burned = burnedOf(shape),
  levelOf = (share: number): number => (share > 0 ? 1 : 0),
): Region {
  const { x, y, width, height } = shape.box;
  const { columns, rows } = shape.wanted;
  const [wide, high] = [width / columns, height / rows];
  return Array.from({ length: lies ? rows : columns }, (_, line) =>
    runsOfPicture(shape, burned, lies, line, levelOf).map(({ from, end }) =>
      rectRing(
        lies
          ? { x: x + from * wide, y: y + line * high, width: (end - from) * wide, height: high }
          : { x: x + line * wide, y: y + from * high, width: wide, height: (end - from) * high },
      ),
    ),
  ).flat();
}

const moved = (lines: readonly (readonly Point[])[], dx: number, dy: number): Point[][] =>
  lines.map((line) => line.map(({ x, y }) => ({ x: round(x + dx), y: round(y + dy) })));

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The burn at another place. Coordinates are kept to a tenth of a micrometre. */
export function movedBurn(burn: Burn, dx: number, dy: number): Burn {
  return { ...burn, shape: movedShape(burn.shape, dx, dy) };
}

function movedShape(shape: Shape, dx: number, dy: number): Shape {
  if (shape.do === 'sweep') return { do: 'sweep', area: moved(shape.area, dx, dy) };
  if (shape.do === 'follow') return { do: 'follow', lines: moved(shape.lines, dx, dy) };
  return { ...shape, box: { ...shape.box, x: round(shape.box.x + dx), y: round(shape.box.y + dy) } };
}
