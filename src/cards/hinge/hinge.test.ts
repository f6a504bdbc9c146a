import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer } from '../../core/card/asks';
import { layCard, planProblems } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { linesOf } from '../../core/card/shape';
import { radiusOverStrength } from '../../core/hinge/bend';
import type { HingePlan } from './plan';
import { USUAL_HINGE_WISH, type HingeWish } from './find';
import { hinge } from '.';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'alder');
let plan: HingePlan;
let layout: Layout;
const propose = (): void => {
  ({ plan } = hinge.propose({ pairing, facts: [] }));
  layout = layCard(hinge, plan, pairing, { cardNumber: 51 });
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);

describe('strips of slits', () => {
  it('go by the sheet as it was measured, and say so where nobody did', () => {
    const unread = { ...pairing, stock: { ...pairing.stock, thicknessReadingsMm: [] } };
    expect(hinge.propose({ pairing, facts: [] }).reasons['thicknessMm']).toBe('as measured');
    expect(hinge.propose({ pairing: unread, facts: [] }).reasons['thicknessMm']).toMatch(
      /^the label’s: measure the sheet/,
    );
  });
  it('are lettered with their pitches, and with the unit in capitals as everything is lettered', () => {
    const drawn = hinge.draw(plan, pairing);
    expect(drawn.units).toBe('HINGE MM');
    expect(drawn.labels.map(({ text }) => Number(text))).toEqual(
      layout.cells.map(({ levels }) => expect.closeTo(levels.pitch as number, 1)),
    );
  });
  it('have the slits of their pitch, cut before the strip itself comes loose', () => {
    expect(layout.cells.map(({ levels }) => levels.pitch)).toEqual([1.75, 2.6458, 4]);
    for (const { burns, box, levels, wanted } of layout.cells) {
      const [slits, outline] = burns.map(({ shape }) => linesOf(shape));
      expect(outline).toHaveLength(1);
      const rows = [...new Set(slits!.map(([a]) => a!.y.toFixed(3)))].map(Number).sort((a, b) => a - b);
      expect(rows).toHaveLength(Math.floor(plan.fieldMm / (levels.pitch as number)));
      for (const [a, b] of slits!) {
        expect(Math.min(a!.x, b!.x)).toBeGreaterThanOrEqual(box.x + plan.bridgeMm / 2 - 1e-3);
        expect(Math.max(a!.x, b!.x)).toBeLessThanOrEqual(box.x + box.width - plan.bridgeMm / 2 + 1e-3);
        expect(a!.y).toBeGreaterThan(box.y + plan.holdMm);
      }
      expect(wanted!.hinge).toMatchObject({
        pitchMm: levels.pitch,
        slitMm: plan.slitMm,
        thicknessMm: plan.thicknessMm,
      });
    }
  });

  it('are crossed where they are to bend both ways, with levels of their own', () => {
    const crossed = hinge.follow({ ...plan, pattern: 'crossed' }, 'pattern', plan);
    expect(crossed.pitch.from).toBeLessThan(plan.pitch.from);
    const [first] = layCard(hinge, crossed, pairing, { cardNumber: 51 }).cells;
    const slits = linesOf(first!.burns[0]!.shape);
    expect(slits.some(([a, b]) => a!.x === b!.x)).toBe(true);
    expect(slits.some(([a, b]) => a!.y === b!.y)).toBe(true);
    expect(first!.wanted!.hinge).toMatchObject({ pattern: 'crossed', bridgeMm: crossed.pitch.from });
    expect(hinge.follow(plan, 'slitMm', plan)).toBe(plan);
  });

  it('lie side by side in both patterns, each judged by its own, and are compared by what they take to cut', () => {
    const both = hinge.follow({ ...plan, pattern: 'both' }, 'pattern', plan);
    const card = layCard(hinge, both, pairing, { cardNumber: 51 });
    expect(card.cells.map(({ levels }) => levels.part)).toEqual([
      'staggered rows',
      'staggered rows',
      'crossed slits',
      'crossed slits',
    ]);
    // Crossed slits of this stock break at twice the strength.
    const answers = card.cells.map(({ wanted }, cellIndex): Answer => {
      const strength = wanted!.hinge!.pattern === 'rows' ? 70 : 140;
      return { field: 'radius', cellIndex, repeat: 0, value: (strength * radiusOverStrength(wanted!.hinge!)) / 0.9 };
    });
    const finding = hinge.find(
      card,
      { readings: [], answers },
      { pairing, facts: [] },
      { ...USUAL_HINGE_WISH, radiusMm: 400 },
    );
    const told = finding.strengths.map(({ pattern, strength }) => [pattern, Math.round(strength.median)]);
    expect(told).toEqual(tuples(['rows', 70], ['crossed', 140]));
    expect(finding.radii).toHaveLength(4);
    expect(finding.hinges).toHaveLength(2);
    expect(finding.hinges[0]!.cutMm).toBeLessThan(finding.hinges[1]!.cutMm);
    expect(hinge.settle(finding).map(({ at, value }) => [at.part, Math.round(value.strength)])).toEqual([
      ['staggered rows', 70],
      ['crossed slits', 140],
    ]);
    const tight = { ...both, crossed: { ...both.crossed, between: { ...both.crossed.between, from: 0.3 } } };
    expect(planProblems(hinge, tight, pairing)[0]).toMatchObject({ field: 'crossed.between.from' });
  });

  it('planned before both could lie on one card are what they were', () => {
    const { crossed: _, ...old } = plan;
    expect(hinge.upgrade({ ...old, version: 1 })).toEqual(plan);
  });

  it.each([
    ['pitch.from', { pitch: { ...plan.pitch, from: 0.15, to: 1 } }, 'nothing is left'],
    ['pitch.from', { pitch: { ...plan.pitch, from: 0.4, to: 1 } }, 'less than 0.3 mm'],
    ['pitch.from', { slitMm: 3, bridgeMm: 5 }, 'do not overlap'],
    ['fieldMm', { fieldMm: 7 }, 'Two rows'],
    ['widthMm', { widthMm: 5 }, '8 to 200'],
  ] as const)('are refused at %s where they cannot be cut', (field, change, words) => {
    const [problem] = planProblems(hinge, { ...plan, ...change }, pairing);
    expect(problem).toMatchObject({ field });
    expect(problem!.message).toContain(words);
  });
});

describe('strips that were bent', () => {
  const held = (cellIndex: number, value: number): Answer => ({ field: 'radius', cellIndex, repeat: 0, value });
  const said = (cellIndex: number, value: string): Answer => ({ field: 'bends', cellIndex, repeat: 0, value });
  const find = (answers: readonly Answer[], wish: Partial<HingeWish> = {}) =>
    hinge.find(layout, { readings: [], answers }, { pairing, facts: [] }, { ...USUAL_HINGE_WISH, ...wish });
  const over = () => layout.cells.map(({ wanted }) => radiusOverStrength(wanted!.hinge!));
  const ofStrength = (strength: number): Answer[] =>
    over().map((share, cellIndex) => held(cellIndex, (strength * share) / 0.9));

  it('tell the strength of the stock, and the widest rows that reach a wanted bend', () => {
    const finding = find(ofStrength(70), { radiusMm: 70, angleDeg: 90 });
    expect(finding.strengths[0]!.strength.median).toBeCloseTo(70, 6);
    expect(finding.hinges[0]!.lattice.pitchMm).toBe(2.6458);
    // A quarter of a circle of 70 mm, in rows of 2.6458.
    expect(finding.hinges[0]!.rows).toBe(Math.ceil((70 * Math.PI) / 2 / 2.6458));
    expect(finding.says).toContain('90° round 70 mm: 42 rows 2.6 mm apart');
    expect(find(ofStrength(70), { radiusMm: 35 }).hinges[0]!.lattice.pitchMm).toBe(1.75);
    const [draft] = hinge.settle(finding);
    expect(draft).toMatchObject({ name: 'hinge', at: { part: 'staggered rows' }, value: { samples: 3 } });
    expect(draft!.value.strength).toBeCloseTo(70, 6);
  });

  it('say what the sheet cannot do, with the least that it can', () => {
    const finding = find(ofStrength(70), { radiusMm: 5 });
    expect(finding.hinges).toEqual([]);
    expect(finding.says).toMatch(/No strip of this card bends to 5 mm surely: .* is the least/);
    // The strip that broke at once counts for nothing, whatever radius was typed.
    expect(
      find([...ofStrength(70), said(0, 'broke')])
        .samples.map(({ cellIndex }) => cellIndex)
        .sort(),
    ).toEqual([1, 2]);
  });

  it('say what is missing', () => {
    expect(find([]).missing[0]).toContain('Bend the strips');
    expect(find(layout.order.map((index) => said(index, 'broke'))).missing[0]).toContain('longer slits');
    expect(find(layout.order.map((index) => said(index, 'shut'))).missing[0]).toContain('cut squares');
    expect(hinge.settle(find([]))).toEqual([]);
  });
});
