import { describe, expect, it } from 'vitest';
import { project, type Homography } from '../../geometry/homography';
import { frameSheet, type SheetFormat } from '../../sheet/frame-sheet';
import type { FoundMarker } from '../find-markers';
import type { Quad } from '../quad';
import { isFlat, isOfSheet, locateSheet } from './locate-sheet';
import { points } from '../../../../tests/support/points';
import { tuples } from '../../../../tests/support/tuples';

/** Leaning away, turned and 11 px for each mm near its middle. */
const TILTED: Homography = [10, -1.2, 300, 1.4, 9.6, 250, 2e-4, 3e-4, 1];

/** A sheet's markers as they would be found; each corner may be moved, in mm. */
function seen(
  format: SheetFormat,
  bend: (x: number, y: number) => readonly [number, number] = (x, y) => [x, y],
): FoundMarker[] {
  return frameSheet(format).markers.map(({ id, x, y, sizeMm }) => {
    const corners = tuples([x, y], [x + sizeMm, y], [x + sizeMm, y + sizeMm], [x, y + sizeMm]);
    return {
      id,
      wrongBits: 0,
      lightOnDark: false,
      corners: corners.map(([u, v]) => project(TILTED, ...bend(u, v))) as unknown as Quad,
    };
  });
}

describe('a frame sheet in a photo', () => {
  it.each(['a5', 'letter'] as const)('on %s is told from the other paper, and its places found', (format) => {
    const place = locateSheet(seen(format))!;
    expect(place).toMatchObject({ markers: 4, sheet: { format } });
    expect(place.errorMm).toBeCloseTo(0, 6);
    for (const { x, y } of points([20, 30], [100, 60])) {
      const [found, true_] = [project(place.toPhoto, x, y), project(TILTED, x, y)];
      expect(found.x).toBeCloseTo(true_.x, 4);
      expect(found.y).toBeCloseTo(true_.y, 4);
    }
  });
  it('is told by its shape: in any size it is printed', () =>
    expect(locateSheet(seen('letter', (x, y) => [0.6 * x, 0.6 * y]))!.sheet.format).toBe('letter'));
  it('is found with one corner gone, and not with two', () => {
    const place = locateSheet(seen('a5').slice(1))!;
    expect(place).toMatchObject({ markers: 3, sheet: { format: 'a5' } });
    expect(project(place.toPhoto, 10, 10).x).toBeCloseTo(project(TILTED, 10, 10).x, 3);
    expect(locateSheet(seen('a5').slice(2))).toBeNull();
  });
  it('is not made of one marker seen twice, nor of cards’ markers', () => {
    const [first, second, third] = seen('a5');
    expect(locateSheet([first!, first!, second!, third!])).toBeNull();
    expect(locateSheet(seen('a5').map((marker) => ({ ...marker, id: marker.id - 200 })))).toBeNull();
    expect([243, 244, 247, 248].map((id) => isOfSheet({ id }))).toEqual([false, true, true, false]);
  });
  it('is flat, or folded', () => {
    // Along its middle, by an angle: what stands up is foreshortened, and larger by its height over the camera's distance of 300 mm.
    const folded =
      (degrees: number) =>
      (x: number, y: number): readonly [number, number] => {
        const beyond = Math.max(0, x - 62);
        const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
        const larger = 1 / (1 - (beyond * sin) / 300);
        return [62 + (x - 62 - beyond + beyond * cos) * larger, 52 + (y - 52) * larger];
      };
    const flat = (degrees: number): boolean => isFlat(locateSheet(seen('a5', folded(degrees)))!);
    expect(flat(0)).toBe(true);
    expect(flat(3)).toBe(true);
    expect(flat(25)).toBe(false);
  });
});
