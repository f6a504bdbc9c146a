import { factNow } from '../../stand-ins/facts';
import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { focus } from './focus';
import { interval } from './interval';
import { proposeFill } from '../core/card/propose-fill';

const heron = demoPairing('heron', 'birch');
const marl = demoPairing('marl', 'alder');
const tern = demoPairing('tern', 'twoLayer');
const focusOf = (pairing: typeof heron) => focus.propose({ pairing, facts: [] });
const intervalOf = (pairing: typeof heron) => interval.propose({ pairing, facts: [] });

describe('a proposed focus card', () => {
  it('goes as far to either side, at most as deep as a head may safely go', () => {
    for (const pairing of [heron, marl, tern]) {
      const { plan } = focusOf(pairing);
      expect(plan.focus.from).toBe(-plan.focus.to);
      expect(plan.focus.to).toBeGreaterThanOrEqual(0.5);
      expect(plan.focus.to).toBeLessThanOrEqual(3);
      expect(plan.focus.spacing).toBe('even');
      // An odd count has the focus itself in its middle.
      expect(plan.focus.count % 2).toBe(1);
    }
  });
  it('spans two Rayleigh ranges: w0²·pi/(M²·lambda) by hand, in steps of half a millimetre', () => {
    // Marl: a spot of 0.13 mm, 10.6 um, M² 1.2 or so for a glass tube: 1.0 to 1.3 mm; two of them are 2 or 2.5.
    expect([2, 2.5]).toContain(focusOf(marl).plan.focus.to);
    const wide = { ...marl, lens: { ...marl.lens, spotXMm: 0.5, spotYMm: 0.5 } };
    expect(focusOf(wide).plan.focus.to).toBe(3);
    expect(focusOf(wide).reasons['focus.from']).toMatch(/^3 mm to each side: lowered further/);
    const fine = { ...marl, lens: { ...marl.lens, spotXMm: 0.03, spotYMm: 0.03 } };
    expect(focusOf(fine).plan.focus.to).toBe(0.5);
    expect(focusOf(fine).reasons['focus.from']).toMatch(/^about two Rayleigh ranges/);
  });
  it('by hand goes to one Rayleigh range, and no further than two millimetres', () => {
    const byHand = { ...marl, machine: { ...marl.machine, automaticFocus: false } };
    expect([1, 1.5]).toContain(focusOf(byHand).plan.focus.to);
    const wide = { ...byHand, lens: { ...marl.lens, spotXMm: 0.5, spotYMm: 0.5 } };
    expect(focusOf(wide).plan.focus.to).toBe(2);
    expect(focusOf(wide).reasons['focus.from']).toMatch(/^by hand no further than lines still show/);
  });
  it('has nine patches where a motor sets them, and five where a hand must', () => {
    expect(focusOf(marl).plan.focus.count).toBe(9);
    expect(focusOf({ ...marl, machine: { ...marl.machine, automaticFocus: false } }).plan.focus.count).toBe(5);
  });
  it('has lines a spot and a half apart across their run, and as strong as a fill has them', () => {
    const { plan } = focusOf(marl);
    expect(plan.constants.intervalMm).toBeCloseTo(1.5 * 0.13, 6);
    expect(plan.constants.powerFraction).toBe(proposeFill({ pairing: marl, facts: [] }).settings.powerFraction);
    // Heron's spot is 0.09 mm along X and 0.13 mm along Y: lines along Y lie apart along X.
    expect(focusOf(heron).plan.constants).toMatchObject({ direction: 'vertical', intervalMm: 0.135 });
    const coarse = { ...marl, lens: { ...marl.lens, spotXMm: 0.5, spotYMm: 0.5 } };
    expect(focusOf(coarse).plan.constants.intervalMm).toBe(0.4);
  });
});

describe('a proposed interval card', () => {
  it('has six strips by ratio, the coarsest at least twice the finest', () => {
    for (const pairing of [heron, marl, tern]) {
      const { from, to, count, spacing } = intervalOf(pairing).plan.interval;
      expect([count, spacing]).toEqual([6, 'ratio']);
      expect(to).toBeGreaterThanOrEqual(2 * from - 1e-9);
    }
  });
  it('begins at half of the spot, or finer than 500 lines per inch only for a finer spot', () => {
    // Marl: half of 0.13 mm. Tern's spot of 0.05 mm is finer than 25.4/500 mm: seven tenths of its mark, or half of it.
    expect(intervalOf(marl).plan.interval.from).toBeCloseTo(0.065, 6);
    const { from } = intervalOf(tern).plan.interval;
    expect(from).toBeGreaterThanOrEqual(0.025);
    expect(from).toBeLessThan(25.4 / 500);
    // A spot of 0.09 mm across lines along Y: 25.4/500 = 0.0508 mm is more than half of it.
    expect(intervalOf(heron).plan.interval.from).toBeCloseTo(0.051, 6);
  });
  it('ends at 150 lines per inch, or at one and a half marks where they are narrower', () => {
    expect(intervalOf(marl).plan.interval.to).toBeCloseTo(25.4 / 150, 3);
    expect(intervalOf(tern).plan.interval.to).toBeLessThan(25.4 / 300);
  });
});

describe('closer strips around an interval that was found', () => {
  const found = (change: object = {}, upToMm: number | null = 0.12) =>
    interval.propose({ pairing: heron, facts: [factNow('interval', { intervalMm: 0.1, upToMm }, change)] });
  const dpi = (mm: number): number => 25.4 / mm;
  it('go on in steps of about ten lines per inch, a step beyond what was left open', () => {
    // 254 lines per inch looked even, 211.7 did not.
    const { plan, reasons } = found();
    expect(dpi(plan.interval.from)).toBeCloseTo(264, 0);
    expect(dpi(plan.interval.to)).toBeCloseTo(201.7, 0);
    expect(plan.interval).toMatchObject({ count: 8, spacing: 'ratio' });
    for (const path of ['interval.from', 'interval.to']) expect(reasons[path]).toMatch(/^around the interval/);
  });
  it('are no more than twelve, and none where nothing is left to be told', () => {
    const usual = intervalOf(heron).plan.interval;
    expect(found({}, 0.2).plan.interval.count).toBe(12);
    for (const upToMm of [0.103, null]) expect(found({}, upToMm).plan.interval).toEqual(usual);
    for (const change of [{ stale: ['new lens'] }, { origin: 'copied' }])
      expect(found(change).plan.interval, JSON.stringify(change)).toEqual(usual);
  });
});
