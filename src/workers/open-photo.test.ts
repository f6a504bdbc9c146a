import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { openPhoto, previewOf } from './open-photo';

/** Left half dark, right half light, 40 x 20. */
const halves = (): Promise<Buffer> => {
  const data = Buffer.alloc(40 * 20 * 3);
  for (let y = 0; y < 20; y++)
    for (let x = 0; x < 40; x++) data.fill(x < 20 ? 40 : 200, (y * 40 + x) * 3, (y * 40 + x) * 3 + 3);
  return sharp(data, { raw: { width: 40, height: 20, channels: 3 } })
    .png()
    .toBuffer();
};

async function opened(bytes: Buffer) {
  const result = await openPhoto(bytes);
  if (!result.opened) throw new Error(result.reason);
  return result;
}

describe('a photo as the camera hands it over', () => {
  // Exif 2.32, tag 0x0112: 6 means that the first row of the file is the right side of the scene.
  it.each([
    [1, 40, 20],
    [6, 20, 40],
    [8, 20, 40],
    [3, 40, 20],
  ])('with orientation %i is turned upright', async (orientation, width, height) => {
    const { photo } = await opened(
      await sharp(await halves())
        .withMetadata({ orientation })
        .jpeg({ quality: 100 })
        .toBuffer(),
    );
    expect([photo.width, photo.height]).toEqual([width, height]);
    const at = (x: number, y: number): number => photo.data[(y * photo.width + x) * 3]!;
    const [darkEnd, lightEnd] = {
      1: [at(2, 10), at(37, 10)],
      3: [at(37, 10), at(2, 10)],
      6: [at(10, 2), at(10, 37)],
      8: [at(10, 37), at(10, 2)],
    }[orientation]!;
    expect(darkEnd).toBeLessThan(80);
    expect(lightEnd).toBeGreaterThan(160);
  });

  it.each(['png', 'webp', 'jpeg'] as const)('as %s becomes three sRGB channels', async (format) => {
    const { photo } = await opened(
      await sharp(await halves())
        .toFormat(format, { quality: 100 })
        .toBuffer(),
    );
    expect(photo.data).toHaveLength(40 * 20 * 3);
  });

  it('in gray, with alpha, or in sixteen bits becomes three sRGB channels too', async () => {
    for (const bytes of [
      await sharp(await halves())
        .grayscale()
        .jpeg()
        .toBuffer(),
      await sharp(await halves())
        .ensureAlpha(0.5)
        .png()
        .toBuffer(),
      await sharp(await halves())
        .toColourspace('rgb16')
        .png()
        .toBuffer(),
      await sharp(await halves())
        .grayscale()
        .png({ palette: true })
        .toBuffer(),
    ]) {
      const { photo } = await opened(bytes);
      expect([photo.width, photo.height, photo.data.length]).toEqual([40, 20, 2400]);
    }
  });

  it('has a preview of at most 1600 pixels, never larger than itself', async () => {
    const large = await sharp({ create: { width: 3200, height: 1000, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    const preview = await sharp(await previewOf((await opened(large)).photo)).metadata();
    expect([preview.width, preview.height]).toEqual([1600, 500]);
    const small = await sharp(await previewOf((await opened(await halves())).photo)).metadata();
    expect(small.width).toBe(40);
  });
});

describe('a file that cannot be opened', () => {
  it('is a result with its reason, not an exception', async () => {
    const whole = await sharp({
      create: {
        width: 600,
        height: 600,
        channels: 3,
        background: '#888',
        noise: { type: 'gaussian', mean: 128, sigma: 30 },
      },
    })
      .jpeg()
      .toBuffer();
    expect(await openPhoto(whole.subarray(0, 3000))).toEqual({ opened: false, reason: 'damaged' });
    expect(await openPhoto(Buffer.from('nothing of the kind'))).toEqual({ opened: false, reason: 'damaged' });
    const huge = await sharp({ create: { width: 8000, height: 6000, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    expect(await openPhoto(huge)).toEqual({ opened: false, reason: 'too-many-pixels' });
  });
});
