import { describe, expect, it } from 'vitest';
import { square } from '../../tests/support/bench';
import { srgbToLinear } from '../core/color/srgb';
import { casualShot, photograph } from './bench';
import { burnPiece } from './piece';
import { points } from '../../tests/support/points';

describe('the simulated camera', () => {
  const piece = burnPiece(square(2));
  const shot = {
    ...casualShot('test'),
    widthPx: 800,
    heightPx: 600,
    tiltDegrees: 18,
    noise: 0,
    vignette: 0,
    lightFall: 1,
  };
  it('shows the burn where it says it does', () => {
    const photo = photograph(piece, shot);
    const level = (x: number, y: number): number => {
      const at = photo.placeOf(x, y);
      return photo.data[(Math.round(at.y) * photo.width + Math.round(at.x)) * 3 + 1]!;
    };
    const inside = level(5, 5);
    const outside = level(1, 1);
    expect(inside).toBeLessThan(outside * 0.6);
    for (const { x, y } of points([2.3, 5], [7.7, 5], [5, 2.3], [5, 7.7]))
      expect(level(x, y)).toBeLessThan(outside * 0.8);
    for (const { x, y } of points([1.5, 5], [8.5, 5], [5, 1.5], [5, 8.5]))
      expect(level(x, y)).toBeGreaterThan(outside * 0.8);
  });
  it('is dimmer at one end by the light’s fall', () => {
    const photo = photograph(burnPiece(square(0)), {
      ...shot,
      lightFall: 0.5,
      lightDegrees: 0,
      tiltDegrees: 0,
      rollDegrees: 0,
    });
    const linear = (x: number): number => {
      const at = photo.placeOf(x, 5);
      return srgbToLinear(photo.data[(Math.round(at.y) * photo.width + Math.round(at.x)) * 3 + 1]! / 255);
    };
    const ratio = linear(9.8) / linear(0.2);
    // 0.5 from edge to edge; a little less between places 0.2 mm inside it, and the sheet has its own texture.
    expect(ratio).toBeGreaterThan(0.47);
    expect(ratio).toBeLessThan(0.57);
  });
  it('takes the same photo from the same seed', () => {
    const small = { ...shot, widthPx: 800, heightPx: 600, noise: 0.02 };
    const [one, other] = [photograph(piece, small), photograph(piece, small)];
    expect(Buffer.from(one.data).equals(Buffer.from(other.data))).toBe(true);
    expect(Buffer.from(photograph(piece, { ...small, seed: 'other' }).data).equals(Buffer.from(one.data))).toBe(false);
    expect(casualShot('a')).toEqual(casualShot('a'));
    for (let seed = 0; seed < 40; seed++) {
      const { tiltDegrees, lightFall, widthPx, heightPx } = casualShot(`limits ${seed}`);
      expect(tiltDegrees).toBeLessThanOrEqual(25);
      expect(lightFall).toBeGreaterThanOrEqual(0.5);
      expect((widthPx * heightPx) / 1e6).toBeGreaterThan(8);
      expect((widthPx * heightPx) / 1e6).toBeLessThanOrEqual(12);
    }
  });
});
