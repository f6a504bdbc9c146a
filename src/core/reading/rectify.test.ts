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
