import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { ownMates, pairsOfCard, stepsOfPair } from '../../core/card/mates-of-card';
import { FITS, type Fit } from '../../core/fit/fit-bounds';
import { boxOfRing } from '../../core/part/polygons';
import type { KnobsPlan } from './plan';
import { knobs } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'acrylic');
const known = { pairing, facts: [] };
const laid = (change: Partial<KnobsPlan> = {}) => layCard(knobs, { ...plan, ...change }, pairing, { cardNumber: 5 });
let plan: KnobsPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = knobs.propose(known));
  layout = laid();
});

/** Answers of a hand that finds each fit from so much drawn clearance on, full width. */
function told(card: typeof layout, fromMm: readonly [number, number, number, number]): Answer[] {
  return pairsOfCard(card, { answers: [] }).map(({ cellIndex, other, tighterMm }) =>
    said('mate', cellIndex, FITS[fromMm.filter((at) => -2 * tighterMm >= at).length]!, other),
  );
}
const find = (answers: readonly Answer[], fit: 'press' | 'snug' | 'slip' = 'snug', card = layout) =>
  knobs.find(card, { readings: [], answers }, known, { fit });
const BOUNDS = [-0.5, -0.42, -0.3, -0.2] as const;

describe('a ladder of knobs', () => {
  it('goes by even sums from what rattles to what does not go in, both kerfs taken together', () => {
    const sums = pairsOfCard(layout, { answers: [] })
      .map(({ tighterMm }) => tighterMm)
      .sort((a, b) => a - b);
    expect(sums).toHaveLength(16);
    sums.forEach((sum, k) => expect(sum).toBeCloseTo(plan.fromMm + k * plan.stepMm, 6));
    // What is between two once cut: what was drawn, and what both cuts take.
    expect(-2 * sums[0]! + 2 * plan.kerfMm).toBeCloseTo(2 * plan.kerfMm, 9);
    expect(-2 * sums[15]! + 2 * plan.kerfMm).toBeCloseTo(-0.08, 1);
  });

  it('draws parts larger and holes smaller by what they are tighter, on every side', () => {
    for (const { box, levels, wanted } of layout.cells) {
      const by = (levels.side === 'part' ? 2 : -2) * Number(levels.tighter);
      expect(box.width).toBeCloseTo(plan.headMm + by, 2);
      expect(box.height).toBeCloseTo(1.6 * plan.headMm + by, 2);
      expect(boxOfRing(wanted!.outline).width).toBeCloseTo(box.width, 9);
    }
    // Every part has its number burned on it before it is cut.
    expect(layout.before).toHaveLength(4);
    expect(knobs.draw(plan, pairing)).toMatchObject({ units: 'TIGHTER A SIDE, MM' });
  });

  it('calls a pair by its hole and its part, each by its place in its own ladder', () => {
    const own = ownMates(layout);
    const pair = { cellIndex: own[1]!, other: 2 };
    expect(stepsOfPair(layout, pair)).toEqual({ hole: 1, part: 2 });
    const turned = { ...layout, mates: { ...layout.mates!, own: 'part' as const } };
    expect(stepsOfPair(turned, { cellIndex: ownMates(turned)[1]!, other: 2 })).toEqual({ hole: 2, part: 1 });
    expect(ownMates({ cells: layout.cells })).toEqual([]);
  });
  it('is none without holes that take parts', () => {
    const { mates: _, ...without } = layout;
    expect(find(told(layout, BOUNDS), 'snug', without).missing[0]).toMatch(/has no holes and parts/);
  });

  it('says the sum for a fit, whoever takes it, and keeps where fits begin', () => {
    const finding = find(told(layout, BOUNDS));
    expect(finding.missing).toEqual([]);
    // Snug lies between −0.42 and −0.3 of drawn clearance: half of that on every side.
    expect(finding.tighterMm!).toBeGreaterThan(0.15);
    expect(finding.tighterMm!).toBeLessThan(0.21);
    expect(finding.betweenMm!).toBeCloseTo(2 * plan.kerfMm - 2 * finding.tighterMm!, 9);
    expect(finding.says).toMatch(/^Drawn tighter by 0\.1[5-9]\d* mm a side in all/);
    expect(find(told(layout, BOUNDS), 'press').tighterMm!).toBeGreaterThan(finding.tighterMm!);
    const [draft] = knobs.settle(finding, layout);
    expect(draft).toMatchObject({ name: 'mating', value: { holeKerfMm: plan.kerfMm, partKerfMm: plan.kerfMm } });
    expect(draft!.at).not.toHaveProperty('part');
    const next = knobs.propose({ pairing, facts: [factNow('mating', draft!.value as never)] });
    // From a little looser than what was loose, to a little tighter than what did not go in.
    expect(next.plan.fromMm).toBeCloseTo((0.2 - 0.05) / 2, 1);
    expect(next.plan.fromMm + 15 * next.plan.stepMm).toBeCloseTo((0.5 + 0.05) / 2, 1);
  });

  it('wants pairs that differ, and names those that contradict the others', () => {
    const all = (fit: Fit): Answer[] => told(layout, BOUNDS).map((answer) => ({ ...answer, value: fit }));
    expect(find([]).missing[0]).toMatch(/4 pairs/);
    expect(find(all('no')).missing[0]).toMatch(/looser/);
    expect(find(all('loose')).missing[0]).toMatch(/wider steps/);
    const tightest = pairsOfCard(layout, { answers: [] }).sort((a, b) => b.tighterMm - a.tighterMm)[0]!;
    const wrong = told(layout, BOUNDS).map((answer) =>
      answer.cellIndex === tightest.cellIndex && answer.repeat === tightest.other
        ? { ...answer, value: 'loose' }
        : answer,
    );
    expect(find(wrong).odd).toMatchObject([{ cellIndex: tightest.cellIndex, other: tightest.other }]);
  });

  it('is cut in halves for an inlay of two stocks, each with its own kerf', () => {
    const inlay = { otherStock: 'Birch ply', otherKerfMm: 0.3, kerfMm: 0.2 } as const;
    const [holes, parts] = [laid({ ...inlay, cutHere: 'holes' }), laid({ ...inlay, cutHere: 'parts' })];
    expect(holes.cells.map(({ levels }) => levels.side)).toEqual(Array(4).fill('hole'));
    expect(parts.cells.map(({ levels }) => levels.side)).toEqual(Array(4).fill('part'));
    expect(holes.mates).toMatchObject({ own: 'hole', kerfMm: { hole: 0.2, part: 0.3 } });
    expect(parts.mates).toMatchObject({ own: 'part', kerfMm: { hole: 0.3, part: 0.2 } });
    expect(laid({ ...inlay, cutHere: 'both' }).mates!.kerfMm).toEqual({ hole: 0.2, part: 0.2 });
    expect(parts.mates!.othersMm).toEqual(holes.cells.map(({ levels }) => levels.tighter));
    const finding = find(told(parts, BOUNDS), 'snug', parts);
    expect(finding.betweenMm!).toBeCloseTo(0.5 - 2 * finding.tighterMm!, 9);
    const [draft] = knobs.settle(finding, parts);
    expect(draft!.at).toMatchObject({ part: 'holes of Birch ply' });
  });

  it('refuses what cannot be drawn or told', () => {
    const fieldOf = (change: Partial<KnobsPlan>) => knobs.check({ ...plan, ...change }, pairing)[0]?.field;
    expect(fieldOf({})).toBeUndefined();
    expect(fieldOf({ holes: 1, parts: 3 })).toBe('parts');
    expect(fieldOf({ holes: 7 })).toBe('holes');
    expect(fieldOf({ stepMm: 0.12 })).toBe('stepMm');
    expect(fieldOf({ kerfMm: -0.1 })).toBe('kerfMm');
    expect(fieldOf({ otherKerfMm: 3 })).toBeUndefined();
    expect(fieldOf({ cutHere: 'holes', otherKerfMm: 3 })).toBe('otherKerfMm');
    expect(fieldOf({ gapMm: 1 })).toBe('gapMm');
    expect(fieldOf({ headMm: 3 })).toBe('headMm');
  });
});
