import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { readingOf } from '../../../stand-ins/made-up-reading';
import type { Answer } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { kerf } from '../kerf';
import type { GridPlan } from './plan';
import { fallenOf } from './fallen';
import { grid } from '.';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
const energyOf = (index: number): number => deliveredBy(mainBurn(layout.cells[index]!).settings, pairing).arealJPerMm2;
let plan: GridPlan;
let layout: Layout;
let strongest: number[];
beforeEach(() => {
  ({ plan } = grid.propose(known));
  layout = layCard(grid, { ...plan, leaveOutFailing: false }, pairing, { cardNumber: 8 });
  strongest = [...layout.order].sort((a, b) => energyOf(b) - energyOf(a));
});
const said = (value: string, ...cells: number[]): Answer[] =>
  cells.map((cellIndex) => ({ field: 'outcome', cellIndex, repeat: 0, value }));
const seen = (answers: Answer[]) => ({ answers, readings: layout.order.map((index) => readingOf(index)) });

describe('cells that burned through', () => {
  it('are told by the mildest of them', () => {
    const [first, second, third] = strongest;
    expect(fallenOf(layout, seen([]), pairing)).toBeNull();
    expect(fallenOf(layout, seen(said('charred', first!)), pairing)).toBeNull();
    const fallen = fallenOf(layout, seen(said('burned-through', first!, third!, second!)), pairing)!;
    expect(fallen.cellIndex).toBe(third);
    expect(fallen.arealJPerMm2).toBeCloseTo(energyOf(third!), 9);
    expect(fallen.lineJPerMm).toBeCloseTo(energyOf(third!) * plan.constants.intervalMm, 9);
    expect(fallen.intervalMm).toBe(plan.constants.intervalMm);
  });

  it('are kept beside the setting that is chosen, and never without one', () => {
    const [first] = strongest;
    const of = seen([...said('burned-through', first!), ...said('good', strongest.at(-1)!)]);
    const finding = grid.find(layout, of, known, grid.wish(pairing));
    expect(finding.remark).toMatch(
      /^Burned through from [\d.]+ J\/mm² on: engrave with less\. A cut may begin at about [\d.]+ J\/mm\./,
    );
    const names = (choice: { cellIndex: number }) => grid.settle(finding, layout, of, choice).map(({ name }) => name);
    expect(names({ cellIndex: strongest.at(-1)! })).toEqual(['engrave', 'burnedThrough']);
    expect(names({ cellIndex: 9999 })).toEqual([]);
    const [, fact] = grid.settle(finding, layout, of, { cellIndex: strongest.at(-1)! });
    expect(fact).toMatchObject({ at: {}, cellIndex: first, value: { arealJPerMm2: energyOf(first!) } });
    const plain = grid.find(layout, seen([]), known, grid.wish(pairing));
    expect(grid.settle(plain, layout, seen([]), { cellIndex: 0 })).toHaveLength(1);
  });

  it('bound the next card, a first one and one around a kept setting, until the sheet is another', () => {
    const middle = energyOf(strongest[Math.floor(strongest.length / 4)]!);
    const fact = (stale: string[] = []) =>
      factNow('burnedThrough', { arealJPerMm2: middle, lineJPerMm: middle * 0.1, intervalMm: 0.1 }, { stale });
    const most = (facts: Parameters<typeof grid.propose>[0]['facts']): number => {
      const { plan: next } = grid.propose({ pairing, facts });
      return Math.max(
        ...layCard(grid, { ...next, leaveOutFailing: false }, pairing, { cardNumber: 9 }).cells.map(
          (cell) => deliveredBy(mainBurn(cell).settings, pairing).arealJPerMm2,
        ),
      );
    };
    expect(most([])).toBeGreaterThan(middle);
    expect(most([fact()])).toBeLessThan(middle);
    expect(most([fact(['new batch'])])).toBe(most([]));
    expect(grid.propose({ pairing, facts: [fact()] }).reasons['across.to']).toMatch(/burned through/);
    const { settings } = { settings: mainBurn(layout.cells[strongest[Math.floor(strongest.length / 3)]!]!).settings };
    const engrave = factNow('engrave', { settings, lightness: 40, lightnessSigma: 0.5, confidence: 1 });
    expect(most([engrave])).toBeGreaterThan(middle);
    expect(most([engrave, fact()])).toBeLessThan(1.02 * middle);
    expect(grid.propose({ pairing, facts: [engrave, fact()] }).reasons['down.from']).toMatch(/burned through here/);
    const across = (facts: Parameters<typeof grid.propose>[0]['facts']) =>
      grid.propose({ pairing, facts }).reasons['across.to'];
    expect(across([engrave])).toMatch(/^around the kept setting/);
    const low = factNow('burnedThrough', { arealJPerMm2: middle / 3, lineJPerMm: middle * 0.03, intervalMm: 0.1 });
    expect(across([engrave, low])).toBe('above this, cells get what burned through here');
  });

  it('tell the cut side where cutting begins', () => {
    const facts = [factNow('burnedThrough', { arealJPerMm2: 3, lineJPerMm: 0.31, intervalMm: 0.1 })];
    const { plan: cut, reasons } = kerf.propose({ pairing, facts });
    expect(reasons['cut.speedMmPerS']).toMatch(/lines of 0\.31 J\/mm went through where they lay 0\.1 mm apart$/);
    // A fill's lines help each other: what is cut with is not taken from them.
    expect(cut).toEqual(kerf.propose(known).plan);
    const stale = facts.map((fact) => ({ ...fact, stale: ['new batch'] }));
    expect(kerf.propose({ pairing, facts: stale }).reasons['cut.speedMmPerS']).not.toMatch(/went through/);
  });
});
