import type { Layout } from '../../card/layout';
import { fitHomography, project, type Homography } from '../../geometry/homography';
import type { Point, Rect } from '../../geometry/point';
import { grayBetween } from '../../image/gray-between';
import { grayOfRgb } from '../../image/gray';
import type { GrayImage, RgbImage } from '../../image/raster';
import type { SheetPlace } from './locate-sheet';
import { rectRing } from '../../card/shape';
import { directionsIn } from './directions';
import { SummedArea } from './summed-area';
import { turnTold } from './turn';

/** Resolution that a piece is looked for with. */
const PX_PER_MM = 5;
/** How far apart places are tried, then how finely, in mm. */
const STEP_MM = 0.6;
const FINE_MM = [0.2, 0.08] as const;
const FINE_DEGREES = [0.8, 0.25] as const;
/** Bare stock beside a cell is looked at from here to here, in mm beyond its edge: half of the usual gap. */
const RING_MM = { from: 0.15, to: 0.5 };
/** Part of a cell about its middle that is looked at. */
const INNER = 0.7;
/** A place is one where cells differ from what is around them by so many grays on the average. */
const LEAST_CONTRAST = 4;
/** Another turn that looks this well is as likely until something else tells. */
const AS_LIKELY = 0.8;

/** A way the card may lie: its origin on the picture of the window, in mm, and its turn in degrees. */
interface Pose {
  readonly x: number;
  readonly y: number;
  readonly degrees: number;
}

interface Tried extends Pose {
  /** Mean difference of cells and what is around them, in grays: of the one sense that more of them have. */
  readonly contrast: number;
}

/**
 * Finds a card without markers that lies in a frame sheet's window, however it was laid down: the straight edges in the window tell its turn to a
 * quarter, and cells that differ from what is around them its place. Which quarter, its lettering and its stronger cells tell. To about half a
 * millimetre: its cells are fitted from there. Null where nothing looks like the card, or its turn stays open.
 */
export function placeOnSheet(photo: RgbImage, layout: Layout, { sheet, toPhoto }: SheetPlace): Homography | null {
  if (burnedCells(layout).length === 0) return null;
  const window = windowOf(grayOfRgb(photo), sheet.window, toPhoto);
  const tried = directionsIn(window).flatMap((degrees) =>
    [0, 90, 180, 270].flatMap((quarter) => bestPlace(window, layout, degrees + quarter) ?? []),
  );
  const best = Math.max(...tried.map(({ contrast }) => contrast));
  if (!(best >= LEAST_CONTRAST)) return null;
  const likely = tried
    .filter(({ contrast }) => contrast >= AS_LIKELY * best)
    .map((pose) =>
      FINE_MM.reduce<Tried>((now, step, turn) => finer(window, layout, now, step, FINE_DEGREES[turn]!), pose),
    );
  const pose = turnTold(likely, (one) => ({ layout, grayAt: (x, y) => grayAt(window, onWindow(one, x, y)) }));
  if (!pose) return null;
  const card = rectRing({ x: 0, y: 0, width: layout.widthMm, height: layout.heightMm });
  const there = card.map(({ x, y }) => {
    const at = onWindow(pose, x, y);
    return project(toPhoto, sheet.window.x + at.x, sheet.window.y + at.y);
  });
  return fitHomography(card, there).homography;
}

/** Where a place of the card lies on the window, in mm. */
function onWindow({ x, y, degrees }: Pose, cardX: number, cardY: number): Point {
  const radians = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return { x: x + c * cardX - s * cardY, y: y + s * cardX + c * cardY };
}

/** The window as seen straight on. */
function windowOf(gray: GrayImage, { x, y, width, height }: Rect, toPhoto: Homography): GrayImage {
  const [columns, rows] = [Math.round(width * PX_PER_MM), Math.round(height * PX_PER_MM)];
  const data = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const at = project(toPhoto, x + (column + 0.5) / PX_PER_MM, y + (row + 0.5) / PX_PER_MM);
      // Nothing beside the photo, which is no number there.
      data[row * columns + column] = Math.round(grayBetween(gray, at.x, at.y));
    }
  return { data, width: columns, height: rows };
}

/** Gray at a place of the window in mm; NaN beside it. */
function grayAt({ data, width, height }: GrayImage, { x, y }: Point): number {
  const [column, row] = [Math.floor(x * PX_PER_MM), Math.floor(y * PX_PER_MM)];
  return column >= 0 && row >= 0 && column < width && row < height ? data[row * width + column]! : NaN;
}

/** The window turned about its middle, so that a card of that turn lies upright on it. Beside the window it goes on as at its nearest edge. */
function turned(window: GrayImage, degrees: number): { image: GrayImage; pose: (x: number, y: number) => Pose } {
  const radians = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  const width = Math.ceil(Math.abs(c) * window.width + Math.abs(s) * window.height);
  const height = Math.ceil(Math.abs(s) * window.width + Math.abs(c) * window.height);
  const data = new Uint8Array(width * height);
  const [midU, midV] = [window.width / 2, window.height / 2];
  const place = (column: number, row: number): Point => {
    const [dx, dy] = [column - width / 2, row - height / 2];
    return { x: midU + c * dx - s * dy, y: midV + s * dx + c * dy };
  };
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const at = place(column + 0.5, row + 0.5);
      const u = Math.max(0, Math.min(window.width - 1, Math.floor(at.x)));
      const v = Math.max(0, Math.min(window.height - 1, Math.floor(at.y)));
      data[row * width + column] = window.data[v * window.width + u]!;
    }
  return {
    image: { data, width, height },
    pose: (x, y) => {
      const at = place(x * PX_PER_MM, y * PX_PER_MM);
      return { x: at.x / PX_PER_MM, y: at.y / PX_PER_MM, degrees };
    },
  };
}

const burnedCells = ({ cells }: Layout): Rect[] => cells.filter(({ leftOut }) => !leftOut).map(({ box }) => box);

/** The place on the window where cells of a card of that turn stand out most. */
function bestPlace(window: GrayImage, layout: Layout, degrees: number): Tried | null {
  const { image, pose } = turned(window, degrees);
  const sums = new SummedArea(image, { pxPerMm: PX_PER_MM, part: INNER, ring: RING_MM });
  const [widthMm, heightMm] = [image.width / PX_PER_MM, image.height / PX_PER_MM];
  const cells = burnedCells(layout);
  // The cells must lie on the window; the bare rim around them need not.
  const { inner } = layout;
  let best: Tried | null = null;
  for (let y = -inner.y; y <= heightMm - inner.y - inner.height; y += STEP_MM)
    for (let x = -inner.x; x <= widthMm - inner.x - inner.width; x += STEP_MM) {
      let sum = 0;
      for (const cell of cells) sum += sums.insideLessAround(cell, x, y);
      const contrast = Math.abs(sum) / cells.length;
      if (!best || contrast > best.contrast) best = { ...pose(x, y), contrast };
    }
  return best;
}

/** The best of the poses around one, each a step aside or a little further turned. */
function finer(window: GrayImage, layout: Layout, from: Tried, stepMm: number, stepDegrees: number): Tried {
  const cells = burnedCells(layout);
  const middle = { x: layout.widthMm / 2, y: layout.heightMm / 2 };
  const kept = onWindow(from, middle.x, middle.y);
  let best = { ...from, contrast: -Infinity };
  for (let turn = -2; turn <= 2; turn++)
    for (let v = -3; v <= 3; v++)
      for (let u = -3; u <= 3; u++) {
        const degrees = from.degrees + turn * stepDegrees;
        // Turned about its middle, so that a turn is not a move as well.
        const moved = onWindow({ x: 0, y: 0, degrees }, middle.x, middle.y);
        const pose = { x: kept.x - moved.x + u * stepMm, y: kept.y - moved.y + v * stepMm, degrees };
        const contrast = contrastAt(window, cells, pose);
        if (contrast > best.contrast) best = { ...pose, contrast };
      }
  return best;
}

const LOOKS = [-0.7, 0, 0.7] as const;

function contrastAt(window: GrayImage, cells: readonly Rect[], pose: Pose): number {
  let sum = 0;
  let count = 0;
  const look = (x: number, y: number): number => grayAt(window, onWindow(pose, x, y));
  for (const { x, y, width, height } of cells) {
    const [midX, midY] = [x + width / 2, y + height / 2];
    const beside = (RING_MM.from + RING_MM.to) / 2;
    let [inside, around] = [0, 0];
    for (const v of LOOKS) {
      for (const u of LOOKS) inside += look(midX + (u * width * INNER) / 2, midY + (v * height * INNER) / 2) / 9;
      around +=
        (look(x - beside, midY + (v * height) / 2) +
          look(x + width + beside, midY + (v * height) / 2) +
          look(midX + (v * width) / 2, y - beside) +
          look(midX + (v * width) / 2, y + height + beside)) /
        12;
    }
    if (!Number.isFinite(inside - around)) continue;
    sum += inside - around;
    count++;
  }
  return count > 0 ? Math.abs(sum) / cells.length : -Infinity;
}
