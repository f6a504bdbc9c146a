import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { exposureOf } from './exif';

type Tags = Readonly<Record<string, string>>;
const blockOf = async (image: Tags, photo: Tags): Promise<Buffer | undefined> => {
  const blank = sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } });
  const jpeg = await blank
    .withExif({ IFD0: { ...image }, IFD2: { ...photo } })
    .jpeg()
    .toBuffer();
  return (await sharp(jpeg).metadata()).exif;
};
const CAMERA = { Make: 'Pond', Model: 'one' };
const EXPOSED = { ExposureTime: '1/125', ISOSpeedRatings: '200', FNumber: '18/10', ExposureBiasValue: '-3/2' };

describe('how a photo was exposed', () => {
  it('is told by its own EXIF block', async () => {
    expect(exposureOf(await blockOf(CAMERA, EXPOSED))).toEqual({
      camera: 'Pond one',
      timeS: 1 / 125,
      iso: 200,
      fNumber: 1.8,
      biasStops: -1.5,
    });
    expect(exposureOf(await blockOf({ Model: 'one' }, EXPOSED))).toMatchObject({ camera: 'one' });
    const { FNumber: _none, ...blind } = EXPOSED;
    expect(exposureOf(await blockOf(CAMERA, blind))).toMatchObject({ fNumber: null });
  });
  it('is not known without camera, time or gain, nor from a block that is missing or damaged', async () => {
    const { ExposureTime: _time, ...untimed } = EXPOSED;
    const { ISOSpeedRatings: _gain, ...ungained } = EXPOSED;
    for (const tags of [untimed, ungained, { ...EXPOSED, ExposureTime: '0/1' }, { ...EXPOSED, ISOSpeedRatings: '0' }])
      expect(exposureOf(await blockOf(CAMERA, tags))).toBeNull();
    expect(exposureOf(await blockOf({}, EXPOSED))).toBeNull();
    expect(exposureOf(undefined)).toBeNull();
    for (const bytes of [[], [69, 120, 105, 102], Array.from({ length: 60 }, (_, k) => (k * 73) % 256)])
      expect(exposureOf(Buffer.from(bytes))).toBeNull();
    const whole = (await blockOf(CAMERA, EXPOSED))!;
    // Cut off anywhere it is no reason to fail.
    for (let length = 1; length < whole.length; length += 7)
      expect(() => exposureOf(whole.subarray(0, length))).not.toThrow();
  });
});
