import seedrandom from 'seedrandom';

/** Standard normal deviates from a seed. */
export function normals(seed: string): () => number {
  const random = seedrandom(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** A smooth random field over a plane with standard deviation near 1: `pitchX` and `pitchY` are the size of its features. */
export function field(seed: string, pitchX: number, pitchY: number): (x: number, y: number) => number {
  const next = normals(seed);
  const SIDE = 64;
  const lattice = Float32Array.from({ length: SIDE * SIDE }, next);
  const at = (column: number, row: number): number => lattice[(row & (SIDE - 1)) * SIDE + (column & (SIDE - 1))]!;
  const eased = (share: number): number => share * share * (3 - 2 * share);
  return (x, y) => {
    const [u, v] = [x / pitchX, y / pitchY];
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [eased(u - column), eased(v - row)];
    const top = at(column, row) * (1 - fx) + at(column + 1, row) * fx;
    const low = at(column, row + 1) * (1 - fx) + at(column + 1, row + 1) * fx;
    // Between the lattice's points deviates are means of four: made as wide again on the whole.
    return 1.4 * (top * (1 - fy) + low * fy);
  };
}
