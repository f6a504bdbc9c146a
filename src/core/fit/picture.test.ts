import { describe, expect, it } from 'vitest';
import { luminanceOfLightness, lightnessOfLuminance } from '../color/lab';
import { packGreys } from '../picture/greys';
import { comparePicture, type SeenPicture } from './picture';

const [WIDE, HIGH] = [200, 150];
const SIZE = { widthMm: 20, heightMm: 15 };
/** Soft shapes and an edge, as a function of the place in mm. */
const wantedAt = (x: number, y: number): number => {
  const soft = 0.5 + 0.3 * Math.sin(0.7 * x) * Math.cos(0.5 * y + 0.3 * x);
  return x > 14 && y > 4 && y < 12 ? 1 : soft;
};
const wanted = packGreys(
  WIDE,
  HIGH,
  Uint8Array.from({ length: WIDE * HIGH }, (_, at) =>
    Math.round(255 * wantedAt(((at % WIDE) + 0.5) / 10, (Math.floor(at / WIDE) + 0.5) / 10)),
  ),
);

interface Burned {
  readonly strongest?: number;
  readonly x?: number;
  readonly y?: number;
  readonly bend?: (share: number) => number;
  readonly way?: 1 | -1;
  readonly bare?: number;
  readonly noise?: number;
}
/** Blocks of 0.25 mm of a picture that was burned so, each the mean light of 5 by 5 points. */
function blocks({ strongest = 40, x = 0, y = 0, bend = (share) => share, way = -1, bare = 78, noise = 0 }: Burned) {
  const [columns, rows] = [80, 60];
  const deltas = Array.from({ length: columns * rows }, (_, at) => {
    let light = 0;
    for (let k = 0; k < 25; k++) {
      const px = ((at % columns) + ((k % 5) + 0.5) / 5) * 0.25 - x;
      const py = (Math.floor(at / columns) + (Math.floor(k / 5) + 0.5) / 5) * 0.25 - y;
      light += luminanceOfLightness(bare + way * strongest * bend(wantedAt(px, py))) / 25;
    }
    return lightnessOfLuminance(light) - bare + (at % 2 === 0 ? noise : -noise);
  });
  return { columns, rows, deltas };
}
const compared = (burned: Burned, seen: SeenPicture = blocks(burned)) =>
  comparePicture(wanted, seen, { ...SIZE, bareLightness: burned.bare ?? 78, way: burned.way ?? -1 });

describe('a picture against what was wanted', () => {
  it.each([{}, { strongest: 25 }, { way: 1, bare: 25 } as const])(
    'that came out in proportion is off by nothing: %j',
    (burned) => {
      const fit = compared(burned)!;
      expect(fit.strongest).toBeCloseTo(burned.strongest ?? 40, 0);
      expect(fit.black!).toBeCloseTo(burned.strongest ?? 40, 0);
      expect(fit.rmsL).toBeLessThan(0.35);
      for (const off of fit.offByTone) expect(Math.abs(off!)).toBeLessThan(0.3);
    },
  );
  it('is told how far it lies beside its place, and that is not counted as off', () => {
    const fit = compared({ x: 0.18, y: -0.11 })!;
    expect(fit.shiftMm.x).toBeCloseTo(0.18, 1.7);
    expect(fit.shiftMm.y).toBeCloseTo(-0.11, 1.7);
    expect(fit.rmsL).toBeLessThan(0.6);
  });
  it('is off by what bends its tones, and says which', () => {
    const bent = compared({ bend: (share) => share ** 0.6 })!;
    // Light and middle tones too strong: at a half 0.66 of the strongest instead.
    expect(bent.rmsL).toBeGreaterThan(2);
    expect(bent.offByTone[0]).toBeGreaterThan(1);
    expect(bent.offByTone[2]).toBeLessThan(-0.5);
    // Black is as deep as it was burned, whatever the rest makes of it.
    expect(bent.black!).toBeCloseTo(40, 0);
    expect(bent.strongest).toBeGreaterThan(43);
    const other = compared({ bend: (share) => share ** 1.6 })!;
    expect(other.offByTone[0]).toBeLessThan(-1);
  });
  it('says of each third of the tones how far it is off', () => {
    // Only what lies between a third and two thirds is burned stronger, by a tenth of all.
    const middle = compared({ bend: (share) => (share > 0.36 && share < 0.64 ? share + 0.1 : share) })!;
    const [light, between, dark] = middle.offByTone as [number, number, number];
    expect(between - Math.max(light, dark)).toBeGreaterThan(2);
    expect(Math.abs(light - dark)).toBeLessThan(2);
  });
  it('is off by noise of its own size, as seen from where an eye blurs as much as a block', () => {
    const fit = compared({ noise: 2 })!;
    expect(fit.rmsL).toBeGreaterThan(1.95);
    expect(fit.rmsL).toBeLessThan(2.1);
    // A minute of arc at 248 mm is 0.0722 mm, which is 0.25 mm over the root of twelve.
    expect(fit.viewingMm).toBeCloseTo(248.1, 0);
  });
  it('keeps the rim out, where the camera mixes in bare stock', () => {
    const seen = blocks({});
    const rim = seen.deltas.map((delta, at) => (at % 80 === 0 || at < 80 ? 0 : delta));
    expect(compared({}, { ...seen, deltas: rim })!.rmsL).toBeLessThan(0.5);
    const other = seen.deltas.map((delta, at) => (at % 80 === 79 || at >= 59 * 80 ? 0 : delta));
    expect(compared({}, { ...seen, deltas: other })!.rmsL).toBeLessThan(0.5);
  });
  it('goes by what is seen of it where something hides a part', () => {
    const seen = blocks({});
    const hidden = seen.deltas.map((delta, at) => (at % 80 > 70 && at < 30 * 80 ? null : delta));
    const fit = compared({}, { ...seen, deltas: hidden })!;
    expect(fit.strongest).toBeCloseTo(40, 0);
    expect(fit.rmsL).toBeLessThan(0.35);
    expect(Number.isNaN(fit.off[75])).toBe(true);
  });
  it('tells nothing where too little is seen, or nothing marked', () => {
    const seen = blocks({});
    expect(compared({}, { ...seen, deltas: seen.deltas.map((delta, at) => (at % 4 === 0 ? null : delta)) })).toBeNull();
    expect(compared({}, { ...seen, deltas: seen.deltas.map(() => 0) })).toBeNull();
    expect(
      comparePicture(
        wanted,
        { columns: 8, rows: 6, deltas: Array<number>(48).fill(-9) },
        { ...SIZE, bareLightness: 78, way: -1 },
      ),
    ).toBeNull();
  });
});
