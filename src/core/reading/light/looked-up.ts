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
    const column = Math.floor(u);
    const row = Math.floor(v);
    const fx = u - column;
    const fy = v - row;
    const top = (row * columns + column) * 3;
    const low = top + columns * 3;
    const a = (1 - fx) * (1 - fy);
    const b = fx * (1 - fy);
    const c = (1 - fx) * fy;
    const d = fx * fy;
    // Asked for so often that a function for each channel left 53 MB of garbage a photo; three sums written out leave 14.
    return [
      a * lattice[top]! + b * lattice[top + 3]! + c * lattice[low]! + d * lattice[low + 3]!,
      a * lattice[top + 1]! + b * lattice[top + 4]! + c * lattice[low + 1]! + d * lattice[low + 4]!,
      a * lattice[top + 2]! + b * lattice[top + 5]! + c * lattice[low + 2]! + d * lattice[low + 5]!,
    ];
  };
}
