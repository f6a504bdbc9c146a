import { describe, expect, it } from 'vitest';
import { cellOf, layoutOf } from '../../../tests/support/bare-layout';
import { demoPairing } from '../../../stand-ins/demo';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { burnMotion } from './burn-motion';
import { estimateCard, wayOf } from './estimate';
import type { Layout } from './layout';
import { cardPath, frameBurns, type BurnScope } from './path';
import { rectRing, type Burn } from './shape';
import { cardSteps } from './steps';

const { machine: heron } = demoPairing('heron', 'birch');
const machine = { ...heron, automaticFocus: false };
const fill: Burn = {
  shape: { do: 'sweep', area: [rectRing({ x: 1, y: 1, width: 2, height: 1 })] },
  settings: PLAIN_FILL,
};
const lineOf = (...points: [number, number][]) => points.map(([x, y]) => ({ x, y }));
const scored: Burn = {
  shape: { do: 'follow', lines: [lineOf([0, 3], [4, 3])] },
  settings: { ...PLAIN_FILL, powerFraction: 0.5 },
};
const turnedOver: Burn = { ...scored, before: { text: 'Turn the sheet over.' } };
const lettered = (...lines: ReturnType<typeof lineOf>[]): Layout['frame']['lettering'] =>
  lines.map((strokes, index) => ({ role: 'axis', text: String(index), strokes: [strokes] }));
const plain = layoutOf([cellOf(0, fill), cellOf(1, turnedOver), cellOf(2, fill)]);
const layout: Layout = { ...plain, before: [scored], after: [fill] };

describe('the parts of a card', () => {
  const told = (scope: BurnScope | null) =>
    [...cardPath(layout, machine, scope)].flatMap((step) =>
      step.step === 'part' ? [step.name] : step.step === 'hand' ? [step.text] : [],
    );
  it('come one after another: what is common first, then the cells, each with what a hand does before it, and what is common last', () => {
    expect(told(null)).toEqual(['common', 'cell 0', 'cell 1', 'Turn the sheet over.', 'cell 2', 'common']);
  });
  it('are all of the frame or none of it, and the cells that are asked for', () => {
    expect(told({ cells: [2, 1], frame: false })).toEqual(['cell 2', 'cell 1', 'Turn the sheet over.']);
    expect(told({ cells: [], frame: true })).toEqual(['common', 'common']);
  });
  it('wait for a hand where one is asked for, and where the focus must be set by hand', () => {
    expect(estimateCard(layout, machine).handStops).toBe(1);
    const lower: Burn = { ...fill, settings: { ...PLAIN_FILL, focusOffsetMm: -1 } };
    const two = layoutOf([cellOf(0, fill), cellOf(1, lower), cellOf(2, lower), cellOf(3, fill)]);
    expect(estimateCard(two, machine).handStops).toBe(2);
    expect(estimateCard(two, { ...machine, automaticFocus: true }).handStops).toBe(0);
  });
  it('that hold nothing to burn take no time and no way', () => {
    const empty: Burn = { ...scored, shape: { do: 'follow', lines: [[]] } };
    expect(estimateCard(layoutOf([cellOf(0, empty)]), machine)).toMatchObject({ totalS: 0, cellsS: [0] });
    expect(burnMotion(layoutOf([cellOf(0, empty)]), machine)).toEqual({ ways: [], lines: 0 });
    const dot = { step: 'stroke', points: lineOf([2, 2]), runUpMm: 1, powerFraction: 1, speedMmPerS: 10 } as const;
    expect(wayOf(dot)).toEqual(dot.points);
    const two = { ...dot, points: lineOf([2, 2], [4, 2]) };
    expect(wayOf(two)).toEqual(lineOf([1, 2], [2, 2], [4, 2], [5, 2]));
  });
});

describe('the frame’s burns', () => {
  const marked = { corner: 'upper-left', id: 7, x: 0, y: 0, sizeMm: 3.2 } as const;
  it('run markers up as their machine’s power asks for', () => {
    const runUp = (rampPower: 'constant' | 'follows-speed') =>
      frameBurns({ ...plain, frame: { ...plain.frame, markers: [marked] } }, { rampPower, head: 'gantry' })[0]!.burn
        .settings.runUpMm;
    expect(runUp('constant')).toBeNull();
    expect(runUp('follows-speed')).toBe(0);
  });
  it('go on from where the head has come to', () => {
    // From the end of the first, at 0, 5, the next one down the side is 1 mm away and the one at 3, 1 five.
    const lettering = lettered(lineOf([3, 1], [4, 1]), lineOf([0, 1], [0, 5]), lineOf([0, 6], [0, 7]));
    const burns = frameBurns({ ...plain, frame: { ...plain.frame, lettering } }, machine);
    const starts = burns.map(({ burn }) => (burn.shape.do === 'follow' ? burn.shape.lines[0]![0] : null));
    expect(starts).toEqual(lineOf([0, 1], [0, 6], [3, 1]));
  });
});

describe('the steps of a card', () => {
  it('are one for each setting, named by what they burn and counted from 1', () => {
    const marked = { corner: 'upper-left', id: 7, x: 0, y: 0, sizeMm: 3.2 } as const;
    const frame = { ...plain.frame, markers: [marked], lettering: lettered(lineOf([3, 4], [4, 4])) };
    const steps = cardSteps(
      { ...layout, frame, before: [{ ...scored, settings: { ...PLAIN_FILL, passes: 3 } }] },
      machine,
    );
    expect(steps.map(({ name, does, cells, number }) => [number, name, does, cells])).toEqual([
      [1, '01 marker', 'sweep', []],
      [2, '02 lettering', 'follow', []],
      [3, '03 common', 'follow', []],
      [4, '04 cells 1 3', 'sweep', [0, 2]],
      [5, '05 cell 2', 'follow', [1]],
    ]);
    // The common fill after the cells has their setting: it is burned with them.
    expect(steps[3]!.shapes).toEqual([fill.shape, fill.shape, fill.shape]);
    expect(steps[3]!.settings).toEqual(PLAIN_FILL);
  });
  it('take settings for the same in whatever order they were written', () => {
    const back = Object.fromEntries(Object.entries(PLAIN_FILL).reverse()) as unknown as typeof PLAIN_FILL;
    const two = layoutOf([cellOf(0, fill), cellOf(1, { ...fill, settings: back })]);
    expect(cardSteps(two, machine).map(({ name }) => name)).toEqual(['01 cells 1 2']);
    // A cell that is burned by two shapes of one setting is named once.
    const twice = layoutOf([cellOf(0, fill, { burns: [fill, fill] })]);
    expect(cardSteps(twice, machine).map(({ name, shapes }) => [name, shapes.length])).toEqual([['01 cell 1', 2]]);
  });
});
