import { describe, expect, it } from 'vitest';
import { cellOf } from '../../tests/support/bare-layout';
import { demoPairing, BURNABLE } from '../../stand-ins/demo';
import type { BasePlan } from '../core/card/contract';
import { layCard } from '../core/card/lay';
import { proposeFill } from '../core/card/propose-fill';
import { cutThroughJPerMm } from '../core/stock/cutting';
import { grid } from './grid';
import { focus } from './focus';
import { interval } from './interval';
import { kerf } from './kerf';
import { CARD_KIND_NAMES, CARD_KINDS, cardKind, kindsOfRung, type CardKindName } from './registry';
import { threshold } from './threshold';
import { said } from '../../tests/support/said';

const alder = demoPairing('marl', 'alder');
const inches = {
  ...alder,
  machine: {
    ...alder.machine,
    likedUnits: { ...alder.machine.likedUnits, length: 'in' as const, density: 'dpi' as const },
  },
};
const drawn = (name: CardKindName, on = alder) => {
  const kind = cardKind(name);
  return kind.draw(kind.propose({ pairing: on, facts: [] }).plan, on);
};

describe('what is written on a card', () => {
  it.each([
    ['threshold', 'MINIMUM POWER %', '%', 'four'],
    ['interval', 'INTERVAL MM DOWN / WEAK TO STRONG ACROSS', 'MM', 'four'],
    ['focus', 'FOCUS MM, + RAISED', 'FOCUS MM', 'four'],
    ['kerf', 'KERF SQUARES 20 MM, 8 MM', 'KERF 20 MM, 8 MM', 'none'],
    ['a-b', 'A AGAINST B AIR', 'A B', 'four'],
    ['ceiling', 'WEDGES UP TO POWER % DOWN', '%', 'four'],
    ['line-width', 'SINGLE LINES, POWER % DOWN', '%', 'four'],
    ['tone', '16 GREYS SHUFFLED', 'GREY', 'four'],
    ['showpiece', 'SHOWPIECE', 'SHOWPIECE', 'four'],
    ['picture', 'PICTURE', 'PICTURE', 'four'],
    ['scan-offset', 'SCAN OFFSET, SPEED MM/S DOWN', 'MM/S', 'four'],
    ['run-up', 'RUN-UP MM DOWN', 'MM', 'four'],
    ['cut', 'CUT, SPEED MM/S ACROSS / POWER % DOWN', 'MM/S / %', 'none'],
    ['cut-check', 'CUT CHECK, SPEED MM/S', 'MM/S', 'none'],
    ['cut-focus', 'CUT, FOCUS ACROSS', 'FOCUS', 'none'],
    ['passes', 'PASSES ACROSS, ONE ENERGY', 'PASSES', 'none'],
    ['slots', 'SLOTS DRAWN WIDER THAN 6.02 MM BY MM', 'MM PAST 6.02 MM', 'none'],
    ['knobs', 'HOLES BY LETTERS, PARTS BY NUMBERS, TIGHTER ON EVERY SIDE BY MM', 'TIGHTER A SIDE, MM', 'none'],
    ['hinge', 'HINGE, MM FROM ROW TO ROW', 'HINGE MM', 'none'],
    [
      'score',
      'SKIP MM ACROSS / DASH MM DOWN / THEN A ROW SCORED, AND ONE OF STITCHES',
      'MM / SCORED / STITCHES',
      'none',
    ],
  ] as const)('of %s is what it shows and in what unit', (name, caption, units, markers) => {
    expect(drawn(name)).toMatchObject({ caption, units, markers });
  });
  it('names what it is drawn for: the most passes, the kerf, the setting that is checked', () => {
    const plan = (name: CardKindName) => cardKind(name).propose({ pairing: alder, facts: [] }).plan as never;
    const { mostPasses } = plan('pass-count') as { mostPasses: number };
    expect(drawn('pass-count')).toMatchObject({
      caption: `PASS AFTER PASS, UP TO ${mostPasses}`,
      units: `UP TO ${mostPasses} PASSES`,
    });
    const { xMm, yMm } = (plan('part') as { kerf: { xMm: number; yMm: number } }).kerf;
    expect(drawn('part').caption).toBe(`PART, KERF X ${xMm} Y ${yMm} MM`);
    const { powerFraction } = (plan('sheet-check') as { constants: { powerFraction: number } }).constants;
    const percent = Math.round(1000 * powerFraction) / 10;
    expect(drawn('sheet-check')).toMatchObject({ caption: `AROUND ${percent} %`, units: `CHECK ${percent} %` });
  });
  it('is in inches where its machine’s operator thinks in them', () => {
    expect(drawn('focus', inches)).toMatchObject({ caption: 'FOCUS IN, + RAISED', units: 'FOCUS IN' });
    expect(drawn('interval', inches).caption).toBe('INTERVAL DPI DOWN / WEAK TO STRONG ACROSS');
  });
  it('stands above each patch of a strip, with the patch’s own power', () => {
    const { labels, cells } = drawn('threshold');
    expect(labels.map(({ edge, box }) => [edge, box])).toEqual(cells.map(({ box }) => ['above', box]));
    for (const [index, { text, means }] of labels.entries()) {
      const percent = (cells[index]!.levels.power as number) * 100;
      expect(Number(text)).toBeCloseTo(percent, 0);
      expect(means).toBe(`${text} %`);
    }
  });
  it('is never minus nothing', () => {
    for (const { levels } of drawn('focus').cells) expect(Object.is(levels.focus, -0)).toBe(false);
  });
});

describe('a kind', () => {
  it('answers its own rung and no other', () => {
    for (const name of CARD_KIND_NAMES)
      for (const kind of kindsOfRung(CARD_KINDS[name].rung)) expect(kind.rung).toBe(CARD_KINDS[name].rung);
  });
  it.each(['focus', 'interval', 'kerf', 'threshold'] as const)('brings up plans of %s of its first version', (name) => {
    const kind = cardKind(name);
    const { plan } = kind.propose({ pairing: alder, facts: [] });
    const first = { ...plan, version: 1 } as BasePlan;
    // What a version did not have is none.
    expect(kind.upgrade(first)).toEqual(name === 'kerf' ? { ...plan, smallMm: null } : plan);
  });
  it.each(CARD_KIND_NAMES)('refuses plans of %s of a version that never was, and names it', (name) => {
    const kind = cardKind(name);
    const { plan } = kind.propose({ pairing: alder, facts: [] });
    const own: Partial<Record<CardKindName, string>> = { 'a-b': 'A against B', 'run-up': 'run-up' };
    const called = own[name] ?? name.replaceAll('-', ' ');
    for (const version of [0, 99])
      expect(() => kind.upgrade({ ...plan, version })).toThrow(
        new RangeError(`unknown ${called} plan version: ${version}`),
      );
  });
  it.each([grid, threshold, focus, interval])('refuses light that cannot mark, with the reason', (kind) => {
    const clear = {
      ...alder,
      machine: { ...alder.machine, sourceKind: 'blue-diode' as const },
      stock: { ...alder.stock, family: 'glass' },
    };
    expect(() => kind.propose({ pairing: clear, facts: [] })).toThrow(/^invalid pairing: ./);
  });
});

describe('proposals', () => {
  it('of a fill have a reason for power and speed', () => {
    const { reasons } = proposeFill({ pairing: alder, facts: [] });
    expect(reasons['constants.powerFraction']).toBe(
      'a guess at a medium mark on hardwood: no engraving setting is kept yet',
    );
    expect(reasons['constants.speedMmPerS']).toBe('a useful speed of this head for the guess');
  });
  it('of intervals say where the finest comes from: half of the spot, or 500 lines per inch', () => {
    let halves = 0;
    for (const [machine, stock] of BURNABLE) {
      const on = demoPairing(machine, stock);
      const { plan, reasons } = interval.propose({ pairing: on, facts: [] });
      const spot = plan.constants.direction === 'horizontal' ? on.lens.spotYMm : on.lens.spotXMm;
      const half = Math.abs(plan.interval.from - spot / 2) < 0.001;
      expect(reasons['interval.from'], `${machine} ${stock}`).toMatch(
        half ? /^half of the/ : /^500 lines per inch or finer, more than half of the/,
      );
      if (half) halves++;
    }
    expect(halves).toBeGreaterThan(0);
    expect(halves).toBeLessThan(BURNABLE.length);
  });
  it('of cuts by several passes have in all of them 1.4 times what comes through', () => {
    const thick = {
      ...alder,
      stock: { ...alder.stock, nominalThicknessMm: 20, thicknessReadingsMm: [20] },
      machine: { ...alder.machine, powerTable: null, ratedPowerW: 40, powerCap: 1 },
    };
    const { passes, speedMmPerS } = kerf.propose({ pairing: thick, facts: [] }).plan.cut;
    expect(passes).toBeGreaterThan(1);
    const energy = (40 * passes) / speedMmPerS / cutThroughJPerMm(thick.machine, thick.stock)!;
    expect(energy).toBeGreaterThanOrEqual(1.4);
    expect(energy).toBeLessThan(1.4 * 1.03);
  });
  it('to prove a setting go a fifth up and down, and say of every value that the setting has it', () => {
    const { settings } = proposeFill({ pairing: alder, facts: [] });
    const { plan, reasons } = grid.prove(
      { pairing: alder, facts: [] },
      { ...settings, powerFraction: 0.4, speedMmPerS: 100 },
    );
    expect(plan.across).toMatchObject({ from: expect.closeTo(0.4 / 1.2, 9), to: expect.closeTo(0.48, 9), count: 3 });
    expect(plan.down).toMatchObject({ from: expect.closeTo(100 / 1.2, 9), to: expect.closeTo(120, 9), count: 3 });
    expect(
      Object.keys(reasons)
        .filter((path) => path.startsWith('frame.'))
        .sort(),
    ).toEqual(['frame.lettering.powerFraction', 'frame.marker.powerFraction']);
    expect(reasons['constants.intervalMm']).toBe('as the setting to be proven');
    // At the cap the setting is the strongest of the three.
    const top = grid.prove(
      { pairing: alder, facts: [] },
      { ...settings, powerFraction: alder.machine.powerCap, speedMmPerS: 100 },
    );
    expect(top.plan.across).toMatchObject({
      from: expect.closeTo(alder.machine.powerCap / 1.44, 9),
      to: alder.machine.powerCap,
    });
  });
});

describe('a search for the least power', () => {
  const plan = { ...threshold.propose({ pairing: alder, facts: [] }).plan, way: 'search' as const };
  const laid = layCard(threshold, plan, alder, { cardNumber: 5 });
  /** After patches at these shares of the range's low end, marked or not. */
  const after = (...tried: [share: number, marked: boolean][]) => {
    const fill = { shape: { do: 'sweep', area: [] }, settings: { ...plan.constants, powerFraction: 0.1 } } as const;
    const cells = tried.map(([share], index) => cellOf(index, fill, { levels: { power: plan.power.from * share } }));
    const answers = tried.map(([, marked], cellIndex) => said('mark', cellIndex, marked ? 'marked' : 'nothing'));
    return threshold.next({ ...laid, cells }, plan, { readings: [], answers }, alder)!;
  };
  const powerOf = (next: ReturnType<typeof after>) =>
    next.go ? next.cell.burns[0]!.settings.powerFraction / plan.power.from : null;
  it('has places for two rows of ten patches', () => {
    const pitch = plan.patchMm + plan.gapMm;
    expect(threshold.draw(plan, alder)).toMatchObject({
      widthMm: 10 * pitch - plan.gapMm,
      heightMm: 2 * pitch - plan.gapMm,
      cells: [],
    });
  });
  it('goes by wide steps until the answer turns, and by fine ones after', () => {
    expect(powerOf(after([2, true]))).toBeCloseTo(2 / 1.35, 2);
    expect(powerOf(after([2, false]))).toBeCloseTo(2 * 1.35, 2);
    expect(after([2, true]).why).toBe('A wide step weaker, since the last one marked.');
    const turned = after([2, true], [1.5, false]);
    expect(powerOf(turned)).toBeCloseTo(1.5 * 1.1, 2);
    expect(turned.why).toBe('A fine step stronger, since the last one left nothing; the answer has turned once.');
  });
  it('ends where its places are used up, and where the answer has turned five times', () => {
    const same = Array.from({ length: 20 }, (): [number, boolean] => [2, true]);
    expect(after(...same.slice(0, 19)).go).toBe(true);
    expect(after(...same)).toMatchObject({ go: false, why: 'All places of the card are used.' });
    const turns = (count: number) =>
      Array.from({ length: count + 1 }, (_, index): [number, boolean] => [2, index % 2 === 0]);
    expect(after(...turns(4)).go).toBe(true);
    expect(after(...turns(5))).toMatchObject({ go: false, why: 'The answer has turned 5 times: that is enough.' });
  });
});
