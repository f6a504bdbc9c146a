import type { Cell } from '../../card/layout';
import { fillRegion } from '../../card/path';
import type { Rect } from '../../geometry/point';
import { blurBetween } from './blur';
import { hasOneLine, type FinePhoto } from './lines-of-cell';
import { LEAST_PX_PER_MM_FOR_PLACE, lineIn, type LineSeen } from './single-line';

/** Two bars beside each other, one burned on the way there alone and one on the way back alone, each beside where it was asked for. */
export interface BarsSeen {
  readonly there: LineSeen;
  readonly back: LineSeen;
}

/** Where the two bars of a cell were drawn, without any scan offset. */
export interface Bars {
  readonly there: Rect;
  readonly back: Rect;
}

/** Bare stock that lies on both sides of a bar at the least, as a share of its own width. */
const BARE_BESIDE = 1;
/**
 * Photo pixels across a bar from which its width is told. A camera that blurs by a pixel, as a standard deviation, moves half of the height of its
 * edges by less than a thousandth of its width; one that blurs by more makes all bars of a card longer alike.
 */
const LEAST_BAR_PX = 6;
/** Ends of a bar are left out: there a line of one way may be missing. */
const END_SHARE = 0.1;

const joined = (a: Rect | null, b: Rect): Rect => {
  if (!a) return b;
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
};

/**
 * The bars of a cell that is burned by a single fill both ways, whose lines of either way all lie in a narrow bar of their own; null for every other
 * cell. Told by the lines that the head draws, so that what is measured is what was burned.
 */
export function barsOf({ burns: [burn, ...others] }: Pick<Cell, 'burns'>): Bars | null {
  if (!burn || others.length > 0 || burn.shape.do !== 'sweep' || !burn.settings.bothWays) return null;
  // One outline is one area for both ways.
  if (burn.shape.area.length < 2) return null;
  const settings = { ...burn.settings, passes: 1, scanOffsetMm: 0, lengthenMm: 0 };
  if (settings.crossHatch || settings.lineAngleDeg !== 0) return null;
  const lies = settings.direction === 'horizontal';
  let there: Rect | null = null;
  let back: Rect | null = null;
  for (const { from, to } of fillRegion(burn.shape.area, settings, 0)) {
    const line = {
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.abs(to.x - from.x),
      height: Math.abs(to.y - from.y),
    };
    if (lies ? to.x > from.x : to.y > from.y) there = joined(there, line);
    else back = joined(back, line);
  }
  if (!there || !back) return null;
  const [start, length] = lies ? (['x', 'width'] as const) : (['y', 'height'] as const);
  const between =
    Math.max(there[start], back[start]) - Math.min(there[start] + there[length], back[start] + back[length]);
  return between >= BARE_BESIDE * Math.max(there[length], back[length]) ? { there, back } : null;
}

/** Whether a cell is burned as lines or bars with bare stock around them: how light all of it is together says nothing. */
export const isToneless = (cell: Pick<Cell, 'burns'>): boolean => hasOneLine(cell) || barsOf(cell) !== null;

/** The bars of a cell as a photo shows them; null for other cells, and where the photo does not tell both. What crosses them is not looked at. */
export function barsOfCell({ fine }: Pick<FinePhoto, 'fine'>, cell: Cell): BarsSeen | null {
  if (fine.pxPerMm < LEAST_PX_PER_MM_FOR_PLACE) return null;
  const bars = barsOf(cell);
  if (!bars) return null;
  const lies = cell.burns[0]!.settings.direction === 'horizontal';
  const run = lies ? 'vertical' : 'horizontal';
  const seen = ([bars.there, bars.back] as const).map((bar) => {
    const band = bandOf(bar, bars, cell.box, lies);
    const along = lies ? bar.width : bar.height;
    const line = lineIn(fine, band, {
      run,
      blur: blurBetween(0, along / LEAST_BAR_PX),
      widthFrom: LEAST_BAR_PX / along,
    });
    // Its profile says nothing that is asked.
    return line && { ...line, profile: null };
  });
  const [there, back] = seen;
  return there && back ? { there, back } : null;
}

/** What is looked at of one bar: half of the way to the other one on both sides of its middle, within the cell. */
function bandOf(bar: Rect, { there, back }: Bars, box: Rect, lies: boolean): Rect {
  const middle = (of: Rect): number => (lies ? of.x + of.width / 2 : of.y + of.height / 2);
  const [start, end] = lies ? [box.x, box.x + box.width] : [box.y, box.y + box.height];
  const reach = Math.min(Math.abs(middle(there) - middle(back)) / 2, middle(bar) - start, end - middle(bar));
  const kept = 1 - 2 * END_SHARE;
  return lies
    ? { x: middle(bar) - reach, width: 2 * reach, y: bar.y + END_SHARE * bar.height, height: kept * bar.height }
    : { y: middle(bar) - reach, height: 2 * reach, x: bar.x + END_SHARE * bar.width, width: kept * bar.width };
}
