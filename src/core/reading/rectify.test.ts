import { describe, expect, it } from 'vitest';
import { opencv } from '../../../tests/support/opencv';
import { fitHomography } from '../geometry/homography';
import { srgbToLinear } from '../color/srgb';
import { rectify } from './rectify';

describe('straightening', () => {
  const width = 640;
  const height = 480;
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 3;
      data[at] = 128 + 90 * Math.sin(x / 17);
      data[at + 1] = 128 + 90 * Math.cos(y / 23);
      data[at + 2] = 40 + ((x + y) % 160);
    }
  }
  const frame = [
    { x: 0, y: 0 },
    { x: 20, y: 0 },
    { x: 20, y: 15 },
    { x: 0, y: 15 },
  ];
  const corners = [
    { x: 90, y: 60 },
    { x: 560, y: 95 },
    { x: 530, y: 420 },
    { x: 60, y: 380 },
  ];
  const { homography } = fitHomography(frame, corners);

  it('takes for each pixel the mean of looks that are spread evenly over it', () => {
    // A photo whose linear light rises by the same step from pixel to pixel would need unequal bytes; a step edge needs two.
    const wide = 60;
    const image = new Uint8Array(wide * wide * 3);
    for (let y = 0; y < wide; y++)
      for (let x = 0; x < wide; x++) image.fill(x < 24 ? 40 : 200, (y * wide + x) * 3, (y * wide + x) * 3 + 3);
    // One millimetre is 12 photo pixels and, straightened, two: each covers six.
    const map = [12, 0, -0.5, 0, 12, -0.5, 0, 0, 1] as const;
    const [dark, bright] = [srgbToLinear(40 / 255), srgbToLinear(200 / 255)];
    for (const samples of [1, 2, 3, 6]) {
      const { data: linear, width: columns } = rectify(
        { data: image, width: wide, height: wide },
        map,
        4,
        4,
        2,
        samples,
      );
      expect(columns).toBe(8);
      const row = Array.from({ length: 8 }, (_, column) => linear[(3 * 8 + column) * 3 + 1]!);
      row.forEach((value, column) =>
        expect(value, `${samples} looks, column ${column}`).toBeCloseTo(column < 4 ? dark : bright, 6),
      );
    }
    // Half a millimetre further on, the edge runs through the middle of a pixel: half of the looks see either side.
    const moved = [12, 0, 2.5, 0, 12, -0.5, 0, 0, 1] as const;
    for (const samples of [2, 6]) {
      const { data: linear } = rectify({ data: image, width: wide, height: wide }, moved, 4, 4, 2, samples);
      expect(linear[(3 * 8 + 3) * 3]!).toBeCloseTo((dark + bright) / 2, 6);
    }
  });

  it('calls pixels clipped at either end of the range, and outside the photo', () => {
    const shown = (byte: number): number => {
      const image = { data: new Uint8Array(20 * 20 * 3).fill(byte), width: 20, height: 20 };
      return rectify(image, [4, 0, 4, 0, 4, 4, 0, 0, 1], 2, 2, 2, 1).clipped.reduce((sum, one) => sum + one, 0);
    };
    expect([0, 1, 2, 128, 252, 253, 255].map(shown)).toEqual([16, 16, 0, 0, 0, 16, 16]);
    // By its brightest channel: one that is blown out spoils the colour, one that is black does not.
    const coloured = (...rgb: number[]): number => {
      const data = Uint8Array.from({ length: 20 * 20 * 3 }, (_, at) => rgb[at % 3]!);
      return rectify({ data, width: 20, height: 20 }, [4, 0, 4, 0, 4, 4, 0, 0, 1], 2, 2, 2, 1).clipped[0]!;
    };
    for (const channel of [0, 1, 2]) {
      const bright = [90, 90, 90].with(channel, 254);
      const dark = [0, 0, 0].with(channel, 90);
      expect([coloured(...bright), coloured(...dark)], `channel ${channel}`).toEqual([1, 0]);
    }
    const image = { data: new Uint8Array(20 * 20 * 3).fill(128), width: 20, height: 20 };
    const over = rectify(image, [4, 0, -8, 0, 4, 4, 0, 0, 1], 4, 2, 1, 1);
    expect([...over.clipped]).toEqual([1, 1, 0, 0, 1, 1, 0, 0]);
    expect(over.data[0]).toBe(0);
  });

  it('agrees with a reference library’s warp of linear light', async () => {
    const { cv } = await opencv();
    const pxPerMm = 16;
    const ours = rectify({ data, width, height }, homography, 20, 15, pxPerMm, 1);
    const linear = cv.matFromArray(
      height,
      width,
      cv.CV_32FC3,
      Array.from(data, (byte) => srgbToLinear(byte / 255)),
    );
    // Pixel centres of the straightened card lie half a pixel inside it.
    const target = frame.map((p) => [p.x * pxPerMm - 0.5, p.y * pxPerMm - 0.5]).flat();
    const from = cv.matFromArray(
      4,
      1,
      cv.CV_32FC2,
      corners.flatMap((p) => [p.x, p.y]),
    );
    const to = cv.matFromArray(4, 1, cv.CV_32FC2, target);
    const map = cv.getPerspectiveTransform(from, to);
    const theirs = new cv.Mat();
    cv.warpPerspective(linear, theirs, map, new cv.Size(20 * pxPerMm, 15 * pxPerMm), cv.INTER_LINEAR);
    let most = 0;
    for (let i = 0; i < ours.data.length; i++) most = Math.max(most, Math.abs(ours.data[i]! - theirs.data32F[i]!));
    // The reference rounds places to 1/32 pixel; the steepest slope here is about 0.09 a pixel.
    expect(most).toBeLessThan(0.012);
  });

  it('is black and clipped outside the photo, and refuses data of the wrong length', () => {
    const out = rectify({ data, width, height }, [10, 0, 600, 0, 10, 0, 0, 0, 1], 20, 15, 4, 1);
    expect(out.clipped.at(-1)).toBe(1);
    expect(() => rectify({ data: data.subarray(1), width, height }, homography, 20, 15, 4, 1)).toThrow(RangeError);
  });
});
