import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../tests/support/settings';
import { cellOf, layoutOf as bareLayout } from '../../tests/support/bare-layout';
import { demoPairing } from '../../stand-ins/demo';
import type { Layout } from '../core/card/layout';
import type { BurnSettings } from '../core/card/settings';
import { rectRing, type Burn } from '../core/card/shape';
import type { Machine } from '../core/machine/machine';
import { gcodeChunks, programComment, programNumber, programOfCard } from './gcode';
import { points } from '../../tests/support/points';
import { listed } from '../../tests/support/listed';

const { machine: heron } = demoPairing('heron', 'birch');
const machine: Machine = {
  ...heron,
  bedWidthMm: 200,
  bedDepthMm: 100,
  rampPower: 'follows-speed',
  addsRunUp: false,
  automaticFocus: false,
};
const place = { leftMm: 10, rearMm: 20 };
const settings: BurnSettings = { ...PLAIN_FILL, powerFraction: 0.5, air: 'on', runUpMm: 1 };
const FILLED: Burn = { shape: { do: 'sweep', area: [rectRing({ x: 1, y: 1, width: 2, height: 0.2 })] }, settings };
const FOLLOWED: Burn = {
  shape: {
    do: 'follow',
    lines: [points([0, 3], [4, 3], [4, 2])],
  },
  settings: { ...settings, powerFraction: 0.25, speedMmPerS: 50, air: 'off', focusOffsetMm: 1, runUpMm: null },
};
const layoutOf = (...burns: Burn[]): Layout => bareLayout(burns.map((burn, index) => cellOf(index, burn)));
const linesOf = (layout: Layout, on: Machine = machine) => programOfCard(layout, on, place).text.trimEnd().split('\n');
/** Without the comments that head a program. */
const bodyOf = (layout: Layout, on: Machine = machine) => linesOf(layout, on).slice(3);
const START = ['G21', 'G90', 'G94', 'G17', 'M5', 'M9', 'M4 S0'];
/** Eight millimetres clear of the card's corner: 10 - 8 from the left, 100 - (20 - 8) from the front. */
const CLEAR = 'G0 X2 Y88 S0';

// Written out by hand: the card's corner lies 10 mm from the bed's left and 20 mm from its rear edge, Y counts from the front of 100 mm.
describe('a program, word for word', () => {
  it('fills by lines that run down the card, with run-up above and below them', () => {
    const down: Burn = {
      shape: { do: 'sweep', area: [rectRing({ x: 1, y: 1, width: 0.1, height: 2 })] },
      settings: { ...settings, direction: 'vertical' },
    };
    const moves = bodyOf(layoutOf(down)).filter((line) => /^G[01] X11/.test(line));
    // The only line lies at 10 + 1.05 mm and from 100 - 20 - 1 = 79 down to 77, with a millimetre of run-up at each end.
    expect(moves.map((line) => line.replace(/ F\d+/, ''))).toEqual([
      'G0 X11.05 Y80 S0',
      'G1 X11.05 Y79 S0',
      'G1 X11.05 Y77 S500',
      'G1 X11.05 Y76 S0',
    ]);
  });
  it('fills by lines with run-up before and after them, both ways, dark outside the mark', () => {
    expect(bodyOf(layoutOf(FILLED))).toEqual([
      ...START,
      ...listed(
        '(cell 0); M8; G0 X10 Y78.95 S0; G1 X11 Y78.95 F6000 S0; G1 X13 Y78.95 S500; G1 X14 Y78.95 S0; ' +
          'G0 X14 Y78.85 S0; G1 X13 Y78.85 S0; G1 X11 Y78.85 S500; G1 X10 Y78.85 S0; M5; M9',
      ),
      CLEAR,
      'M2',
    ]);
  });
  it('leaves run-up to a controller that adds it, and arms with M3 one that holds its power', () => {
    expect(bodyOf(layoutOf(FILLED), { ...machine, addsRunUp: true, rampPower: 'constant' })).toEqual([
      ...listed(
        'G21; G90; G94; G17; M5; M9; M3 S0; (cell 0); M8; G0 X11 Y78.95 S0; G1 X13 Y78.95 F6000 S500; ' +
          'G0 X13 Y78.85 S0; G1 X11 Y78.85 S500; M5; M9',
      ),
      CLEAR,
      'M2',
    ]);
  });
  it('follows lines with a new feed, and waits for a hand at each change of focus, disarmed and out of the way', () => {
    expect(bodyOf(layoutOf(FOLLOWED))).toEqual([
      ...START,
      '(cell 0)',
      'M5',
      CLEAR,
      ...listed(
        'M0 (focus offset +1 mm: raise the head 1 mm from the focus you set); M4 S0; G0 X10 Y77 S0; ' +
          'G1 X14 Y77 F3000 S250; G1 X14 Y78 S250; M5',
      ),
      CLEAR,
      'M0 (focus offset 0 mm: back to the focus you set)',
      'M4 S0',
      'M5',
      'M9',
      CLEAR,
      'M2',
    ]);
    const lower = layoutOf({ ...FOLLOWED, settings: { ...FOLLOWED.settings, focusOffsetMm: -1.5 } });
    expect(bodyOf(lower)).toContain('M0 (focus offset -1.5 mm: lower the head 1.5 mm from the focus you set)');
  });
  it('moves a motor by the difference of focus, disarmed, under G91, and back in the end', () => {
    const up = { ...FOLLOWED, settings: { ...FOLLOWED.settings, focusOffsetMm: 3 } };
    expect(bodyOf(layoutOf(FOLLOWED, up), { ...machine, automaticFocus: true })).toEqual([
      ...START,
      ...listed(
        '(cell 0); M5; G91; G0 Z1 S0; G90; M4 S0; G0 X10 Y77 S0; G1 X14 Y77 F3000 S250; G1 X14 Y78 S250; ' +
          '(cell 1); M5; G91; G0 Z2 S0; G90; M4 S0; G0 X10 Y77 S0; G1 X14 Y77 S250; G1 X14 Y78 S250; M5; G91; ' +
          'G0 Z-3 S0; G90; M4 S0; M5; M9',
      ),
      CLEAR,
      'M2',
    ]);
  });
  it('runs up to followed lines along their first and last stretch where it is asked to', () => {
    const run = { ...FOLLOWED, settings: { ...FOLLOWED.settings, focusOffsetMm: 0, runUpMm: 2 } };
    expect(bodyOf(layoutOf(run)).slice(8, -4)).toEqual(
      listed('G0 X8 Y77 S0; G1 X10 Y77 F3000 S0; G1 X14 Y77 S250; G1 X14 Y78 S250; G1 X14 Y80 S0'),
    );
    // A controller that adds it is told of none.
    expect(bodyOf(layoutOf(run), { ...machine, addsRunUp: true }).slice(8, -4)).toEqual(
      listed('G0 X10 Y77 S0; G1 X14 Y77 F3000 S250; G1 X14 Y78 S250'),
    );
  });
  it('counts from another zero the other way round, and from the head by G92, given back', () => {
    const rear = bodyOf(layoutOf(FILLED), { ...machine, zero: 'bed-rear-right', xPlus: 'left', yPlus: 'toward' });
    // From the right 200 - 11 and from the rear 20 + 1.05.
    expect(rear).toContain('G1 X189 Y21.05 F6000 S0');
    expect(rear).toContain('G1 X187 Y21.05 S500');
    const head = bodyOf(layoutOf(FILLED), { ...machine, zero: 'head' });
    // From the card's front left corner: 4 - 1.05 up.
    expect(head).toContain('G1 X3 Y2.95 S500');
    expect(head[6]).toBe('G92 X0 Y0');
    expect(head.slice(-2)).toEqual(['G92.1', 'M2']);
  });
  it('says what it is of, how focus counts and where its zero is', () => {
    const [card, focus, zero] = linesOf(layoutOf(FILLED));
    expect(card).toBe('(card CD001-4, 5 x 4 mm)');
    expect(focus).toMatch(/plus raises the head, minus lowers it/);
    expect(zero).toBe('(zero: bed: front left corner; X counts to the right, Y away from you)');
    expect(linesOf(layoutOf(FILLED), { ...machine, yPlus: 'toward', xPlus: 'left' })[2]).toContain(
      'X counts to the left, Y toward you',
    );
  });
  it('is told in parts by line, and whole in chunks', () => {
    const { parts, text, lines } = programOfCard(layoutOf(FOLLOWED), machine, place);
    const all = text.trimEnd().split('\n');
    expect(lines).toBe(all.length);
    expect(parts.map(({ line, name, cells }) => [all[line], name, cells])).toEqual([
      ['(cell 0)', 'cell 0', [0]],
      ['M0 (focus offset +1 mm: raise the head 1 mm from the focus you set)', 'waiting for a hand', []],
      ['M0 (focus offset 0 mm: back to the focus you set)', 'waiting for a hand', []],
      ['M5', 'end', []],
    ]);
    expect(parts.map(({ hand }) => hand?.focusOffsetMm ?? null)).toEqual([null, 1, 0, null]);
    expect([...gcodeChunks(layoutOf(FOLLOWED), machine, place)].join('')).toBe(text);
  });
  it('tells the rate of pulses where it changes, as a remark', () => {
    const at = (frequencyKHz: number | null): Burn => ({ ...FILLED, settings: { ...settings, frequencyKHz } });
    const remarks = (...rates: (number | null)[]) =>
      linesOf(layoutOf(...rates.map(at))).filter((text) => text.startsWith('(frequency'));
    expect(remarks(30, 30, 45.5, null, 45.5, 30)).toEqual([
      '(frequency 30 kHz)',
      '(frequency 45.5 kHz)',
      '(frequency 30 kHz)',
    ]);
    expect(remarks(null, null)).toEqual([]);
  });
  it('waits beside the lower end of a tilted board: left of it the head would come nearer to it than anywhere on the card', () => {
    const tilt = { spacerMm: 6, levelAtMm: 2, fallMmPerMm: 0.05 };
    const waits = (on: Machine): string =>
      bodyOf({ ...layoutOf(FOLLOWED), tilt }, on).find((line) => line.startsWith('G0 X'))!;
    // The card is 5 mm wide and lies 10 mm from the left: 23 mm, or as far as the bed goes.
    expect(waits(machine)).toBe('G0 X23 Y88 S0');
    expect(waits({ ...machine, bedWidthMm: 18 })).toBe('G0 X18 Y88 S0');
  });
  it('goes back to the card’s corner under mirrors, which have nowhere clear to go', () => {
    const galvo = { jumpSpeedMmPerS: 3000, jumpDelayS: 0.0003, markDelayS: 0.0004, frequencyKHz: null };
    expect(linesOf(layoutOf(FILLED), { ...machine, head: 'galvo', galvo }).at(-2)).toBe('G0 X10 Y80 S0');
    expect(linesOf(layoutOf(FILLED)).at(-2)).toBe(CLEAR);
  });
  it('leaves out what has no length', () => {
    const dot: Burn = { ...FOLLOWED, shape: { do: 'follow', lines: [[{ x: 1, y: 1 }], []] } };
    expect(linesOf(layoutOf(dot)).filter((text) => text.startsWith('G1 '))).toEqual([]);
  });
  it('comes in chunks of some kilobytes, none of them empty, which are the whole', () => {
    const long = layoutOf(...Array.from({ length: 500 }, () => FILLED));
    const chunks = [...gcodeChunks(long, machine, place)];
    expect(chunks.length).toBeGreaterThan(1);
    for (const chunk of chunks.slice(0, -1)) {
      expect(chunk.length).toBeGreaterThanOrEqual(32_768);
      expect(chunk.length).toBeLessThan(33_000);
    }
    expect(chunks.at(-1)!.length).toBeGreaterThan(0);
    expect(chunks.at(-1)!.length).toBeLessThan(32_768);
    expect(chunks.join('')).toBe(programOfCard(long, machine, place).text);
  });
  it('stays within the bed where the card lies at its edge', () => {
    const text = programOfCard(layoutOf(FILLED), machine, { leftMm: 3, rearMm: 2 }).text;
    // Clear by no more than there is: 3 - 3 from the left, 100 - (2 - 2) from the front.
    expect(text.trimEnd().split('\n').at(-2)).toBe('G0 X0 Y100 S0');
  });
});

describe('what a program is written with', () => {
  it('numbers are to a micrometre, without idle zeros or a minus before none', () => {
    expect([1, 0.5, -0.0001, 1.23456, 100, 10.1].map(programNumber)).toEqual(['1', '0.5', '0', '1.235', '100', '10.1']);
  });
  it('comments have no brackets, breaks or signs beyond plain ones', () => {
    expect(programComment('a (b) é\n½ G0')).toBe('a b e12 G0');
  });
});
