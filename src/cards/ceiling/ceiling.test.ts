import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { CellReading } from '../../core/reading/observations';
import { responseOf } from '../../core/stock/response';
import { BETTER } from '../../core/card/usual-asks';
import { formatPower } from '../../core/quantities/format';
import type { CeilingPlan } from './plan';
import { wedgeWords } from './find';
import { ceiling } from '.';

const pairing = demoPairing('marl', 'slate');
const known = { pairing, facts: [] };
const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
let plan: CeilingPlan;
let layout: Layout;
let highest: number;
beforeEach(() => {
  ({ plan } = ceiling.propose(known));
  layout = layCard(ceiling, plan, pairing, { cardNumber: 5 });
  highest = plan.top.to;
});
const find = (seen: Seen) => ceiling.find(layout, seen, known);
/** Patches as strong as a law has it, darker or lighter than stock, with what an operator said of some. */
const seen = (
  strength: (power: number) => number,
  {
    sigma = 0.4,
    way = -1,
    said = () => null as string | null,
    told = () => true,
  }: { sigma?: number; way?: 1 | -1; said?: (power: number) => string | null; told?: (index: number) => boolean } = {},
): Seen => ({
  readings: layout.order
    .filter(told)
    .map(
      (cellIndex) =>
        ({ cellIndex, deltaLightness: way * strength(powerOf(cellIndex)), lightnessSigma: sigma }) as CellReading,
    ),
  answers: layout.order.flatMap((cellIndex) => {
    const value = said(powerOf(cellIndex));
    return value === null ? [] : [{ field: 'outcome', cellIndex, repeat: 0, value }];
  }),
});
/** Straight up to 40 L* at half of the highest power, and flat from there. */
const bent = (power: number): number => 40 * Math.min(1, power / (highest / 2));

describe('a card of step wedges', () => {
  it('goes up in even steps to each top, the greatest at the top and the strongest at the right', () => {
    expect(layout.cells).toHaveLength(plan.top.count * plan.steps);
    const tops = [...new Set(layout.cells.map(({ levels }) => Number(levels.top)))];
    for (const top of tops) {
      const wedge = layout.cells.filter(({ levels }) => levels.top === top);
      const powers = wedge.map(({ levels }) => Number(levels.power));
      expect(powers.at(-1)).toBe(top);
      const step = (top - plan.floorFraction) / plan.steps;
      powers.forEach((power, k) => expect(power).toBeCloseTo(plan.floorFraction + (k + 1) * step, 3));
      expect(wedge.map(({ box }) => box.x)).toEqual([...wedge.map(({ box }) => box.x)].sort((a, b) => a - b));
    }
    const rowOf = (top: number): number => layout.cells.find(({ levels }) => levels.top === top)!.box.y;
    expect(rowOf(Math.max(...tops))).toBeLessThan(rowOf(Math.min(...tops)));
  });
  it('ends just below what spoils, slower where the cap does not reach that, at the kept speed where one is kept', () => {
    const { over, deep } = responseOf(pairing.stock, pairing.machine).energies;
    const most = Math.max(...layout.cells.map((cell) => deliveredBy(mainBurn(cell).settings, pairing).arealJPerMm2));
    expect(most).toBeLessThan(over);
    expect(most).toBeGreaterThan(deep);
    const weak = { ...pairing, machine: { ...pairing.machine, ratedPowerW: 5, powerTable: null } };
    expect(ceiling.propose({ pairing: weak, facts: [] }).plan.constants.speedMmPerS).toBeLessThan(
      plan.constants.speedMmPerS / 3,
    );
    const settings = { ...plan.constants, powerFraction: 0.4, speedMmPerS: 77 };
    const kept = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
    expect(ceiling.propose({ pairing, facts: [kept] }).plan.constants.speedMmPerS).toBe(77);
    const floor = factNow('floor', { powerFraction: 0.11 });
    expect(ceiling.propose({ pairing, facts: [floor] }).plan.floorFraction).toBe(0.11);
    expect(ceiling.propose({ pairing, facts: [{ ...floor, stale: ['new batch'] }] }).plan.floorFraction).toBe(
      plan.floorFraction,
    );
  });
  it('has tops that differ enough to tell anything, also where the cap is low', () => {
    for (const powerCap of [1, 0.5, 0.25]) {
      const low = { ...pairing, machine: { ...pairing.machine, powerCap } };
      const settings = { ...plan.constants, powerFraction: 0.2, speedMmPerS: 300 };
      const kept = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
      for (const facts of [[], [kept]]) {
        const { top } = ceiling.propose({ pairing: low, facts }).plan;
        expect(top.to).toBeLessThanOrEqual(powerCap);
        expect(top.to / top.from).toBeGreaterThan(1.55);
      }
    }
  });
  it('is refused with tops past the cap, a floor above them, or too few steps', () => {
    const fields = (change: object) => ceiling.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ top: { ...plan.top, to: pairing.machine.powerCap + 0.05 } })).toEqual(['top.to']);
    for (const floorFraction of [plan.top.from, -0.01]) expect(fields({ floorFraction })).toEqual(['floorFraction']);
    for (const steps of [3, 17, 5.5]) expect(fields({ steps })).toEqual(['steps']);
    expect(fields({ patchMm: 1 })).toEqual(['patchMm']);
    expect(fields({ gapMm: 0.4 })).toEqual(['gapMm']);
  });
});

describe('what step wedges say', () => {
  it('is the least power within 2 L* of the strongest, whichever way the burn turns', () => {
    // Within 2 of 40, by hand: 0.95 of where it levels off.
    for (const way of [1, -1] as const) {
      const { ceiling: found, low, high, missing, says } = find(seen(bent, { way }));
      expect(missing).toEqual([]);
      expect(Math.abs(found! / (0.95 * (highest / 2)) - 1)).toBeLessThan(0.03);
      expect(low!).toBeLessThan(found!);
      expect(high!).toBeGreaterThan(found!);
      expect(says).toMatch(/nothing gets stronger by 2 L\*: more power only goes deeper\.$/);
    }
  });
  it('tells of each wedge how many of its strongest steps look the same', () => {
    const { wedges } = find(seen(bent));
    for (const { top, steps, merged } of wedges) {
      expect(steps).toBe(plan.steps);
      const powers = layout.cells.filter(({ levels }) => levels.top === top).map(({ levels }) => Number(levels.power));
      expect(merged, String(top)).toBe(powers.filter((power) => bent(top) - bent(power) < 2).length);
    }
    expect(wedges.at(-1)!.merged).toBeGreaterThan(2);
    expect(wedges[0]!.merged).toBeLessThan(3);
    // Of a wedge of which nothing was read, nothing.
    const top = wedges[0]!.top;
    const others = find(seen(bent, { told: (index) => layout.cells[index]!.levels.top !== top })).wedges;
    expect(others.map((wedge) => wedge.top)).toEqual(wedges.slice(1).map((wedge) => wedge.top));
  });
  it('is less where patches from there on were called spoiled, and leaves those out', () => {
    const from = 0.3 * highest;
    const spoiled = (power: number) => (power >= from ? 'charred' : null);
    const { ceiling: found, high, says, patches, spoiledFrom } = find(seen(bent, { said: spoiled }));
    expect(found!).toBeLessThan(from);
    expect(patches.every(({ power }) => power < from)).toBe(true);
    expect(high).toBe(spoiledFrom);
    expect(spoiledFrom).toBe(Math.min(...layout.order.map(powerOf).filter((power) => power >= from)));
    expect(says).toMatch(/called spoiled/);
    // Spoiled only past the ceiling: it stays, and no range reaches in there.
    const later = find(seen(bent, { said: (power) => (power > 0.8 * highest ? 'burned-through' : null) }));
    expect(Math.abs(later.ceiling! / (0.475 * highest) - 1)).toBeLessThan(0.03);
    expect(find(seen(bent, { said: () => 'charred' })).ceiling).toBeNull();
    // Where the weakest was called so, none is sound.
    const weakest = Math.min(...layout.order.map(powerOf));
    const none = find(seen(bent, { said: (power) => (power === weakest ? 'charred' : null) }));
    expect([none.ceiling, none.missing[0]]).toEqual([null, expect.stringMatching(/^Even the weakest patches/)]);
  });
  it('goes by the least power that was called spoiled, be stronger patches not', () => {
    const powers = [...new Set(layout.order.map(powerOf))].sort((a, b) => a - b);
    const spoiled = powers.find((power) => power > 0.3 * highest)!;
    const {
      ceiling: found,
      low,
      high,
      says,
    } = find(seen(bent, { said: (power) => (power === spoiled ? 'charred' : null) }));
    expect(found).toBe(powers[powers.indexOf(spoiled) - 1]);
    expect([low, high]).toEqual([found, spoiled]);
    expect(says).toMatch(/called spoiled/);
  });
  it('knows which way a burn turns by its strong patches, whatever weak ones seem to do', () => {
    const odd = find(seen((power) => bent(power) - 8));
    expect(odd.patches.at(-1)!.strength).toBeGreaterThan(0);
    expect(Math.abs(odd.ceiling! / (0.475 * highest) - 1)).toBeLessThan(0.03);
    const mostlyOdd = find(seen((power) => (power > 0.35 * highest ? 40 : -3)));
    expect(mostlyOdd.patches.at(-1)!.strength).toBe(40);
  });
  it('is not told where patches still get stronger, hardly mark, or are not read surely', () => {
    const rising = find(seen((power) => 40 * power));
    expect(rising.ceiling).toBeNull();
    expect(rising.missing[0]).toMatch(/still get stronger/);
    expect(ceiling.settle(rising, layout)).toEqual([]);
    const capped = { ...pairing, machine: { ...pairing.machine, powerCap: highest } };
    expect(
      ceiling.find(
        layout,
        seen((power) => 40 * power),
        { pairing: capped, facts: [] },
      ).missing[0],
    ).toMatch(/this machine’s cap/);
    expect(find(seen(() => 0.5)).missing[0]).toMatch(/hardly any marked/);
    expect(find(seen(bent, { sigma: 8 })).missing[0]).toMatch(/not sure enough/);
    expect(find(seen(bent, { told: (index) => index < 5 })).missing[0]).toMatch(/Too few/);
    expect(find({ readings: [], answers: [] }).missing[0]).toMatch(/No photo/);
  });
  it('says from which power on edges darken, spoiled patches among them, and keeps it', () => {
    const plain = seen(bent);
    const rim = (power: number): number => -Math.max(0, (20 * (power - 0.3 * highest)) / highest);
    const readings = plain.readings.map((reading) => ({ ...reading, edgeHalo: rim(powerOf(reading.cellIndex)) }));
    const found = find({ ...plain, readings });
    // 2 L* by hand: a tenth of the highest power past where it begins.
    expect(found.edges!.from / highest).toBeCloseTo(0.4, 1);
    expect(found.says).toMatch(/edges darken: soot, which wipes off, or char\.$/);
    expect(ceiling.settle(found, layout)[0]!.value).toMatchObject({ edgesFraction: found.edges!.from });
    const charred = readings.map(({ cellIndex }) => ({ field: 'outcome', cellIndex, repeat: 0, value: 'charred' }));
    expect(find({ readings, answers: charred }).edges).toEqual(found.edges);
    // Lighter rims, or photos that were read before rims were looked at, tell nothing.
    expect(find({ ...plain, readings: readings.map((one) => ({ ...one, edgeHalo: -one.edgeHalo })) }).edges).toBeNull();
    expect(find(plain).edges).toBeNull();
    expect(ceiling.settle(find(plain), layout)[0]!.value).toMatchObject({ edgesFraction: null });
  });
  it('says where patches get weaker again', () => {
    const grey = find(seen((power) => (power < 0.6 * highest ? bent(power) : 25)));
    expect(grey.says).toMatch(/even get weaker again\.$/);
    expect(Math.abs(grey.ceiling! / (0.475 * highest) - 1)).toBeLessThan(0.03);
  });
  it('stands beside the patch that is liked best, where that is another power', () => {
    const byPower = [...layout.order].sort((a, b) => powerOf(a) - powerOf(b));
    const liking = (best: number): Seen => {
      const pairs = byPower.slice(-3).flatMap((other) => (other === best ? [] : Array(4).fill(String(other))));
      const answers = pairs.map((value, repeat) => ({ field: BETTER.field, cellIndex: best, repeat, value }));
      return { ...seen(bent), answers };
    };
    const measured = find(seen(bent)).ceiling!;
    const other = find(liking(byPower.at(-2)!));
    expect(other.ceiling).toBe(powerOf(byPower.at(-2)!));
    expect(other.says).toMatch(`By how strong patches are it would be ${formatPower(measured)}.`);
    const away = (index: number): number => Math.abs(powerOf(index) - measured);
    const near = [...byPower].sort((a, b) => away(a) - away(b))[0]!;
    const flat = (power: number): number => bent((power * measured) / powerOf(near));
    const same = ceiling.find(layout, { ...seen(flat), answers: liking(near).answers }, known);
    expect(Math.abs(find(seen(flat)).ceiling! - powerOf(near))).toBeLessThan(0.005);
    expect(same.says).toMatch(/liked best of .*% sure\.$/);
  });
  it('is kept for the speed and interval it was found at, with a quarter of its range', () => {
    const finding = find(seen(bent));
    const { speedMmPerS, intervalMm, passes } = mainBurn(layout.cells[0]!).settings;
    expect(ceiling.settle(finding, layout)).toEqual([
      {
        name: 'ceiling',
        at: { speed: speedMmPerS, interval: intervalMm, passes },
        value: { powerFraction: finding.ceiling, edgesFraction: null },
        sigma: (finding.high! - finding.low!) / 4,
        cellIndex: null,
      },
    ]);
  });
  it('says of each wedge how many of its steps look the same', () => {
    expect(wedgeWords({ top: 0.5, steps: 8, merged: 1 })).toBe('all 8 steps differ');
    expect(wedgeWords({ top: 0.5, steps: 8, merged: 0 })).toBe('all 8 steps differ');
    expect(wedgeWords({ top: 0.5, steps: 8, merged: 2 })).toBe('the strongest 2 of 8 steps look the same');
  });
});
