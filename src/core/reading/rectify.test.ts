import { describe, expect, it } from 'vitest';
import { opencv } from '../../../tests/support/opencv';
import { fitHomography } from '../geometry/homography';
import { srgbToLinear } from '../color/srgb';
import { rectify } from './rectify';
import { points } from '../../../tests/support/points';
import { tuples } from '../../../tests/support/tuples';

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
  const frame = points([0, 0], [20, 0], [20, 15], [0, 15]);
  const corners = points([90, 60], [560, 95], [530, 420], [60, 380]);
  const { homography } = fitHomography(frame, corners);

  it('takes for each pixel the mean of a square about where it looks', () => {
    // A photo whose linear light rises by the same step from pixel to pixel would need unequal bytes; a step edge needs two.
    const wide = 60;
    const image = new Uint8Array(wide * wide * 3);
    for (let y = 0; y < wide; y++)
      for (let x = 0; x < wide; x++) image.fill(x < 24 ? 40 : 200, (y * wide + x) * 3, (y * wide + x) * 3 + 3);
    // One millimetre is 12 photo pixels and, straightened, two: each covers six.
    const map = [12, 0, -0.5, 0, 12, -0.5, 0, 0, 1] as const;
    const [dark, bright] = [srgbToLinear(40 / 255), srgbToLinear(200 / 255)];
    for (const boxPx of [1, 2, 3, 6]) {
      const { data: linear, width: columns } = rectify({ data: image, width: wide, height: wide }, map, 4, 4, 2, boxPx);
      expect(columns).toBe(8);
      const row = Array.from({ length: 8 }, (_, column) => linear[(3 * 8 + column) * 3 + 1]!);
      row.forEach((value, column) =>
        expect(value, `${boxPx} px, column ${column}`).toBeCloseTo(column < 4 ? dark : bright, 6),
      );
    }
    // Half a millimetre further on, the edge runs through the middle of a pixel: half of the square lies to either side.
    const moved = [12, 0, 2.5, 0, 12, -0.5, 0, 0, 1] as const;
    for (const boxPx of [1, 2, 3, 6]) {
      const { data: linear } = rectify({ data: image, width: wide, height: wide }, moved, 4, 4, 2, boxPx);
      expect(linear[(3 * 8 + 3) * 3]!).toBeCloseTo((dark + bright) / 2, 6);
    }
    // A quarter of a photo pixel further: of a square of three 1.75 lie on the bright side, of one of two 1.25.
    const aside = [12, 0, 2.75, 0, 12, -0.5, 0, 0, 1] as const;
    for (const [boxPx, on] of tuples([3, 1.75], [2, 1.25])) {
      const { data: linear } = rectify({ data: image, width: wide, height: wide }, aside, 4, 4, 2, boxPx);
      expect(linear[(3 * 8 + 3) * 3]!).toBeCloseTo(dark + ((bright - dark) * on) / boxPx, 6);
    }
    for (const boxPx of [0, 1.5, -1, NaN])
      expect(() => rectify({ data: image, width: wide, height: wide }, map, 4, 4, 2, boxPx)).toThrow(
        `invalid square: ${boxPx} pixels`,
      );
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
    const size = new cv.Size(20 * pxPerMm, 15 * pxPerMm);
    cv.warpPerspective(linear, theirs, map, size, cv.INTER_LINEAR);
    const apart = (own: Float32Array): number =>
      own.reduce((most, value, i) => Math.max(most, Math.abs(value - theirs.data32F[i]!)), 0);
    // The reference rounds places to 1/32 pixel; the steepest slope here is about 0.09 a pixel.
    expect(apart(ours.data)).toBeLessThan(0.012);
    // A square of three pixels about a place between them is what the means over three are there, straight between them.
    const blurred = new cv.Mat();
    cv.blur(linear, blurred, new cv.Size(3, 3));
    cv.warpPerspective(blurred, theirs, map, size, cv.INTER_LINEAR);
    expect(apart(rectify({ data, width, height }, homography, 20, 15, pxPerMm, 3).data)).toBeLessThan(0.006);
    expect(apart(ours.data)).toBeGreaterThan(0.02);
  });

  it('calls a square clipped where most of its pixels are', () => {
    const stripes = (clippedOf4: number): number => {
      const image = Uint8Array.from({ length: 40 * 40 * 3 }, (_, at) => {
        const [x, y] = [Math.floor(at / 3) % 40, Math.floor(at / 120)];
        return (x % 2) + 2 * (y % 2) < clippedOf4 ? 255 : 128;
      });
      return rectify({ data: image, width: 40, height: 40 }, [4, 0, 3.5, 0, 4, 3.5, 0, 0, 1], 4, 4, 1, 2).clipped[5]!;
    };
    expect([0, 1, 2, 3, 4].map(stripes)).toEqual([0, 0, 0, 1, 1]);
    // A square of three whose middle row is clipped, above one more such row that is no part of it.
    const rows = Uint8Array.from({ length: 40 * 40 * 3 }, (_, at) =>
      [5, 7].includes(Math.floor(at / 120)) ? 255 : 128,
    );
    const map = [4, 0, 0, 0, 4, 3, 0, 0, 1] as const;
    const seen = rectify({ data: rows, width: 40, height: 40 }, map, 4, 4, 1, 3);
    expect(seen.clipped[1]).toBe(0);
    expect(seen.data[3]).toBeCloseTo((2 * srgbToLinear(128 / 255) + 1) / 3, 6);
  });

  it('looks at nothing beyond the last pixels of the photo', () => {
    const image = { data: new Uint8Array(20 * 20 * 3).fill(128), width: 20, height: 20 };
    for (const boxPx of [1, 2, 3]) {
      // Squares whose right or lower side lies this far inside the photo's last pixel, or outside it.
      const shown = (inside: number): number[] => {
        const aside = 19.5 - boxPx / 2 - inside - 2;
        return [
          rectify(image, [4, 0, aside, 0, 4, 5, 0, 0, 1], 1, 1, 1, boxPx),
          rectify(image, [4, 0, 5, 0, 4, aside, 0, 0, 1], 1, 1, 1, boxPx),
        ].flatMap(({ clipped, data: [light] }) => [clipped[0]!, light!]);
      };
      const gray = expect.closeTo(srgbToLinear(128 / 255), 6);
      expect(shown(0.01)).toEqual([0, gray, 0, gray]);
      expect(shown(-0.01)).toEqual([1, 0, 1, 0]);
    }
  });

  it('is black and clipped outside the photo, and refuses data of the wrong length', () => {
    const out = rectify({ data, width, height }, [10, 0, 600, 0, 10, 0, 0, 0, 1], 20, 15, 4, 1);
    expect(out.clipped.at(-1)).toBe(1);
    expect(() => rectify({ data: data.subarray(1), width, height }, homography, 20, 15, 4, 1)).toThrow(RangeError);
  });
});
