import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import { RECTANGLE } from '../stock/outline';
import { layCard } from './lay';
import { LAYOUT_VERSION, type Layout } from './layout';
import { PLAIN_EXTRAS, upgradeSettings } from './settings';
import { upgradeBase, upgradeLayout, upgradePairing, withDotLength } from './stored';
import { UNSAID_SETUP } from './work-setup';
import { points } from '../../../tests/support/points';

const on = demoPairing('heron', 'birch');
const now = layCard(grid, grid.propose({ pairing: on, facts: [] }).plan, on, { cardNumber: 7 });

/** Without what settings gained after the second version of layouts. */
const without = (layout: Layout): object =>
  JSON.parse(
    JSON.stringify(layout, (key, value: unknown) => (key in PLAIN_EXTRAS || key === 'words' ? undefined : value)),
  ) as object;

describe('a layout as it was stored', () => {
  it('is left as it is where it is of today', () => expect(upgradeLayout(now)).toBe(now));
  it('of the second version gains plain extras in every burn, full words, and cells each by themselves', () => {
    const { together: _together, adopted: _adopted, ...rest } = without(now) as Layout;
    const burn = rest.cells[0]!.burns[0]!;
    const up = upgradeLayout({ ...rest, version: 2, before: [burn], after: [burn] });
    expect(up).toMatchObject({ version: LAYOUT_VERSION, together: [], adopted: false });
    expect(up.frame.settings.words).toBe('full');
    for (const { settings } of [...up.before, ...up.after, ...up.cells.flatMap(({ burns }) => burns)])
      expect(settings).toMatchObject(PLAIN_EXTRAS);
    expect(up.cells.map(({ box }) => box)).toEqual(now.cells.map(({ box }) => box));
  });
  it('of the third version, with a search’s cells, gains that dots are drawn as long as they are', () => {
    const older = JSON.parse(
      JSON.stringify(now, (key, value: unknown) => (key === 'lengthenMm' ? undefined : value)),
    ) as Layout;
    const burn = older.cells[0]!.burns[0]!;
    const up = upgradeLayout({ ...older, version: 3, before: [burn], after: [burn] });
    expect(up.cells).toEqual(now.cells);
    for (const { settings } of [...up.before, ...up.after])
      expect(settings).toEqual({ ...burn.settings, lengthenMm: 0 });
    expect({ ...up, before: [], after: [] }).toEqual({ ...now, before: [], after: [] });
  });
  it('of the first version, filled squares of one power and speed each, becomes cells with a burn', () => {
    const settings = {
      powerFraction: 0.4,
      speedMmPerS: 50,
      intervalMm: 0.1,
      passes: 1,
      focusOffsetMm: 0,
      air: 'on',
      direction: 'horizontal',
      bothWays: true,
    };
    const cell = {
      index: 0,
      x: 5,
      y: 6,
      width: 4,
      height: 3,
      settings,
      arealEnergyJPerMm2: 0.8,
      fate: 'plain',
      leftOut: false,
    };
    const marker = { powerFraction: 0.3, speedMmPerS: 40, intervalMm: 0.1 };
    const lettering = { powerFraction: 0.2, speedMmPerS: 30 };
    const first = {
      kind: 'grid',
      cardNumber: 7,
      code: 'G007-1',
      widthMm: 30,
      heightMm: 20,
      cells: [cell, { ...cell, index: 1, x: 10, fate: 'overburn', leftOut: true }],
      markers: now.frame.markers,
      lettering: [],
      order: [0],
      constants: { air: 'on' },
      markerSettings: marker,
      letteringSettings: lettering,
    };
    const up = upgradeLayout(first);
    expect(up).toMatchObject({
      version: LAYOUT_VERSION,
      code: 'G007-1',
      widthMm: 30,
      heightMm: 20,
      order: [0],
      before: [],
      after: [],
    });
    expect(up.frame).toEqual({
      markers: now.frame.markers,
      lettering: [],
      settings: { words: 'full', markers: 'burned', marker, lettering },
      air: 'on',
    });
    // The two squares reach from 5 to 14 and from 6 to 9.
    expect(up.inner).toEqual({ x: 5, y: 6, width: 9, height: 3 });
    expect(up.cells[0]).toMatchObject({
      index: 0,
      box: { x: 5, y: 6, width: 4, height: 3 },
      levels: { power: 0.4, speed: 50 },
      risk: 0.8,
      expected: null,
      leftOut: false,
    });
    expect(up.cells[1]).toMatchObject({ index: 1, expected: 'overburn', leftOut: true });
    const [burn] = up.cells[0]!.burns;
    expect(burn!.settings).toEqual({ ...settings, ...PLAIN_EXTRAS });
    expect(burn!.shape).toEqual({
      do: 'sweep',
      area: [points([5, 6], [9, 6], [9, 9], [5, 9])],
    });
  });
  it('of a version that is not known is refused', () => {
    for (const version of [1, 5, 99])
      expect(() => upgradeLayout({ ...now, version })).toThrow(`unknown layout version: ${version}`);
  });
});

describe('what was stored beside it', () => {
  it('keeps what it says and has careful values where it says nothing', () => {
    const { rampPower: _r, addsRunUp: _a, zero: _z, xPlus: _x, yPlus: _y, galvo: _g, ...old } = on.machine;
    const { outline: _o, blanks: _b, ...sheet } = on.stock;
    const { fieldMm: _f, ...lens } = on.lens;
    const up = upgradePairing({ machine: old, stock: sheet, lens } as unknown as typeof on);
    expect(up.machine).toMatchObject({
      rampPower: 'constant',
      addsRunUp: false,
      zero: 'bed-front-left',
      xPlus: 'right',
      yPlus: 'away',
      galvo: null,
    });
    expect(up.stock).toMatchObject({ outline: RECTANGLE, blanks: null });
    expect(up.lens.fieldMm).toBeNull();
    expect(upgradePairing(on)).toEqual(on);
    expect(upgradePairing({})).toEqual({});
    const blanks = { ...on.stock, blanks: { count: 4 } };
    expect(upgradePairing({ stock: blanks }).stock.blanks).toEqual({ count: 4 });
  });
  it('gives a galvo head of before the delays that are usual, and jumps as fast as it was said to go', () => {
    const { galvo: _g, ...old } = { ...on.machine, head: 'galvo' as const, topSpeedXMmPerS: 1234 };
    const { machine } = upgradePairing({ machine: old as unknown as typeof on.machine });
    expect(machine.galvo).toMatchObject({ jumpSpeedMmPerS: 1234 });
    expect(machine.galvo!.jumpDelayS).toBeGreaterThan(0);
  });
  it('plans of before gain a set-up that says nothing and frames in full words, and keep what they have', () => {
    const frame = { marker: now.frame.settings.marker, lettering: now.frame.settings.lettering };
    expect(upgradeBase({ frame, other: 1 })).toEqual({
      frame: { ...frame, words: 'full', markers: 'burned' },
      setup: UNSAID_SETUP,
      other: 1,
    });
    const setup = { ...UNSAID_SETUP, masked: true };
    expect(upgradeBase({ frame: { ...frame, words: 'short' }, setup })).toEqual({
      frame: { ...frame, words: 'short', markers: 'burned' },
      setup,
    });
    const settings = { scanOffsetMm: 0.1, air: 'on' };
    const kept = { ...settings, lengthenMm: 0.02 };
    expect(withDotLength({ version: 1, constants: settings, cut: kept, frame, list: [1], none: null })).toEqual({
      version: 1,
      constants: { ...settings, lengthenMm: 0 },
      cut: kept,
      frame,
      list: [1],
      none: null,
    });
    expect(upgradeSettings({ lineAngleDeg: 30 })).toEqual({ ...PLAIN_EXTRAS, lineAngleDeg: 30 });
  });
});
