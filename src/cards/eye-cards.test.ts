import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../tests/support/demo';
import type { Answer, Seen } from '../core/card/asks';
import { layCard } from '../core/card/lay';
import { mainBurn, type Layout } from '../core/card/layout';
import { focus } from './focus';
import { interval } from './interval';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };

/** Answers by the cells' place along their channel, lowest level first; '' for none. */
function said(layout: Layout, field: string, level: (index: number) => number, words: readonly string[]): Seen {
  const sorted = layout.cells.map((cell) => cell.index).sort((a, b) => level(a) - level(b));
  return {
    readings: [],
    answers: words.flatMap((value, place): Answer[] =>
      value === '' ? [] : [{ field, cellIndex: sorted[place]!, repeat: 0, value }],
    ),
  };
}

describe('the line interval', () => {
  const { plan } = interval.propose(known);
  const layout = layCard(interval, plan, pairing, { cardNumber: 3 });
  const level = (index: number): number => mainBurn(layout.cells[index]!).settings.intervalMm;
  const levels = layout.cells.map((cell) => level(cell.index)).sort((a, b) => a - b);
  const find = (...words: string[]) => interval.find(layout, said(layout, 'lines', level, words), known);

  it('is the coarsest that looks even, sure to about a step', () => {
    const finding = find('mud', 'even', 'even', 'even', 'apart', 'apart');
    expect(finding.intervalMm).toBe(levels[3]);
    expect(finding.sigmaMm).toBeCloseTo((levels[4]! - levels[3]!) / Math.sqrt(12), 9);
    expect(interval.settle(finding)).toMatchObject([{ name: 'interval', value: { intervalMm: levels[3] } }]);
    // Coarser costs less: areas filled by fewer lines.
    expect(finding.strips[3]!.timeS).toBeLessThan(finding.strips[0]!.timeS);
  });
  it.each([
    [['apart', 'apart', 'apart', 'apart', 'apart', 'apart'], /every strip: burn finer/],
    [['mud', 'mud', 'mud', 'mud', 'mud', 'mud'], /muddy/],
    [['mud', 'mud', 'mud', 'apart', 'apart', 'apart'], /No strip is even/],
    [['mud', 'apart', 'even', 'even', 'apart', 'apart'], /look again/],
    [[], /Say of each strip/],
  ])('says what is missing after %j', (words, missing) => {
    const finding = find(...words);
    expect(finding.missing[0]).toMatch(missing);
    expect(interval.settle(finding)).toEqual([]);
  });
  it('says that coarser ones were not tried', () => {
    const finding = find('mud', 'even', 'even', 'even', 'even', 'even');
    expect(finding.sigmaMm).toBeNull();
    expect(finding.says).toMatch(/none was tried/);
  });
  it('has three steps of power in each strip, weak to full, at the strip’s own interval', () => {
    for (const cell of layout.cells) {
      const powers = cell.burns.map((burn) => burn.settings.powerFraction);
      expect(powers).toHaveLength(3);
      expect(Math.max(...powers)).toBe(plan.constants.powerFraction);
      expect(Math.min(...powers)).toBeLessThan(0.7 * plan.constants.powerFraction);
      expect(new Set(cell.burns.map((burn) => burn.settings.intervalMm)).size).toBe(1);
    }
  });
});

describe('the focus', () => {
  const { plan } = focus.propose(known);
  const layout = layCard(focus, plan, pairing, { cardNumber: 4 });
  const level = (index: number): number => mainBurn(layout.cells[index]!).settings.focusOffsetMm;
  const levels = layout.cells.map((cell) => level(cell.index)).sort((a, b) => a - b);
  const find = (...words: string[]) => focus.find(layout, said(layout, 'gaps', level, words), known);

  it('is tested on both sides of what was set, itself included', () => {
    expect(levels).toHaveLength(5);
    expect(levels[0]).toBeLessThan(0);
    expect(levels[2]).toBe(0);
    expect(levels[4]).toBe(-levels[0]!);
  });
  it('is found the same whatever order its patches were burned in', () => {
    const seen = said(layout, 'gaps', level, ['blurred', 'closed', 'sharp', 'closed', 'blurred']);
    const turned = { ...layout, order: [...layout.order].reverse() };
    const finding = focus.find(turned, seen, known);
    expect(finding).toEqual(focus.find(layout, seen, known));
    expect(finding.patches.map(({ offsetMm }) => offsetMm)).toEqual(levels);
  });
  it('tells the waist from the offset for fills, and takes the raised one of two equals', () => {
    const finding = find('blurred', 'closed', 'sharp', 'closed', 'blurred');
    expect(finding.waistMm).toBe(0);
    expect(finding.fillMm).toBe(levels[3]);
    const [draft] = focus.settle(finding);
    expect(draft).toMatchObject({ name: 'focus', value: { focusOffsetMm: levels[3], flat: false } });
    expect(draft!.sigma).toBeCloseTo((levels[1]! - levels[0]!) / Math.sqrt(12), 9);
  });
  it('follows a waist that lies off what was set', () => {
    const finding = find('blurred', 'blurred', 'closed', 'sharp', 'closed');
    expect(finding.waistMm).toBe(levels[3]);
    expect(finding.fillMm).toBe(levels[4]);
  });
  it('says flat when all look alike, and what is missing otherwise', () => {
    expect(find('closed', 'closed', 'closed', 'closed', 'closed')).toMatchObject({
      flat: true,
      fillMm: 0,
      missing: [],
    });
    expect(find('blurred', 'blurred', 'blurred', 'blurred', 'blurred').missing[0]).toMatch(/far off/);
    expect(find('blurred', 'sharp', 'sharp', 'sharp', 'blurred').missing[0]).toMatch(/just close/);
    expect(find('sharp', 'blurred', 'sharp', 'closed', 'blurred').missing[0]).toMatch(/look again/);
    expect(find('sharp', 'closed').missing[0]).toMatch(/three/);
  });
  it('does not name a waist that its range does not bound', () => {
    const finding = find('sharp', 'sharp', 'sharp', 'closed', 'blurred');
    expect(finding.waistMm).toBeNull();
    expect(finding.says).toMatch(/stays open/);
  });
});
