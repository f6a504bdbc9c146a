import type { Layout } from '../../card/layout';

/** How far apart light is worked out; between, it is straight. */
const LATTICE_MM = 0.3;

export type Light = (x: number, y: number) => readonly [red: number, green: number, blue: number];

/** The same light, worked out on a lattice over the card and its edge, and looked up between: it is asked for at each pixel. */
export function lookedUp({ widthMm, heightMm }: Pick<Layout, 'widthMm' | 'heightMm'>, light: Light): Light {
  const columns = Math.ceil(widthMm / LATTICE_MM) + 2;
  const rows = Math.ceil(heightMm / LATTICE_MM) + 2;
  const lattice = new Float64Array(columns * rows * 3);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      lattice.set(light(column * LATTICE_MM, row * LATTICE_MM), (row * columns + column) * 3);
  return (x, y) => {
    const u = Math.max(0, Math.min(columns - 1.001, x / LATTICE_MM));
    const v = Math.max(0, Math.min(rows - 1.001, y / LATTICE_MM));
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [u - column, v - row];
    const top = (row * columns + column) * 3;
    const low = top + columns * 3;
    const [a, b, c, d] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
    const channel = (k: number): number =>
      a * lattice[top + k]! + b * lattice[top + 3 + k]! + c * lattice[low + k]! + d * lattice[low + 3 + k]!;
    return [channel(0), channel(1), channel(2)];
  };
}
