import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { FactNow } from '../../core/book/facts';
import type { Seen } from '../../core/card/asks';
import { estimateCard } from '../../core/card/estimate';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { deliveredPowerW } from '../../core/machine/machine';
import type { CellReading } from '../../core/reading/observations';
import { kindAskedFor, kindsOfRung } from '../registry';
import type { SheetCheckPlan } from './plan';
import { checkedWords, percent } from './find';
import { sheetCheck } from '.';
import { listed } from '../../../tests/support/listed';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'birch');
const guess = sheetCheck.propose({ pairing, facts: [] }).plan;
const settings = { ...guess.constants, powerFraction: 0.5, speedMmPerS: 40, passes: 1 };
const kept = factNow(
  'engrave',
  { settings, lightness: 40, lightnessSigma: 0.4, confidence: 1 },
  { at: { shade: 'deep' }, stale: ['new batch B-9'] },
);
const known = { pairing, facts: [kept] };
let plan: SheetCheckPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = sheetCheck.propose(known));
  layout = layCard(sheetCheck, plan, pairing, { cardNumber: 5 });
});
const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
const find = (seen: Seen, facts: readonly FactNow[] = [kept]) => sheetCheck.find(layout, seen, { pairing, facts });
/** Patches whose L* falls by 30 for each e-fold of power, from a tone at the setting's own. */
const seen = (
  at: number,
  {
    slope = -30,
    sigma = 0.4,
    told = () => true,
  }: { slope?: number; sigma?: number; told?: (index: number) => boolean } = {},
): Seen => ({
  readings: layout.order.filter(told).map(
    (cellIndex) =>
      ({
        cellIndex,
        lightness: at + slope * Math.log(powerOf(cellIndex) / 0.5),
        lightnessSigma: sigma,
      }) as CellReading,
  ),
  answers: [],
});
const words = (word: (times: number) => string | null): Seen => ({
  readings: [],
  answers: layout.order.flatMap((cellIndex) => {
    const value = word(powerOf(cellIndex) / 0.5);
    return value === null ? [] : [{ field: 'match', cellIndex, repeat: 0, value }];
  }),
});

describe('a sheet check', () => {
  it('burns the kept setting twice, and a step or two more and less of its power, with one middle and in under 45 s', () => {
    expect(plan.constants).toEqual(settings);
    expect(layout.cells).toHaveLength(6);
    const times = layout.cells.map(({ index }) => powerOf(index) / 0.5);
    expect([...times].sort((a, b) => a - b).map((one) => Math.round(1000 * one))).toEqual([
      857, 926, 1000, 1000, 1080, 1166,
    ]);
    for (const cell of layout.cells) expect({ ...mainBurn(cell).settings, powerFraction: 0.5 }).toEqual(settings);
    // No slope of light across the card looks like more power: by the sum of places times logarithms of power.
    const middle = layout.cells.reduce((sum, { box }) => sum + box.x / 6, 0);
    const lever = layout.cells.reduce((sum, { box }, index) => sum + (box.x - middle) * Math.log(times[index]!), 0);
    expect(Math.abs(lever)).toBeLessThan(0.005);
    expect([times[0], times[4]]).toEqual([1, 1]);
    for (const [machine, stock] of [
      ['heron', 'birch'],
      ['heron', 'leather'],
      ['marl', 'alder'],
      ['marl', 'slate'],
      ['tern', 'twoLayer'],
    ] as const) {
      const on = demoPairing(machine, stock);
      const laid = layCard(sheetCheck, sheetCheck.propose({ pairing: on, facts: [] }).plan, on, { cardNumber: 5 });
      expect(estimateCard(laid, on.machine).totalS, `${machine} ${stock}`).toBeLessThan(45);
    }
  });
  it('is what a stale engraving setting asks for, and an empty rung does not', () => {
    expect(kindAskedFor('grid', true, known)!.kind).toBe('sheet-check');
    expect(kindAskedFor('grid', false, known)!.kind).toBe('grid');
    expect(kindAskedFor('focus', true, known)).toBe(kindsOfRung('focus')[0]);
  });
  it('stays under the cap, and is refused with steps too small or too large', () => {
    const strong = { ...plan, constants: { ...settings, powerFraction: pairing.machine.powerCap } };
    const capped = layCard(sheetCheck, strong, pairing, { cardNumber: 5 });
    for (const cell of capped.cells)
      expect(mainBurn(cell).settings.powerFraction).toBeLessThanOrEqual(pairing.machine.powerCap);
    const fields = (change: object) => sheetCheck.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect([fields({ stepFraction: 0.01 }), fields({ stepFraction: 0.3 })]).toEqual([
      ['stepFraction'],
      ['stepFraction'],
    ]);
  });
});

describe('what a sheet check says', () => {
  it('still holds, and is kept as it stands, under the same name and with the tone it was always wanted with', () => {
    const finding = find(seen(40.8));
    expect(finding).toMatchObject({ verdict: 'holds', powerFraction: 0.5, missing: [] });
    expect(finding.says).toMatch(/^Still holds: 50 % comes out 0.8 L\* lighter .*chance (over )?\d\d %/);
    expect(find(seen(39.2)).says).toMatch(/^Still holds: 50 % comes out 0.8 L\* darker /);
    expect(sheetCheck.settle(finding, layout)).toEqual([
      {
        name: 'engrave',
        at: { shade: 'deep' },
        cellIndex: null,
        sigma: expect.any(Number),
        value: { settings, lightness: 40, lightnessSigma: expect.any(Number), confidence: null },
      },
    ]);
  });
  it('never calls anything certain', () => {
    expect([0, 0.004, 0.5, 0.994, 1].map(percent)).toEqual(listed('under 1 %; under 1 %; 50 %; over 99 %; over 99 %'));
  });
  it('shifts power by as much as brings the tone back', () => {
    const finding = find(seen(43));
    // A tenth of an e-fold: 50 % times 1.105.
    expect(finding).toMatchObject({ verdict: 'shift', powerFraction: 0.553 });
    expect(finding.says).toMatch(/^Shift power by \+11 %, to 55.3 %: as it stands it comes out 3 L\* lighter /);
    expect(sheetCheck.settle(finding, layout)[0]!.value).toMatchObject({
      settings: { ...settings, powerFraction: 0.553 },
      lightness: 40,
    });
    expect(find(seen(37)).says).toMatch(/^Shift power by −9.5 %.* comes out 3 L\* darker /);
  });
  it('tells by how much the machine gives less, or more, were it the very same sheet, where a shift is clear', () => {
    // 11 % more power for the same tone: a tenth less light of each.
    const own = [{ ...kept, stale: ['its source has burned 900 h since'] }];
    const { source, photo } = find(seen(43), own);
    expect(source!.share).toBeCloseTo(
      deliveredPowerW(pairing.machine, 0.5) / deliveredPowerW(pairing.machine, 0.5 * photo!.times!),
      9,
    );
    expect(source!.share).toBeCloseTo(0.905, 2);
    expect(source!.sigma).toBeCloseTo(source!.share * photo!.timesSigma!, 9);
    expect(find(seen(37), own).source!.share).toBeCloseTo(1.105, 2);
    for (const at of [40, 40.9]) expect(find(seen(at), own).source).toBeNull();
    // Of another batch, the stock itself may take more.
    expect(find(seen(43)).source).toBeNull();
    // Patches that scatter tell no shift surely enough.
    const rough = seen(43);
    const unsure = { ...rough, readings: rough.readings.map((reading) => ({ ...reading, lightnessSigma: 4 })) };
    expect(find(unsure, own).source).toBeNull();
  });
  it('starts again where nothing tried brings it back, tone hardly follows power, or the cap is in the way', () => {
    expect(find(seen(50))).toMatchObject({ verdict: 'again', powerFraction: null });
    expect(find(seen(50)).says).toMatch(
      /^Start again: 50 % comes out 10 L\* lighter .* no power that was tried brings it/,
    );
    expect(find(seen(30)).says).toMatch(/^Start again: 50 % comes out 10 L\* darker /);
    expect(find(seen(44, { slope: 0 })).says).toMatch(/tone hardly follows power/);
    expect(sheetCheck.settle(find(seen(50)), layout)).toEqual([]);
    const low = { ...pairing, machine: { ...pairing.machine, powerCap: 0.52 } };
    const capped = sheetCheck.find(layout, seen(43), { pairing: low, facts: [kept] });
    expect(capped).toMatchObject({ verdict: 'again', powerFraction: null });
    expect(capped.says).toMatch(/above this machine’s cap/);
  });
  it('goes by the setting that burns like it, whatever its power is by now', () => {
    const later = factNow(
      'engrave',
      { ...kept.value, settings: { ...settings, powerFraction: 0.56 }, lightness: 43 } as never,
      { createdAt: '2026-07-01T00:00:00Z' },
    );
    const other = factNow(
      'engrave',
      { ...kept.value, settings: { ...settings, speedMmPerS: 41 }, lightness: 20 } as never,
      { createdAt: '2026-08-01T00:00:00Z' },
    );
    expect(find(seen(43), [other, later]).verdict).toBe('holds');
    // Another shade of the same speed, or the same power by another focus, is not what this card checks, however new.
    const strong = {
      ...later,
      value: { ...later.value, settings: { ...settings, powerFraction: 0.6 }, lightness: 30 },
    } as typeof later;
    const raised = {
      ...later,
      value: { ...later.value, settings: { ...settings, focusOffsetMm: 2 }, lightness: 30 },
    } as typeof later;
    expect(find(seen(40), [kept, strong, raised]).wanted).toMatchObject({ lightness: 40, at: { shade: 'deep' } });
    expect(find(seen(40), [strong, kept, raised]).wanted).toMatchObject({ lightness: 40, at: { shade: 'deep' } });
    expect(find(seen(40), [raised]).wanted).toBeNull();
    const deep = {
      ...strong,
      value: { ...strong.value, settings: { ...settings, powerFraction: 0.8 } },
    } as typeof later;
    expect(find(seen(40), [deep]).wanted).toBeNull();
    expect(find(seen(43), [other]).missing[0]).toMatch(/nothing to check/);
  });
  it('goes of two settings alike by the newer, whichever was told first', () => {
    const tone = { settings, lightness: 47, lightnessSigma: 0.4, confidence: 1 };
    const newer = factNow('engrave', tone, { createdAt: '2030-01-01T00:00:00Z' });
    for (const facts of tuples([kept, newer], [newer, kept])) expect(find(seen(40), facts).wanted!.lightness).toBe(47);
  });
  it('says of a patch its tone and by how much its power differs', () => {
    const patch = { cellIndex: 0, times: 1.08, lightness: 41.26, sigma: 0.4 };
    expect(checkedWords(patch)).toBe('L* 41.3 ± 0.8 at +8 %');
    expect(checkedWords({ ...patch, times: 0.926 })).toBe('L* 41.3 ± 0.8 at −7.4 %');
    expect(checkedWords({ ...patch, times: 1 })).toBe('L* 41.3 ± 0.8 at the setting');
  });
  it('asks for the old piece where no tone was kept, and for a photo or an eye where nothing was seen', () => {
    const untold = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
    expect(find(seen(40), [untold]).missing[0]).toMatch(/beside the old piece/);
    expect(find({ readings: [], answers: [] }).missing[0]).toMatch(/No photo/);
    expect(find(seen(40, { told: (index) => powerOf(index) === 0.5 })).missing[0]).toMatch(/Too few patches/);
  });
  it('takes the eye’s word before the photo’s', () => {
    expect(find(words((times) => (times > 0.9 && times < 1.1 ? 'same' : 'darker')))).toMatchObject({
      verdict: 'holds',
      by: 'eye',
      powerFraction: 0.5,
    });
    const paler = find({ ...seen(40), answers: words((times) => (times > 1.05 ? 'same' : 'lighter')).answers });
    // 1.08 and 1.1664 are the same: their middle by ratio is 1.1224.
    expect(paler).toMatchObject({ verdict: 'shift', by: 'eye', powerFraction: 0.561 });
    expect(find(words(() => 'darker'))).toMatchObject({ verdict: 'again', missing: [] });
    expect(find(words(() => 'darker')).says).toContain('all are darker');
    expect(find(words(() => 'lighter')).says).toContain('all are paler');
    const both = find(words((times) => (times > 1 ? 'darker' : 'lighter')));
    expect(both.says).toBe('Start again: no patch looks the same. Burn a grid.');
    expect(find(words((times) => (times === 1 ? 'darker' : null))).missing[0]).toMatch(
      /No patch was called the same yet/,
    );
  });
});
