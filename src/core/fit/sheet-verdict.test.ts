import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { sheetVerdict, type PatchAtTimes } from './sheet-verdict';

const TIMES = [1, 1.1664, 1 / 1.1664, 1 / 1.08, 1, 1.08];
/** Patches along a line of L* over the logarithm of power. */
const patches = (
  at: number,
  slope: number,
  { sigma = 0.5, noise = () => 0 }: { sigma?: number; noise?: () => number } = {},
): PatchAtTimes[] => TIMES.map((times) => ({ times, lightness: at + slope * Math.log(times) + noise(), sigma }));
const WANTED = { lightness: 40, sigma: 0.3 };
const told = (at: number, slope: number, how: Parameters<typeof patches>[2] = {}) =>
  sheetVerdict(patches(at, slope, how), WANTED)!;

describe('whether a setting holds on a sheet', () => {
  it('holds within two L*, is shifted where power brings it back, and is none where nothing tried does', () => {
    expect(told(40.6, -30)).toMatchObject({ verdict: 'holds' });
    const shifted = told(43, -30);
    expect(shifted.verdict).toBe('shift');
    // 3 L* too light at 30 L* for each e-fold: a tenth of one more.
    expect(shifted.times).toBeCloseTo(Math.exp(0.1), 9);
    expect(shifted.lightness).toBeCloseTo(43, 9);
    const [from, to] = [43 + 30 * Math.log(1.1664), 43 - 30 * Math.log(1.1664)];
    expect(shifted.line.at(1 / 1.1664)).toBeCloseTo(from, 9);
    expect(shifted.line.at(1.1664)).toBeCloseTo(to, 9);
    expect(told(49, -30).verdict).toBe('again');
    // Too dark, on stock that power lightens: less of it.
    expect(told(37, 30).times).toBeCloseTo(Math.exp(0.1), 9);
    expect(told(37, -30).times).toBeCloseTo(Math.exp(-0.1), 9);
  });
  it('has chances that sum to one, and say how often each comes true', () => {
    const random = seedrandom('sheets');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let [sum, held] = [0, 0];
    const sheets = 2000;
    for (let sheet = 0; sheet < sheets; sheet++) {
      const at = 40 + 6 * (random() - 0.5);
      const { chances } = sheetVerdict(patches(at, -30, { noise: () => 0.8 * normal(), sigma: 0.8 }), {
        lightness: 40 + 0.3 * normal(),
        sigma: 0.3,
      })!;
      expect(chances.holds + chances.shift + chances.again).toBeCloseTo(1, 9);
      sum += chances.holds;
      if (Math.abs(at - 40) <= 2) held++;
    }
    expect(sum / sheets).toBeCloseTo(held / sheets, 1);
    expect(Math.abs(sum - held) / sheets).toBeLessThan(0.03);
  });
  it('is less sure of patches that scatter, and of a tone that was kept unsurely', () => {
    const sure = told(41, -30).chances.holds;
    expect(told(41, -30, { sigma: 2 }).chances.holds).toBeLessThan(sure);
    let side = 3;
    expect(told(41, -30, { noise: () => (side = -side) }).chances.holds).toBeLessThan(sure);
    expect(sheetVerdict(patches(41, -30), { lightness: 40, sigma: 3 })!.chances.holds).toBeLessThan(sure);
  });
  it('is as sure of the tone as patches say that scatter by more than they were told to', () => {
    const random = seedrandom('scatter');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const sheets = 3000;
    let held = 0;
    for (let sheet = 0; sheet < sheets; sheet++) {
      const { lightness, sigma } = told(41, -30, { sigma: 0.1, noise: () => 0.8 * normal() });
      if (Math.abs(lightness - 41) <= 2 * sigma) held++;
    }
    // Student's law with four degrees: 0.915 within 2 x 1.142 of its scales, where 0.884 lie within 2.
    expect(held / sheets).toBeCloseTo(0.915, 1);
    expect(held / sheets).toBeGreaterThan(0.9);
    expect(told(41, -30, { sigma: 0.5 }).sigma).toBeCloseTo(0.5 / Math.sqrt(6), 2);
  });
  it('shifts nothing where tone does not follow power', () => {
    const flat = told(43, 0);
    expect(flat).toMatchObject({ verdict: 'again', times: null, timesSigma: null, chances: { shift: 0 } });
    expect(told(40, 0).verdict).toBe('holds');
  });
  it('is none of too few patches or powers, and refuses what is no patch', () => {
    expect(sheetVerdict(patches(40, -30).slice(0, 3), WANTED)).toBeNull();
    expect(sheetVerdict(patches(40, -30).slice(0, 4), WANTED)).not.toBeNull();
    expect(
      sheetVerdict(
        [1, 1, 1.1, 1.1].map((times) => ({ times, lightness: 40, sigma: 1 })),
        WANTED,
      ),
    ).toBeNull();
    expect(() => sheetVerdict([{ times: 0, lightness: 40, sigma: 1 }], WANTED)).toThrow(RangeError);
    expect(() => sheetVerdict([{ times: 1, lightness: 40, sigma: 0 }], WANTED)).toThrow(/sigma 0/);
  });
});
