import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { boxOfRing } from '../part/polygons';
import { packGreys } from '../picture/greys';
import { cardSteps } from './steps';
import { fillPicture } from './path';
import { burnedOf, powerOfShare, type PictureBurn } from './picture-shape';
import { coverageOfBurn, regionOf, type Burn, type PictureShape } from './shape';
import type { Layout } from './layout';

const BYTES = Uint8Array.from([0, 255, 255, 128, 0, 64, 64, 200, 255, 0, 0, 1]);
const shape: PictureShape = {
  do: 'picture',
  box: { x: 3, y: 2, width: 0.4, height: 0.3 },
  wanted: packGreys(4, 3, BYTES),
  table: null,
  mode: 'power',
  floorFraction: 0.04,
};
const TOP = 0.2;

/** What sweeps burn at each place of the picture, by their coordinates alone. */
function laid(of: PictureShape, change: Partial<typeof PLAIN_FILL>): number[] {
  const found = Array.from(BYTES, () => 0);
  for (const { from, to, lit } of fillPicture(of, { ...PLAIN_FILL, ...change }, 0)) {
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    for (const { fromMm, toMm, powerFraction } of lit)
      for (let at = fromMm + 0.05; at < toMm; at += 0.1) {
        const [x, y] = [from.x + ((to.x - from.x) * at) / length, from.y + ((to.y - from.y) * at) / length];
        found[4 * Math.floor((y - 2) / 0.1 + 1e-6) + Math.floor((x - 3) / 0.1 + 1e-6)]! += powerFraction;
      }
  }
  return found.map((power) => Math.round(power * 1e4) / 1e4);
}

describe('a picture whose power follows grey', () => {
  it.each(['horizontal', 'vertical'] as const)(
    'burns each place with its own power, lines %s, there and back',
    (direction) => {
      // From 4 % for next to nothing to 20 % for black, to a thousandth, by hand; nothing for nothing.
      const wanted = Array.from(BYTES, (byte) =>
        byte === 0 ? 0 : Math.round(1000 * (0.04 + (0.16 * byte) / 255)) / 1000,
      );
      expect(laid(shape, { direction })).toEqual(wanted);
      const along = [...fillPicture(shape, { ...PLAIN_FILL, direction }, 0)].map(({ from, to }) => [
        from.x === to.x,
        from.y === to.y,
      ]);
      for (const one of along) expect(one).toEqual([direction === 'vertical', direction === 'horizontal']);
      expect(laid(shape, { direction, bothWays: false, passes: 2 })).toEqual(
        wanted.map((power) => Math.round(2e4 * power) / 1e4),
      );
    },
  );
  it('leaves the scan offset to the lines of the way back', () => {
    const [there, back] = [...fillPicture(shape, { ...PLAIN_FILL, scanOffsetMm: 0.02 }, 0)];
    expect(there!.from.x).toBeCloseTo(3.1, 9);
    expect(Math.max(back!.from.x, back!.to.x)).toBeCloseTo(3.4 - 0.02, 9);
  });
  it('is drawn longer where it is lit at all, and its powers change where they did', () => {
    const [plain] = [...fillPicture(shape, PLAIN_FILL, 0)];
    const [longer] = [...fillPicture(shape, { ...PLAIN_FILL, lengthenMm: 0.02 }, 0)];
    expect([longer!.from.x, longer!.to.x]).toEqual([
      expect.closeTo(plain!.from.x - 0.01, 9),
      expect.closeTo(plain!.to.x + 0.01, 9),
    ]);
    // Two places of full power, one of half: bounds of powers lie where they lay on the card.
    expect(plain!.lit).toHaveLength(2);
    expect(longer!.lit[0]!.toMm).toBeCloseTo(plain!.lit[0]!.toMm + 0.01, 9);
    expect(longer!.lit[1]!.fromMm).toBeCloseTo(longer!.lit[0]!.toMm, 9);
    // Drawn shorter, too, nothing opens between two powers.
    const [shorter] = [...fillPicture(shape, { ...PLAIN_FILL, lengthenMm: -0.02 }, 0)];
    expect(shorter!.lit[1]!.fromMm).toBeCloseTo(shorter!.lit[0]!.toMm, 9);
    expect(shorter!.from.x).toBeCloseTo(plain!.from.x + 0.01, 9);
  });
  it('goes through its table', () => {
    const table = Array.from({ length: 256 }, (_, byte) => (byte / 255) ** 2);
    expect(laid({ ...shape, table }, {})[5]).toBe(Math.round(1000 * (0.04 + 0.16 * (64 / 255) ** 2)) / 1000);
    expect(powerOfShare(shape, 0, TOP)).toBe(0);
  });
  it('lays down the mean of its powers', () => {
    const mean = laid(shape, {}).reduce((sum, power) => sum + power, 0) / BYTES.length;
    expect(coverageOfBurn({ shape, settings: PLAIN_FILL })).toBeCloseTo(mean / TOP, 6);
  });
  it.each(['horizontal', 'vertical'] as const)(
    'is areas of one power each for programs that know no other, each place in one of them, lines %s',
    (direction) => {
      const burn: Burn = { shape, settings: { ...PLAIN_FILL, direction } };
      const cell = { index: 0, burns: [burn] };
      const layout = {
        frame: { markers: [], lettering: [] },
        before: [],
        after: [],
        order: [0],
        cells: [cell],
      } as unknown as Layout;
      const steps = cardSteps(layout, { rampPower: 'constant', head: 'gantry' });
      const found = Array.from(BYTES, () => 0);
      for (const step of steps)
        for (const ring of step.shapes.flatMap((one) => regionOf(one, step.settings)))
          for (let x = ring[0]!.x + 0.05; x < ring[2]!.x; x += 0.1)
            for (let y = ring[0]!.y + 0.05; y < ring[2]!.y; y += 0.1)
              found[4 * Math.floor((y - 2) / 0.1 + 1e-6) + Math.floor((x - 3) / 0.1 + 1e-6)]! +=
                step.settings.powerFraction;
      laid(shape, { direction }).forEach((power, place) => {
        if (power === 0) expect(found[place]).toBe(0);
        // A sixteenth of the range is 1 %: half of that off at the most, and the rounding of powers.
        else expect(Math.abs(found[place]! - power), `${place}`).toBeLessThanOrEqual(0.0056);
      });
    },
  );
});

describe('a picture of dots', () => {
  const dots: PictureBurn = { ...shape, mode: 'bayer' };
  it('burns all of the power or nothing, where its thresholds say', () => {
    // The corner of the printed matrix: 0 32 8 40 / 48 16 56 24 / 12 44 4 36, each and a half over 64.
    const order = [0, 32, 8, 40, 48, 16, 56, 24, 12, 44, 4, 36];
    expect([...burnedOf(dots)]).toEqual(order.map((place, at) => (BYTES[at]! / 255 > (place + 0.5) / 64 ? 1 : 0)));
    expect(powerOfShare(dots, 1, TOP)).toBeCloseTo(TOP, 9);
    expect(laid({ ...shape, mode: 'bayer' }, {}).map((power) => Math.ceil(power))).toEqual([...burnedOf(dots)]);
  });
  it.each(['horizontal', 'vertical'] as const)(
    'is in files a ring for each run of burned places, a line high, where the head burns them, lines %s',
    (direction) => {
      const lies = direction === 'horizontal';
      const found = Array.from(BYTES, () => 0);
      for (const ring of regionOf({ ...shape, mode: 'bayer' }, { ...PLAIN_FILL, direction })) {
        const { x, y, width, height } = boxOfRing(ring);
        expect(lies ? height : width).toBeCloseTo(0.1, 9);
        for (let u = x + 0.05; u < x + width; u += 0.1)
          for (let v = y + 0.05; v < y + height; v += 0.1)
            found[4 * Math.floor((v - 2) / 0.1 + 1e-6) + Math.floor((u - 3) / 0.1 + 1e-6)]! += 1;
      }
      expect(found).toEqual([...burnedOf(dots)]);
    },
  );
});
