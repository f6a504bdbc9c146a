/** A grid of single values. */
export interface Plane {
  readonly data: Float32Array;
  readonly width: number;
  readonly height: number;
}

/**
 * A haze around strong burns, about a millimetre wide: the share of light it takes, on a coarse grid of `blockMm`. `load` is how strongly
 * each block burned, 1 where it begins to be spoiled.
 */
export function hazeOf(load: Plane, amount: number): Plane {
  let { data } = load;
  for (let turn = 0; turn < 3; turn++) data = boxBlur(data, load.width, load.height);
  return { ...load, data: data.map((value) => 0.12 * amount * value) };
}

/** The values of a plane along a row, at places in its own cells, between its centres; held at its edges. */
export function valuesAt({ data, width, height }: Plane, xs: Float64Array, y: number, values: Float64Array): void {
  const v = Math.min(height - 1.001, Math.max(0, y - 0.5));
  const v0 = Math.floor(v);
  const above = v0 * width;
  const below = Math.min(height - 1, v0 + 1) * width;
  const fv = v - v0;
  for (let index = 0; index < xs.length; index++) {
    const u = Math.min(width - 1.001, Math.max(0, xs[index]! - 0.5));
    const u0 = Math.floor(u);
    const right = Math.min(width - 1, u0 + 1);
    const fu = u - u0;
    const top = data[above + u0]! * (1 - fu) + data[above + right]! * fu;
    const bottom = data[below + u0]! * (1 - fu) + data[below + right]! * fu;
    values[index] = top * (1 - fv) + bottom * fv;
  }
}

function boxBlur(source: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(source.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      let count = 0;
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          sum += source[v * width + u]!;
          count++;
        }
      }
      out[y * width + x] = sum / count;
    }
  }
  return out;
}
