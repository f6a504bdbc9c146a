import type { Point, Rect } from '../geometry/point';

/** Outlines of a sheet or blank inside its width and depth. All of them are convex. */
export const OUTLINES = {
  rectangle: 'rectangle',
  rounded: 'rectangle with round corners',
  ellipse: 'round or oval',
  hexagon: 'hexagon, points left and right',
} as const;

export interface Outline {
  readonly shape: keyof typeof OUTLINES;
  /** Of the corners of `rounded`; 0 for the others. */
  readonly radiusMm: number;
}

export const RECTANGLE: Outline = { shape: 'rectangle', radiusMm: 0 };

interface Piece {
  readonly sheetWidthMm: number;
  readonly sheetDepthMm: number;
  readonly outline: Outline;
}

const SLACK = 1e-9;

/** Whether a point lies on a piece of stock, in millimetres from its upper left corner. */
function holdsPoint({ sheetWidthMm: w, sheetDepthMm: h, outline }: Piece, { x, y }: Point): boolean {
  if (x < -SLACK || y < -SLACK || x > w + SLACK || y > h + SLACK) return false;
  const [dx, dy] = [Math.abs(x - w / 2), Math.abs(y - h / 2)];
  if (outline.shape === 'ellipse') return (dx / (w / 2)) ** 2 + (dy / (h / 2)) ** 2 <= 1 + SLACK;
  if (outline.shape === 'hexagon') return dx <= w / 2 - (dy / (h / 2)) * (w / 4) + SLACK;
  if (outline.shape === 'rounded') {
    const radius = Math.min(outline.radiusMm, w / 2, h / 2);
    const [cx, cy] = [dx - (w / 2 - radius), dy - (h / 2 - radius)];
    return cx <= 0 || cy <= 0 || Math.hypot(cx, cy) <= radius + SLACK;
  }
  return true;
}

/**
 * Whether a rectangle lies on a piece of stock with all its corners, which for a convex outline is all of it.
 *
 * On a round blank of 100 mm a square of 70 mm in its middle does, one of 71 mm does not: 100 / sqrt(2) = 70.7.
 */
export function pieceHolds(piece: Piece, { x, y, width, height }: Rect): boolean {
  return [
    { x, y },
    { x: x + width, y },
    { x, y: y + height },
    { x: x + width, y: y + height },
  ].every((corner) => holdsPoint(piece, corner));
}

/** A piece's outline as path data, in millimetres from its upper left corner. */
export function outlinePath({ sheetWidthMm: w, sheetDepthMm: h, outline }: Piece): string {
  if (outline.shape === 'ellipse') return `M0 ${h / 2}a${w / 2} ${h / 2} 0 1 1 ${w} 0a${w / 2} ${h / 2} 0 1 1 ${-w} 0z`;
  if (outline.shape === 'hexagon')
    return `M0 ${h / 2}L${w / 4} 0L${(3 * w) / 4} 0L${w} ${h / 2}L${(3 * w) / 4} ${h}L${w / 4} ${h}z`;
  const r = outline.shape === 'rounded' ? Math.min(outline.radiusMm, w / 2, h / 2) : 0;
  if (r === 0) return `M0 0H${w}V${h}H0z`;
  return `M${r} 0H${w - r}a${r} ${r} 0 0 1 ${r} ${r}V${h - r}a${r} ${r} 0 0 1 ${-r} ${r}H${r}a${r} ${r} 0 0 1 ${-r} ${-r}V${r}a${r} ${r} 0 0 1 ${r} ${-r}z`;
}
