/** One value a pixel, row by row. */
export interface Plane {
  readonly values: Float64Array;
  readonly width: number;
  readonly height: number;
}

/** Further than so many standard deviations the law has nothing left that counts: e to the minus ten. */
const REACH_SIGMAS = 4.5;

/**
 * A plane softened by a normal law of `sigmaPx`, first along rows, then along columns. Beyond its border lies the value of its `edge`, or `nothing`:
 * then what is spread over the border is lost. The plane itself for a sigma of 0.
 *
 * A single 1 in a large plane of 0 keeps its sum of 1, and is 1 / (2 pi sigma²) high.
 */
export function gaussian(plane: Plane, sigmaPx: number, beyond: 'edge' | 'nothing'): Plane {
  if (!(sigmaPx > 0)) return plane;
  const { values, width, height } = plane;
  const reach = Math.ceil(REACH_SIGMAS * sigmaPx);
  const law = Float64Array.from({ length: reach + 1 }, (_, k) => Math.exp(-(k ** 2) / (2 * sigmaPx ** 2)));
  const total = law.reduce((sum, weight) => sum + 2 * weight, -law[0]!);
  const softened = (from: Float64Array, count: number, step: number, lines: number, lineStep: number): Float64Array => {
    const to = new Float64Array(from.length);
    const line = new Float64Array(count + 2 * reach);
    for (let at = 0; at < lines * lineStep; at += lineStep) {
      for (let k = 0; k < count; k++) line[reach + k] = from[at + k * step]!;
      line.fill(beyond === 'edge' ? line[reach]! : 0, 0, reach);
      line.fill(beyond === 'edge' ? line[reach + count - 1]! : 0, reach + count);
      for (let k = 0; k < count; k++) to[at + k * step] = weighted(line, reach + k, law) / total;
    }
    return to;
  };
  return { width, height, values: softened(softened(values, width, 1, height, width), height, width, width, 1) };
}

/** The sum of values about a place, weighed by how far from it they lie to either side. */
function weighted(line: Float64Array, at: number, law: Float64Array): number {
  let sum = law[0]! * line[at]!;
  for (let j = 1; j < law.length; j++) sum += law[j]! * (line[at - j]! + line[at + j]!);
  return sum;
}
