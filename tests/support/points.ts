import type { Point } from '../../src/core/geometry/point';

/** Places told as pairs: points([0, 0], [4, 3]) -> [{ x: 0, y: 0 }, { x: 4, y: 3 }]. */
export const points = <Places extends readonly (readonly [x: number, y: number])[]>(...places: Places) =>
  places.map(([x, y]) => ({ x, y })) as { -readonly [Place in keyof Places]: Point };
