export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Whether two rectangles share more than an edge. */
export function rectsOverlap(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** The rectangle grown by `by` on every side (shrunk when negative). */
export function grown(rect: Rect, by: number): Rect {
  return { x: rect.x - by, y: rect.y - by, width: rect.width + 2 * by, height: rect.height + 2 * by };
}

/** Whether a point lies in a rectangle or on its edge. */
export function within({ x, y, width, height }: Rect, point: Point): boolean {
  return point.x >= x && point.x <= x + width && point.y >= y && point.y <= y + height;
}
