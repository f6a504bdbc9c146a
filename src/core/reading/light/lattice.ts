import type { Layout } from '../../card/layout';

type Extent = Pick<Layout, 'widthMm' | 'heightMm'>;

/** Places at even distances over a card and its edge, for what is too slow to be worked out at each pixel. */
export class Lattice {
  private readonly columns: number;
  private readonly rows: number;

  constructor(
    { widthMm, heightMm }: Extent,
    private readonly stepMm: number,
  ) {
    this.columns = Math.ceil(widthMm / stepMm) + 2;
    this.rows = Math.ceil(heightMm / stepMm) + 2;
  }

  /** What is found at each place, row by row. */
  map<Value>(of: (xMm: number, yMm: number) => Value): Value[] {
    return Array.from({ length: this.columns * this.rows }, (_, k) =>
      of((k % this.columns) * this.stepMm, Math.floor(k / this.columns) * this.stepMm),
    );
  }

  /** A value between those of the four places around, as `map` lists them: straight between them, and beyond the last ones as they have it. */
  between(values: ArrayLike<number>, xMm: number, yMm: number): number {
    const u = Math.max(0, Math.min(this.columns - 1.001, xMm / this.stepMm));
    const v = Math.max(0, Math.min(this.rows - 1.001, yMm / this.stepMm));
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [u - column, v - row];
    const top = row * this.columns + column;
    const low = top + this.columns;
    return (
      (values[top]! * (1 - fx) + values[top + 1]! * fx) * (1 - fy) +
      (values[low]! * (1 - fx) + values[low + 1]! * fx) * fy
    );
  }
}
