import { describe, expect, it } from 'vitest';
import { markerDictionary, opencv } from '../../../tests/support/opencv';
import type { RgbImage } from '../image/raster';
import { atLeast, findMarkers } from './find-markers';
import { convexHull, polygonArea, quadOfOutline } from './quad';
import { points } from '../../../tests/support/points';
import { tuples } from '../../../tests/support/tuples';

const SIDE_PX = 160;

const inGrays = (grays: Uint8Array, width: number, height: number): RgbImage => ({
  data: Uint8Array.from({ length: 3 * grays.length }, (_, at) => grays[Math.floor(at / 3)]!),
  width,
  height,
});

/** A picture that the reference library made: its own markers, its own warp, on a gray ground with a shade and noise. */
async function picture(id: number, corners: readonly (readonly [number, number])[], ground = 180): Promise<RgbImage> {
  const { cv } = await opencv();
  const marker = new cv.Mat();
  markerDictionary(cv).generateImageMarker(id, SIDE_PX, marker, 1);
  const width = 720;
  const height = 540;
  const source = cv.matFromArray(
    4,
    1,
    cv.CV_32FC2,
    [0, 0, SIDE_PX, 0, SIDE_PX, SIDE_PX, 0, SIDE_PX].map((v) => v - 0.5),
  );
  const target = cv.matFromArray(4, 1, cv.CV_32FC2, corners.flat());
  const map = cv.getPerspectiveTransform(source, target);
  const out = new cv.Mat();
  const light = new cv.Mat();
  marker.convertTo(light, -1, ground / 255, 0);
  cv.warpPerspective(
    light,
    out,
    map,
    new cv.Size(width, height),
    cv.INTER_AREA,
    cv.BORDER_CONSTANT,
    new cv.Scalar(ground),
  );
  const blurred = new cv.Mat();
  cv.GaussianBlur(out, blurred, new cv.Size(0, 0), 1.1);
  const data = Uint8Array.from(blurred.data);
  for (let index = 0; index < data.length; index++) {
    const shade = 0.65 + (0.35 * (index % width)) / width;
    data[index] = Math.max(0, Math.min(255, data[index]! * shade + 3 * Math.sin(index * 78.233)));
  }
  for (const mat of [marker, out, light, blurred, source, target, map]) mat.delete();
  return inGrays(data, width, height);
}

const TILTED = tuples([252, 156], [393, 180], [384, 327], [237, 288]);

describe('markers in pictures made by a reference library', () => {
  it.each([0, 17, 122, 200, 243])(
    'id %i is read, tilted and shaded, with corners to a third of a pixel',
    async (id) => {
      const [found, ...more] = findMarkers(await picture(id, TILTED), atLeast(1));
      expect(more).toEqual([]);
      expect(found).toMatchObject({ id, lightOnDark: false });
      found!.corners.forEach((corner, index) => {
        const [x, y] = TILTED[index]!;
        expect(Math.hypot(corner.x - x, corner.y - y)).toBeLessThan(0.34);
      });
    },
  );

  it('are read light on dark, as on slate', async () => {
    const dark = await picture(99, TILTED);
    const [found] = findMarkers({ ...dark, data: dark.data.map((byte) => 255 - byte) }, atLeast(1));
    expect(found).toMatchObject({ id: 99, lightOnDark: true });
  });

  it('are read in any turn, the marker’s own upper left first', async () => {
    const turned = [TILTED[2], TILTED[3], TILTED[0], TILTED[1]];
    const [found] = findMarkers(await picture(31, turned), atLeast(1));
    expect(found!.id).toBe(31);
    expect(Math.hypot(found!.corners[0].x - turned[0]![0], found!.corners[0].y - turned[0]![1])).toBeLessThan(0.5);
  });

  it('are not seen where there are none', () => {
    const data = Uint8Array.from(
      { length: 400 * 300 },
      (_, i) => 120 + 60 * Math.sin(i * 0.026) * Math.cos((i / 400) * 0.14) + ((i * 2654435761) % 31),
    );
    expect(findMarkers(inGrays(data, 400, 300))).toEqual([]);
  });
});

describe('quads', () => {
  it('are found in a filled outline and refused in a round one', () => {
    const square = points([0, 0], [10, 1], [11, 12], [1, 10], [5, 5]);
    expect(convexHull(square)).toHaveLength(4);
    expect(quadOfOutline(square)).toHaveLength(4);
    expect(polygonArea(points([0, 0], [4, 0], [4, 3], [0, 3]))).toBe(12);
    const circle = Array.from({ length: 60 }, (_, k) => ({ x: 50 * Math.cos(k / 9.55), y: 50 * Math.sin(k / 9.55) }));
    expect(quadOfOutline(circle)).toBeNull();
  });
});
