import seedrandom from 'seedrandom';

/** Standard normal deviates from a seed. */
export function normals(seed: string): () => number {
  const random = seedrandom(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

const DEVIATES = 65_521;

/** The same over and over from a table, in steps that take it in another order each time round: for the noise of millions of pixels. */
export function manyNormals(seed: string): () => number {
  const table = Float32Array.from({ length: DEVIATES }, normals(seed));
  let at = 0;
  let step = 7919;
  return () => {
    at += step;
    if (at >= DEVIATES) {
      at -= DEVIATES;
      if (at === 0) step = (step * 3) % DEVIATES;
    }
    return table[at]!;
  };
}

/** A smooth random field over a plane with standard deviation near 1: `pitchX` and `pitchY` are the size of its features. */
export function field(seed: string, pitchX: number, pitchY: number): (x: number, y: number) => number {
  const next = normals(seed);
  const SIDE = 64;
  const lattice = Float32Array.from({ length: SIDE * SIDE }, next);
  return (x, y) => {
    const u = x / pitchX;
    const v = y / pitchY;
    const column = Math.floor(u);
    const row = Math.floor(v);
    const du = u - column;
    const dv = v - row;
    const fx = du * du * (3 - 2 * du);
    const fy = dv * dv * (3 - 2 * dv);
    // The lattice repeats itself.
    const left = column & (SIDE - 1);
    const right = (left + 1) & (SIDE - 1);
    const above = (row & (SIDE - 1)) * SIDE;
    const below = (above + SIDE) & (SIDE * SIDE - 1);
    const top = lattice[above + left]! * (1 - fx) + lattice[above + right]! * fx;
    const low = lattice[below + left]! * (1 - fx) + lattice[below + right]! * fx;
    // Between the lattice's points deviates are means of four: made as wide again on the whole.
    return 1.4 * (top * (1 - fy) + low * fy);
  };
}
