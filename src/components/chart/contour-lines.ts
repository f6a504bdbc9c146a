import { contours } from 'd3-contour';

/** Values on a lattice, row by row from the top, from edge to edge. */
export interface Lattice {
  readonly columns: number;
  readonly rows: number;
  readonly values: readonly number[];
}

/** A ring or line as points, each as shares of the map's width and height from its upper left. */
export type Outline = readonly (readonly [x: number, y: number])[];

/** Where values are at least so much, as rings around it; rings within are holes. Source: marching squares, d3-contour. */
export function areasAbove({ columns, rows, values }: Lattice, least: number): Outline[] {
  const [found] = contours().size([columns, rows]).thresholds([least])([...values]);
  // The lattice's values lie in the middle of the library's squares; the outermost half a square is cut off.
  const share = (at: number, count: number): number => Math.min(1, Math.max(0, (at - 0.5) / (count - 1)));
  return (found?.coordinates ?? []).flatMap((polygon) =>
    polygon.map((ring) => ring.map(([x, y]) => [share(x!, columns), share(y!, rows)] as const)),
  );
}

/** Along the map's own edge no line runs: an area only ends there. */
const onEdge = ([ax, ay]: Outline[number], [bx, by]: Outline[number]): boolean =>
  (ax === bx && (ax === 0 || ax === 1)) || (ay === by && (ay === 0 || ay === 1));

/** Lines along which values are so much. */
export function linesAt(lattice: Lattice, value: number): Outline[] {
  return areasAbove(lattice, value).flatMap((ring) => {
    const lines: [number, number][][] = [[]];
    ring.forEach(([x, y], at) => {
      const before = ring[at - 1];
      if (before && onEdge(before, [x, y])) lines.push([]);
      lines.at(-1)!.push([x, y]);
    });
    return lines.filter((line) => line.length > 1);
  });
}

/** Outlines as path data on a map of so many units. */
export const pathOf = (outlines: readonly Outline[], width: number, height: number, closed: boolean): string =>
  outlines
    .map(
      (line) =>
        `M${line.map(([x, y]) => `${(x * width).toFixed(1)} ${(y * height).toFixed(1)}`).join('L')}${closed ? 'Z' : ''}`,
    )
    .join('');
