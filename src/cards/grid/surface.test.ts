import { beforeEach, describe, expect, it } from 'vitest';
import { readingOf } from '../../../stand-ins/made-up-reading';
import { demoPairing } from '../../../stand-ins/demo';
import type { Answer, Seen } from '../../core/card/asks';
import { squareFillTimeS } from '../../core/card/fill-time';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { deliveredPowerW } from '../../core/machine/machine';
import { findInGrid, type GridFinding, type GridWish } from './find';
import type { GridPlan } from './plan';
import {
  type GridSurface,
  bestPlace,
  foretell,
  isWithin,
  levelAt,
  LOOKS,
  rounded,
  settingsAt,
  shareOf,
  surfaceOfGrid,
} from './surface';
import { exchangeWords } from './ui/exchange-words';
import { foretoldRows } from './ui/foretold-rows';
import { grid } from '.';
import { tuples } from '../../../tests/support/tuples';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const { bareLightness: bare } = pairing.stock;
const known = { pairing, facts: [] };
const base: GridPlan = {
  ...grid.propose(known).plan,
  across: { channel: 'power', from: 0.1, to: 0.5, count: 6, spacing: 'ratio' },
  down: { channel: 'speed', from: 100, to: 500, count: 5, spacing: 'ratio' },
  leaveOutFailing: false,
  sweeps: 'cells',
};
/** Made-up stock: L* lost by power to the 1.2 over speed to the 0.6. */
const lost = (power: number, speed: number): number => 60 * (1 - Math.exp(-18 * power ** 1.2 * (speed / 100) ** -0.6));
const lay = (plan: GridPlan) => layCard(grid, plan, pairing, { cardNumber: 7 });
const shown = (plan: GridPlan, sign = -1, answers: Answer[] = []): { layout: ReturnType<typeof lay>; seen: Seen } => {
  const layout = lay(plan);
  const readings = layout.cells.map((cell) => {
    const { powerFraction, speedMmPerS } = mainBurn(cell).settings;
    const delta = sign * lost(powerFraction, speedMmPerS);
    return { ...readingOf(cell.index), lightness: bare + delta, deltaLightness: delta };
  });
  return { layout, seen: { readings, answers } };
};
let layout: Layout;
let seen: Seen;
let surface: GridSurface;
beforeEach(() => {
  ({ layout, seen } = shown(base));
  surface = surfaceOfGrid(layout, seen, bare)!;
});
const wish: GridWish = { lightness: bare - 45, powerCap: 1, pace: 'fast-and-strong' };

describe('the surface of a grid', () => {
  it('foretells tones between the cells, by either direction of marks', () => {
    for (const sign of [-1, 1]) {
      const brighter = shown(base, sign);
      const own = surfaceOfGrid(brighter.layout, brighter.seen, sign < 0 ? bare : 20)!;
      if (sign > 0) continue;
      for (const [power, speed] of tuples([0.13, 180], [0.22, 320], [0.4, 120]))
        expect(foretell(own, { across: power, down: speed }).lightness).toBeCloseTo(bare - lost(power, speed), 0);
    }
    const paler = layout.cells.map((cell, at) => ({
      ...readingOf(cell.index),
      lightness: 20 + (bare - seen.readings[at]!.lightness),
      deltaLightness: bare - seen.readings[at]!.lightness,
    }));
    const own = surfaceOfGrid(layout, { readings: paler, answers: [] }, 20)!;
    expect(own.darkens).toBe(false);
    expect(foretell(own, { across: 0.22, down: 320 }).lightness).toBeCloseTo(20 + lost(0.22, 320), 0);
  });
  it('knows its edges, whichever lies along the columns, and where levels are scattered', () => {
    const turned = shown({ ...base, across: base.down, down: base.across });
    const own = surfaceOfGrid(turned.layout, turned.seen, bare)!;
    expect([own.across.channel, own.down.channel]).toEqual(['speed', 'power']);
    const scattered = shown({ ...base, placing: 'scattered', repeats: 2 });
    const mixed = surfaceOfGrid(scattered.layout, scattered.seen, bare)!;
    expect([mixed.across.channel, mixed.down.channel]).toEqual(['power', 'speed']);
    for (const one of [surface, mixed])
      expect(foretell(one, { across: 0.22, down: 320 }).lightness).toBeCloseTo(bare - lost(0.22, 320), 0);
    expect(foretell(own, { across: 320, down: 0.22 }).lightness).toBeCloseTo(bare - lost(0.22, 320), 0);
  });
  it('looks all over itself, from the upper left', () => {
    expect(surface.looks).toHaveLength(LOOKS * LOOKS);
    expect(surface.looks[0]).toMatchObject({ across: 0.1, down: 500 });
    expect(surface.looks[LOOKS - 1]!.across).toBeCloseTo(0.5, 9);
    expect(surface.looks.at(-1)!.down).toBeCloseTo(100, 9);
    for (const share of [0, 0.3, 1]) expect(shareOf(surface.down, levelAt(surface.down, share))).toBeCloseTo(share, 9);
    expect(levelAt(surface.across, 0.5)).toBeCloseTo(Math.sqrt(0.1 * 0.5), 9);
    expect(levelAt({ channel: 'focus', scale: 'offset', levels: [-2, 0, 2] }, 0.75)).toBe(1);
  });
  it('ends where nothing was burned, and tells levels as settings are', () => {
    expect(isWithin(surface, { across: 0.1, down: 500 })).toBe(true);
    expect(isWithin(surface, { across: 0.09, down: 300 })).toBe(false);
    expect(isWithin(surface, { across: 0.3, down: 501 })).toBe(false);
    expect(rounded(surface.across, 0.2234)).toBe(0.225);
    expect(rounded(surface.across, 0.99)).toBe(0.5);
    expect(rounded(surface.down, 333)).toBe(335);
    expect(rounded({ channel: 'air', scale: 'kinds', levels: [0, 2] }, 0.8)).toBe(0);
    expect(rounded({ channel: 'air', scale: 'kinds', levels: [0, 2] }, 1.2)).toBe(2);
  });
  it('goes without readings that have no doubt of their own, and throws on none', () => {
    const one = seen.readings.map((reading, at) =>
      at === 12 ? { ...reading, lightness: 5, lightnessSigma: 0 } : reading,
    );
    const at = { across: Number(layout.cells[12]!.levels.power), down: Number(layout.cells[12]!.levels.speed) };
    const own = surfaceOfGrid(layout, { readings: one, answers: [] }, bare)!;
    expect(foretell(own, at).lightness).toBeCloseTo(bare - lost(at.across, at.down), 0);
    const none = seen.readings.map((reading) => ({ ...reading, lightnessSigma: 0 }));
    expect(surfaceOfGrid(layout, { readings: none, answers: [] }, bare)).toBeNull();
    // Nothing is marked, so nothing tells which way marks go; and cards that are no grid have no edges.
    const unmarked = seen.readings.map((reading) => ({ ...reading, lightness: bare, deltaLightness: 0 }));
    expect(surfaceOfGrid(layout, { readings: unmarked, answers: [] }, bare)).toBeNull();
    const other = { ...layout, cells: layout.cells.map((cell) => ({ ...cell, levels: {} })) };
    expect(surfaceOfGrid(other, seen, bare)).toBeNull();
  });
  it('leaves out what the operator called spoiled and what was read unsurely, unless it was graded well', () => {
    const odd = seen.readings.map((reading, at) =>
      at === 12 ? { ...reading, lightness: 5, confidence: 0.1 } : reading,
    );
    const at = { across: Number(layout.cells[12]!.levels.power), down: Number(layout.cells[12]!.levels.speed) };
    const answer = (field: string, word: string): Answer => ({ field, cellIndex: 12, repeat: 0, value: word });
    const told = (readings: Seen['readings'], answers: Answer[]) =>
      foretell(surfaceOfGrid(layout, { readings, answers }, bare)!, at).lightness;
    expect(told(odd, [])).toBeCloseTo(bare - lost(at.across, at.down), 0);
    expect(Math.abs(told(odd, [answer('grade', '5')]) - (bare - lost(at.across, at.down)))).toBeGreaterThan(3);
    const sure = odd.map((reading) => ({ ...reading, confidence: 0.99 }));
    expect(told(sure, [answer('outcome', 'charred')])).toBeCloseTo(bare - lost(at.across, at.down), 0);
  });
});

describe('the place that meets a wish best', () => {
  it('gives the tone in the least time, or at the least power, within the cap', () => {
    const fast = bestPlace(surface, { ...wish, lightness: bare - 45 }, pairing)!;
    expect(bare - lost(fast.across, fast.down)).toBeCloseTo(bare - 45, -0.3);
    const timeOf = (power: number, speed: number) =>
      squareFillTimeS(settingsAt(surface, { across: power, down: speed }), pairing.machine, 100);
    const low = bestPlace(surface, { ...wish, lightness: bare - 45, pace: 'slow-and-low' }, pairing)!;
    expect(low.across).toBeLessThan(fast.across);
    expect(timeOf(low.across, low.down)).toBeGreaterThan(timeOf(fast.across, fast.down));
    expect(bare - lost(low.across, low.down)).toBeCloseTo(bare - 45, -0.3);
    const capped = bestPlace(surface, { ...wish, lightness: bare - 45, powerCap: 0.2 }, pairing)!;
    expect(capped.across).toBeLessThanOrEqual(0.2);
    expect(bestPlace(surface, { ...wish, lightness: bare - 45, powerCap: 0.05 }, pairing)).toBeNull();
    expect(bestPlace(surface, { ...wish, lightness: bare - 70 }, pairing)).toBeNull();
  });
  it('is none where nothing is told surely: what all readings may share is not averaged away', () => {
    const told = (lightnessSigma: number) =>
      surfaceOfGrid(layout, { readings: seen.readings.map((one) => ({ ...one, lightnessSigma })), answers: [] }, bare)!;
    expect(foretell(told(1.5), { across: 0.22, down: 320 }).sigma).toBeGreaterThan(1.5);
    expect(bestPlace(told(1.5), { ...wish, lightness: bare - 45 }, pairing)).not.toBeNull();
    expect(bestPlace(told(3.5), { ...wish, lightness: bare - 45 }, pairing)).toBeNull();
  });
  it('is none on a surface that misses its own cells', () => {
    const wild = seen.readings.map((reading, at) => ({ ...reading, lightness: bare - 10 - ((at * 37) % 41) }));
    const bad = surfaceOfGrid(layout, { readings: wild, answers: [] }, bare)!;
    expect(bad.fit.trusted).toBe(false);
    expect(bestPlace(bad, { ...wish, lightness: bare - 45 }, pairing)).toBeNull();
    const found = findInGrid(layout, { readings: wild, answers: [] }, known, wish);
    expect(found.surface).toMatchObject({ trusted: false, foretold: null, exchange: null });
    expect(grid.settle(found, layout, { readings: wild, answers: [] }, { at: { across: 0.2, down: 300 } })).toEqual([]);
  });
});

describe('what is kept of a place', () => {
  let finding: GridFinding;
  beforeEach(() => {
    finding = findInGrid(layout, seen, known, wish);
  });
  it('is its settings, its tone and how unsure it is, as foretold', () => {
    const { foretold } = finding.surface!;
    const [fact] = grid.settle(finding, layout, seen, {
      at: { across: foretold!.across, down: foretold!.down },
      shade: 'medium',
    });
    expect(fact).toMatchObject({ name: 'engrave', at: { shade: 'medium' }, cellIndex: null, predicted: true });
    if (fact?.name !== 'engrave') throw new Error('not a setting');
    expect(fact.value.settings).toEqual({
      ...mainBurn(layout.cells[0]!).settings,
      powerFraction: foretold!.across,
      speedMmPerS: foretold!.down,
    });
    expect(fact.value.lightness).toBeCloseTo(wish.lightness!, 0);
    expect(fact.value.lightnessSigma).toBe(foretold!.sigma);
    expect(foretold!.timeS).toBe(squareFillTimeS(fact.value.settings, pairing.machine, 100));
    // A cell stays what was burned.
    expect(grid.settle(finding, layout, seen, { cellIndex: 3 })[0]).not.toHaveProperty('predicted');
  });
  it('is nothing beyond the card, or where no photo was read', () => {
    expect(grid.settle(finding, layout, seen, { at: { across: 0.6, down: 300 } })).toEqual([]);
    const none = findInGrid(layout, { readings: [], answers: [] }, known, wish);
    expect(none.surface).toBeNull();
    expect(grid.settle(none, layout, { readings: [], answers: [] }, { at: { across: 0.2, down: 300 } })).toEqual([]);
  });
  it('is not proposed where only coats are looked for', () => {
    expect(findInGrid(layout, seen, known, { ...wish, cleared: true }).surface!.foretold).toBeNull();
  });
});

describe('a tone that is to be matched', () => {
  it('takes the quickest place within the cap, is out of reach beyond the strongest mark, and unsure without a surface', () => {
    const wanted = bare - 45;
    const matched = grid.matcher(layout, seen, pairing)(wanted);
    if (matched.outcome !== 'found') throw new Error(matched.outcome);
    const { power, speed } = matched.levels as { power: number; speed: number };
    expect(bare - lost(power, speed)).toBeCloseTo(wanted, -0.3);
    expect(power).toBeLessThanOrEqual(pairing.machine.powerCap);
    expect(matched.timeS).toBe(
      squareFillTimeS(settingsAt(surface, { across: power, down: speed }), pairing.machine, 100),
    );
    expect(Math.abs(matched.lightness - wanted)).toBeLessThan(1.01);
    expect(grid.matcher(layout, seen, pairing)(bare + 5).outcome).toBe('out-of-reach');
    expect(grid.matcher(layout, seen, pairing)(bare - 62).outcome).toBe('out-of-reach');
    expect(grid.matcher(layout, { readings: [], answers: [] }, pairing)(wanted).outcome).toBe('unsure');
    const weak = { ...pairing, machine: { ...pairing.machine, powerCap: 0.05 } };
    expect(grid.matcher(layout, seen, weak)(wanted).outcome).toBe('unsure');
  });
});

describe('in words', () => {
  let found: NonNullable<GridFinding['surface']>;
  beforeEach(() => {
    found = findInGrid(layout, seen, known, wish).surface!;
  });
  it('half the speed is worth so much power: by hand 2^(-0.6 / 1.2) is 29 % less', () => {
    const words = exchangeWords(found)!;
    const [, share, low, high] =
      /^Half the speed looks the same with ([\d.]+) % \(([\d.]+) to ([\d.]+) %\) less power\.$/.exec(words)!;
    expect(Number(share)).toBeCloseTo(29.3, -0.5);
    expect(Number(low)).toBeLessThanOrEqual(Number(share));
    expect(Number(high)).toBeGreaterThanOrEqual(Number(share));
  });
  it('more of it, about the same, fewer passes, or nothing', () => {
    const say = (times: number, logSigma: number, change: object = {}) =>
      exchangeWords({ ...found, exchange: { times, logSigma }, ...change });
    expect(say(2, 0)).toBe('Half the speed looks the same with 100 % (100 to 100 %) more power.');
    expect(say(1.02, 0.05)).toBe('Half the speed looks the same at about the same power.');
    expect(say(0.5, 0, { across: 'passes', down: 'interval' })).toBe(
      'Half the line interval looks the same with 50 % (50 to 50 %) fewer passes.',
    );
    expect(say(2, 0, { across: 'passes' })).toMatch(/more passes\.$/);
    expect(exchangeWords({ ...found, exchange: null })).toBeNull();
    expect(say(0.5, 0, { down: 'focus' })).toBeNull();
  });
  it('a place is told with what else its card varies', () => {
    const rows = foretoldRows(surface, { across: 0.2, down: 300 }, pairing.machine);
    expect(rows.map(([label]) => label)).toEqual(['Power', 'Speed', 'Foretold tone', '10 × 10 cm take']);
    expect(rows[0]).toEqual(['Power', '20 %']);
    const spaced = shown({ ...base, down: { channel: 'interval', from: 0.05, to: 0.2, count: 5, spacing: 'ratio' } });
    const own = surfaceOfGrid(spaced.layout, spaced.seen, bare)!;
    expect(foretoldRows(own, { across: 0.2, down: 0.1 }, pairing.machine)[2]).toEqual(['With', '0.1 mm']);
  });
});

describe('a wish', () => {
  const meeting = (change: Partial<GridWish>, answers: Answer[] = [], spread = 1): number[] =>
    findInGrid(layout, { readings: seen.readings.map((reading) => ({ ...reading, spread })), answers }, known, {
      ...wish,
      ...change,
    })
      .candidates.filter(({ meets }) => meets)
      .map(({ cellIndex }) => cellIndex);
  let all: number[];
  beforeEach(() => {
    all = meeting({});
  });
  it('for even cells leaves out those that vary', () => {
    expect(all.length).toBeGreaterThan(1);
    expect(meeting({ unevenness: 0.9 })).toEqual([]);
    expect(meeting({ unevenness: 1 })).toEqual(all);
    expect(meeting({ unevenness: null }, [], 9)).toEqual(all);
  });
  it('for clean cells leaves out those on which residue stays', () => {
    const residue: Answer = { field: 'outcome', cellIndex: all[0]!, repeat: 0, value: 'residue' };
    expect(meeting({ clean: true }, [residue])).toEqual(all.slice(1));
    expect(meeting({}, [residue])).toEqual(all);
  });
  it('is told where cells burned through, by the least of them', () => {
    const fallen = [layout.cells.length - 1, layout.cells.length - 2].map((cellIndex) =>
      said('outcome', cellIndex, 'burned-through'),
    );
    const { remark } = findInGrid(layout, { readings: seen.readings, answers: fallen }, known, wish);
    const { powerFraction, speedMmPerS, intervalMm } = mainBurn(layout.cells.at(-2)!).settings;
    const lineJ = deliveredPowerW(pairing.machine, powerFraction) / speedMmPerS;
    const [, areal, line] = /^Burned through from ([\d.]+) J\/mm² on: .* about ([\d.]+) J\/mm\.$/.exec(remark!)!;
    expect(Number(areal) / (lineJ / intervalMm)).toBeCloseTo(1, 1);
    expect(Number(line) / lineJ).toBeCloseTo(1, 1);
  });
});
