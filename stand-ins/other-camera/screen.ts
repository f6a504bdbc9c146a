import type { Face } from './face';

/** A picture of a card on a screen: each of its pixels a red, a green and a blue stripe side by side, with dark between the rows. */
export function onScreen(face: Face, pitchMm: number): Face {
  const data = Float32Array.from(face.data);
  for (let row = 0; row < face.height; row++)
    for (let column = 0; column < face.width; column++) {
      const phase = ((column + 0.5) / face.pxPerMm / pitchMm) % 1;
      const lit = ((row + 0.5) / face.pxPerMm / pitchMm) % 1 < 0.88 ? 1 : 0.1;
      for (const channel of [0, 1, 2] as const) {
        const own = phase * 3 >= channel && phase * 3 < channel + 1;
        data[(row * face.width + column) * 3 + channel]! *= lit * (own ? 2.6 : 0.1);
      }
    }
  return { ...face, data };
}
