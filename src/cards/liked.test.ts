import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import type { Answer, Seen } from '../core/card/asks';
import { layCard } from '../core/card/lay';
import { mainBurn, type Layout } from '../core/card/layout';
import { BETTER } from '../core/card/usual-asks';
import { bestOf } from '../components/use-comparing';
import { comparedPatches, findCeiling } from './ceiling/find';
import { ceiling } from './ceiling/index';
import { findFocus } from './focus/find';
import { focus } from './focus/index';
import { burnToGoBy, type PictureFinding } from './picture/find';
import { tuples } from '../../tests/support/tuples';

const birch = demoPairing('heron', 'birch');
const known = { pairing: birch, facts: [] };
/** The best of some cells wins against each other one, twice. */
const prefers = (best: number, others: readonly number[]): Answer[] =>
  [...others, ...others].map((other, repeat) => ({
    field: BETTER.field,
    cellIndex: best,
    repeat,
    value: String(other),
  }));
const said = (field: string, cellIndex: number, value: string): Answer => ({ field, cellIndex, repeat: 0, value });
const eye = (answers: readonly Answer[]): Seen => ({ readings: [], answers });

describe('the patch of a focus card that is liked best as a fill', () => {
  const layout = layCard(focus, focus.propose(known).plan, birch, { cardNumber: 3 });
  const offsetOf = (index: number): number => Number(layout.cells[index]!.levels.focus);
  const sorted = [...layout.order].sort((a, b) => offsetOf(a) - offsetOf(b));
  const middle = sorted.length >> 1;
  const [under, at, over] = [sorted[middle - 1]!, sorted[middle]!, sorted[middle + 1]!];
  const words = [
    said('gaps', under, 'blurred'),
    said('gaps', at, 'sharp'),
    said('gaps', over, 'closed'),
    said('gaps', sorted.at(-1)!, 'blurred'),
  ];

  it('gives the offset for fills, before what lines say, which stands beside it with its waist', () => {
    const lines = findFocus(layout, eye(words), known);
    expect(lines).toMatchObject({ fillMm: offsetOf(over), waistMm: offsetOf(at), liked: null });
    const sure = findFocus(layout, eye([...words, ...prefers(at, [over, under])]), known);
    expect(sure).toMatchObject({ fillMm: offsetOf(at), cellIndex: at, waistMm: lines.waistMm, missing: [] });
    expect(sure.says).toMatch(
      /^For fills 0 mm: liked best of 3 patches, in 4 comparisons: \d\d % sure\. By its lines it would be \+/,
    );
    // Between neighbours that are a step apart it may lie anywhere: a rectangle's standard deviation.
    const step = offsetOf(over) - offsetOf(at);
    expect(sure.sigmaMm).toBeCloseTo(Math.hypot(step / Math.sqrt(12), layout.focusScatterMm ?? 0), 6);
    const [only] = prefers(at, [over]);
    expect(findFocus(layout, eye([...words, only!]), known).fillMm).toBe(lines.fillMm);
  });
  it('is an answer where no lines were told, and then tells no waist', () => {
    const sure = findFocus(layout, eye(prefers(over, [at, under])), known);
    expect(sure).toMatchObject({ fillMm: offsetOf(over), waistMm: null, missing: [] });
    expect(focus.settle(sure).map(({ name }) => name)).toEqual(['focus']);
    // All alike by their lines is no waist at 0, once one is liked better.
    const alike = layout.order.map((index) => said('gaps', index, 'sharp'));
    const at0 = layout.order.find((index) => offsetOf(index) === 0)!;
    expect(findFocus(layout, eye(alike), known)).toMatchObject({ flat: true, fillMm: 0, cellIndex: at0 });
    expect(findFocus(layout, eye([...alike, ...prefers(over, [at, under])]), known)).toMatchObject({
      flat: false,
      fillMm: offsetOf(over),
      waistMm: null,
    });
  });
});

describe('the patch of step wedges that is liked best', () => {
  const layout: Layout = layCard(ceiling, ceiling.propose(known).plan, birch, { cardNumber: 4 });
  const powerOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction;
  const compared = comparedPatches(layout, eye([]));

  it('is one of a few strong ones of different powers, the strongest among them, none that was called spoiled', () => {
    const powers = compared.map(powerOf);
    const most = Math.max(...layout.cells.map(({ index }) => powerOf(index)));
    expect(compared.length).toBeGreaterThan(3);
    expect(compared.length).toBeLessThanOrEqual(8);
    expect(powers.at(-1)).toBe(most);
    expect(Math.min(...powers)).toBeGreaterThanOrEqual(most / 2);
    expect(powers.every((power, at) => at === 0 || power > 1.03 * powers[at - 1]!)).toBe(true);
    // Of many every so manieth, counted from the strongest.
    const { plan } = ceiling.propose(known);
    const wide = layCard(ceiling, { ...plan, steps: 16, patchMm: 2 }, birch, { cardNumber: 4 });
    const few = comparedPatches(wide, eye([])).map((index) => mainBurn(wide.cells[index]!).settings.powerFraction);
    expect(few.length).toBeLessThanOrEqual(8);
    expect(few.at(-1)).toBe(Math.max(...wide.cells.map((cell) => mainBurn(cell).settings.powerFraction)));
    const strongest = layout.order.filter((index) => powerOf(index) === most);
    const sound = comparedPatches(layout, eye(strongest.map((index) => said('outcome', index, 'charred'))));
    expect(Math.max(...sound.map(powerOf))).toBeLessThan(most);
  });
  it('gives the ceiling, which lies between those next to it that were compared', () => {
    const [lower, best, higher] = compared.slice(-4, -1) as [number, number, number];
    const finding = findCeiling(layout, eye(prefers(best, [lower, higher])), known);
    expect(finding).toMatchObject({ ceiling: powerOf(best), low: powerOf(lower), high: powerOf(higher), missing: [] });
    expect(finding.says).toMatch(/ % is liked best of 3 patches, in 4 comparisons: \d\d % sure\.$/);
    const [fact] = ceiling.settle(finding, layout);
    expect(fact!.value).toMatchObject({ powerFraction: powerOf(best) });
    expect(fact!.sigma).toBeCloseTo((powerOf(higher) - powerOf(lower)) / 4, 9);
    const strongest = compared.at(-1)!;
    expect(findCeiling(layout, eye(prefers(strongest, [lower, higher])), known)).toMatchObject({
      ceiling: powerOf(strongest),
      low: powerOf(higher),
      high: powerOf(strongest),
    });
    expect(findCeiling(layout, eye([]), known).missing).toHaveLength(1);
  });
});

describe('the burn of a picture that is liked better', () => {
  const part = (cellIndex: number, rmsL: number, word: string | null = null) => ({ cellIndex, word, fit: { rmsL } });
  const finding = (first: number, word: string | null = null) =>
    ({
      missing: [],
      parts: [part(0, 2, word), part(1, 5)],
      liked: {
        comparisons: 2,
        ranking: [
          { cellIndex: first, best: 0.9 },
          { cellIndex: 1 - first, best: 0.1 },
        ],
      },
    }) as unknown as PictureFinding;

  it('goes before what is off by less, but not before one that alone is called right', () => {
    expect(burnToGoBy(finding(1))!.cellIndex).toBe(1);
    expect(burnToGoBy({ ...finding(1), liked: null })!.cellIndex).toBe(0);
    expect(burnToGoBy(finding(1, 'right'))!.cellIndex).toBe(0);
    // Of those that nobody compared the one that is off by least, wherever it lies; of two alike the first.
    const uncompared = (...parts: object[]) => burnToGoBy({ ...finding(1), liked: null, parts } as never)!.cellIndex;
    expect([uncompared(part(0, 5), part(1, 2)), uncompared(part(0, 2), part(1, 2))]).toEqual([1, 0]);
  });
  it('is asked with sides changed each time', () => {
    const next = bestOf([4, 7]);
    const once = [{ better: 4, worse: 7, equal: false, repeat: 0 }];
    expect([next([]), next(once)]).toEqual(tuples([4, 7], [7, 4]));
  });
});
