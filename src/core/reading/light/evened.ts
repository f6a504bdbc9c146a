import type { Rectified } from '../rectify';

/** Light by place in card mm: linear red, green and blue. */
export type LightAt = (xMm: number, yMm: number) => readonly [red: number, green: number, blue: number];

/** Pixels of the straightened card over which light is even. */
const BLOCK_PX = 4;

/** A straightened card as if the light that is told of each place fell on it as on its middle. */
export function evened(image: Rectified, light: LightAt): Rectified {
  const { width, height, pxPerMm } = image;
  const data = image.data.slice();
  const middle = light(width / 2 / pxPerMm, height / 2 / pxPerMm);
  for (let top = 0; top < height; top += BLOCK_PX)
    for (let left = 0; left < width; left += BLOCK_PX) {
      const here = light((left + BLOCK_PX / 2) / pxPerMm, (top + BLOCK_PX / 2) / pxPerMm);
      for (let y = top; y < Math.min(height, top + BLOCK_PX); y++)
        for (let x = left; x < Math.min(width, left + BLOCK_PX); x++)
          for (const channel of [0, 1, 2] as const)
            data[(y * width + x) * 3 + channel]! *= middle[channel] / here[channel];
    }
  return { ...image, data };
}
