/** Sum of the products of two lists of one length, place by place. [1, 2] and [3, 4]: 11. */
export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
}
