import { describe, expect, it } from 'vitest';
import { randomFrom } from './random';
import { SPECIMENS } from './specimens';
import { groundOf } from './texture';

const { softwood } = SPECIMENS;
const size = { widthMm: 40, heightMm: 40, thicknessMm: 3 };
const xs = Float64Array.from({ length: 160 }, (_, x) => (x + 0.5) / 4);

/** Relief of a sheet at a grid of places, row by row. */
function reliefOf(alongX: boolean, knots = 0): Float64Array[] {
  const relieve = groundOf(size, { ...softwood!.texture, knots, fine: 0 }, alongX, randomFrom('ground')).reliefAt(xs);
  return Array.from(xs, (y) => {
    const row = new Float64Array(xs.length);
    relieve(y, row);
    return row;
  });
}

/** Root mean square of the steps from each place to the next along rows, and along columns. */
function roughness(rows: readonly Float64Array[]): { alongRows: number; alongColumns: number } {
  let [across, down] = [0, 0];
  for (let y = 1; y < rows.length; y++)
    for (let x = 1; x < rows.length; x++) {
      across += (rows[y]![x]! - rows[y]![x - 1]!) ** 2;
      down += (rows[y]![x]! - rows[y - 1]![x]!) ** 2;
    }
  return { alongRows: Math.sqrt(across), alongColumns: Math.sqrt(down) };
}

describe('the texture of a sheet', () => {
  it('has its streaks along the grain, whichever way that runs', () => {
    const lies = roughness(reliefOf(true));
    const stands = roughness(reliefOf(false));
    expect(lies.alongColumns).toBeGreaterThan(3 * lies.alongRows);
    expect(stands.alongRows).toBeGreaterThan(3 * stands.alongColumns);
  });
  it.each([true, false])('is the same at a place however many are asked for with it (along x: %s)', (alongX) => {
    const ground = groundOf(size, softwood!.texture, alongX, randomFrom('ground'));
    const row = new Float64Array(xs.length);
    ground.reliefAt(xs)(7.3, row);
    const one = new Float64Array(1);
    for (const index of [0, 57, 159]) {
      ground.reliefAt(xs.subarray(index, index + 1))(7.3, one);
      expect(one[0]).toBe(row[index]);
    }
  });
  it('is dark at a knot, and only there', () => {
    const [plain, knotted] = [reliefOf(true), reliefOf(true, 1)].map((rows) => rows.map((row) => Math.min(...row)));
    expect(Math.min(...knotted!)).toBeLessThan(Math.min(...plain!) - 0.1);
    // The random numbers of the streaks come before those of the knot: rows far from it are the same.
    expect(knotted!.filter((least, y) => least === plain![y]).length).toBeGreaterThan(80);
  });
});
