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
  const law = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-((k - reach) ** 2) / (2 * sigmaPx ** 2)),
  );
  const total = law.reduce((sum, weight) => sum + weight, 0);
  const along = (from: Float64Array, count: number, step: number, lines: number, lineStep: number): Float64Array => {
    const to = new Float64Array(from.length);
    for (let line = 0; line < lines; line++)
      for (let k = 0; k < count; k++) {
        let sum = 0;
        for (let j = -reach; j <= reach; j++) {
          const at = k + j;
          if (at >= 0 && at < count) sum += law[j + reach]! * from[line * lineStep + at * step]!;
          else if (beyond === 'edge') sum += law[j + reach]! * from[line * lineStep + (at < 0 ? 0 : count - 1) * step]!;
        }
        to[line * lineStep + k * step] = sum / total;
      }
    return to;
  };
  return { width, height, values: along(along(values, width, 1, height, width), height, width, width, 1) };
}
