import seedrandom from 'seedrandom';

/** Uniform 0..1 numbers from a seed, the same on every machine. */
export type Random = () => number;

export function randomFrom(seed: string): Random {
  return seedrandom.alea(seed);
}

const TABLE_SIZE = 1 << 16;

/** A table of standard normal numbers and a cheap walk through it, for noise on millions of pixels. */
export class NoiseTable {
  private readonly table = new Float32Array(TABLE_SIZE);
  private state: number;

  constructor(random: Random) {
    for (let index = 0; index < TABLE_SIZE; index += 2) {
      const radius = Math.sqrt(-2 * Math.log(1 - random()));
      const angle = 2 * Math.PI * random();
      this.table[index] = radius * Math.cos(angle);
      this.table[index + 1] = radius * Math.sin(angle);
    }
    this.state = Math.floor(random() * 0xffffffff) | 1;
  }

  /** As many numbers as there is room for: going on where the last ones ended. */
  fill(room: Float32Array): void {
    const { table } = this;
    // Xorshift: the table alone would repeat visibly across a photo's lines.
    let x = this.state;
    for (let index = 0; index < room.length; index++) {
      x ^= x << 13;
      x ^= x >>> 17;
      x ^= x << 5;
      room[index] = table[x & (TABLE_SIZE - 1)]!;
    }
    this.state = x;
  }
}

/** Smooth noise in -1..1 on a unit lattice, bilinear with smoothed steps; wraps after 256 cells. */
export class LatticeNoise {
  private readonly lattice = new Float32Array(256 * 256);

  constructor(random: Random) {
    for (let index = 0; index < this.lattice.length; index++) this.lattice[index] = random() * 2 - 1;
  }

  at(x: number, y: number): number {
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    const fx = x - x0;
    const fy = y - y0;
    const sx = fx * fx * (3 - 2 * fx);
    const sy = fy * fy * (3 - 2 * fy);
    const row0 = (y0 & 255) << 8;
    const row1 = ((y0 + 1) & 255) << 8;
    const left = x0 & 255;
    const right = (x0 + 1) & 255;
    const top = this.lattice[row0 | left]! * (1 - sx) + this.lattice[row0 | right]! * sx;
    const bottom = this.lattice[row1 | left]! * (1 - sx) + this.lattice[row1 | right]! * sx;
    return top * (1 - sy) + bottom * sy;
  }

  /** Adds `scale` times its values at (xs, y) to a row: the same as by `at`, and several times quicker. */
  addRow(row: Float64Array, scale: number, xs: Float64Array, y: number): void {
    const { lattice } = this;
    const y0 = Math.floor(y);
    const fy = y - y0;
    const sy = fy * fy * (3 - 2 * fy);
    const row0 = (y0 & 255) << 8;
    const row1 = ((y0 + 1) & 255) << 8;
    for (let index = 0; index < row.length; index++) {
      const x = xs[index]!;
      const x0 = Math.floor(x);
      const fx = x - x0;
      const sx = fx * fx * (3 - 2 * fx);
      const left = x0 & 255;
      const right = (x0 + 1) & 255;
      const top = lattice[row0 | left]! * (1 - sx) + lattice[row0 | right]! * sx;
      const bottom = lattice[row1 | left]! * (1 - sx) + lattice[row1 | right]! * sx;
      row[index]! += scale * (top * (1 - sy) + bottom * sy);
    }
  }
}
