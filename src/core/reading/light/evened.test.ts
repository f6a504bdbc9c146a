import { describe, expect, it } from 'vitest';
import { evened } from './evened';

const [width, height, pxPerMm] = [40, 24, 4];

describe('a card evened by the light that is told of it', () => {
  it('shows every place as if the light of its middle fell on it, channel by channel', () => {
    const light = (x: number, y: number) => [1 - 0.05 * x, 0.8, 0.5 + 0.02 * y] as const;
    const data = new Float32Array(width * height * 3);
    for (let row = 0; row < height; row++)
      for (let column = 0; column < width; column++)
        // Alike within blocks of four pixels, as it is told there.
        data.set(
          light((Math.floor(column / 4) * 4 + 2) / pxPerMm, (Math.floor(row / 4) * 4 + 2) / pxPerMm),
          (row * width + column) * 3,
        );
    const image = { data, width, height, pxPerMm, clipped: new Uint8Array(width * height) };
    const flat = evened(image, light);
    const middle = light(5, 3);
    for (let pixel = 0; pixel < width * height; pixel++)
      for (const channel of [0, 1, 2] as const) expect(flat.data[pixel * 3 + channel]).toBeCloseTo(middle[channel], 5);
    expect(image.data[0]).toBeCloseTo(light(0.5, 0.5)[0], 6);
  });
});
