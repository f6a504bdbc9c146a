import { describe, expect, it } from 'vitest';
import { PLAIN_EXTRAS } from '../core/card/settings';
import {
  axisSchema,
  cellIndexSchema,
  constantsSchema,
  flagSchema,
  frameSchema,
  number,
  positive,
  settingsSchema,
  setupSchema,
} from './plan-schemas';

interface Schema {
  validate(value: unknown): { error?: unknown };
}
const takes = (schema: Schema, value: unknown): boolean => schema.validate(value).error === undefined;
/** Those of some values that a schema lets through. */
const taken = (schema: Schema, values: readonly unknown[], as = (value: unknown): unknown => value): unknown[] =>
  values.filter((value) => takes(schema, as(value)));

describe('numbers at the door', () => {
  it('are numbers: text, NaN and infinity are none', () => {
    for (const odd of ['12', NaN, Infinity, null, true]) expect(takes(number(), odd), String(odd)).toBe(false);
    expect(takes(number(), -3.5)).toBe(true);
  });
  it('that are above zero end at their most', () => {
    expect(taken(positive(5), [0, -1, 1e-9, 5, 5.1])).toEqual([1e-9, 5]);
  });
  it('flags are true or false and nothing that looks like it', () => {
    expect(taken(flagSchema(), [true, false, 'true', 1, null])).toEqual([true, false]);
  });
  it('cells are counted from 0', () => {
    expect(taken(cellIndexSchema, [-1, 0, 1.5, 9999, 10_000])).toEqual([0, 9999]);
  });
});

describe('an axis', () => {
  const axis = { from: 1, to: 5, count: 6, spacing: 'even' };
  it('has two to twenty steps, evenly or by ratio', () => {
    expect(taken(axisSchema(), [1, 2, 20, 21, 2.5], (count) => ({ ...axis, count }))).toEqual([2, 20]);
    const spacings = ['even', 'ratio', 'odd'];
    expect(taken(axisSchema(), spacings, (spacing) => ({ ...axis, spacing }))).toEqual(['even', 'ratio']);
    expect(takes(axisSchema('zero', 9), { ...axis, count: 10 })).toBe(false);
  });
  it('starts above zero, or anywhere where it may', () => {
    const from = (value: unknown) => ({ ...axis, from: value });
    expect(taken(axisSchema(), [-2, 0, 1], from)).toEqual([1]);
    expect(taken(axisSchema('anything'), [-1001, -1000, -2, 0], from)).toEqual([-1000, -2, 0]);
  });
  it('has all of its words and no others', () => {
    for (const key of Object.keys(axis)) expect(takes(axisSchema(), { ...axis, [key]: undefined }), key).toBe(false);
    expect(takes(axisSchema(), { ...axis, other: 1 })).toBe(false);
  });
});

describe('settings', () => {
  const constants = {
    intervalMm: 0.1,
    passes: 1,
    focusOffsetMm: 0,
    air: 'low',
    direction: 'vertical',
    bothWays: true,
    ...PLAIN_EXTRAS,
  };
  const settings = { powerFraction: 0.5, speedMmPerS: 100, ...constants };
  it('are taken whole', () => {
    expect(takes(constantsSchema, constants)).toBe(true);
    expect(takes(settingsSchema, settings)).toBe(true);
    for (const key of Object.keys(settings))
      expect(takes(settingsSchema, { ...settings, [key]: undefined }), key).toBe(key === 'lengthenMm');
    const { lengthenMm: _none, ...older } = settings;
    expect(settingsSchema.validate(older).value).toEqual({ ...older, lengthenMm: 0 });
  });
  it.each([
    ['powerFraction', [0.01, 1], [0, 1.01]],
    ['speedMmPerS', [0.1, 20_000], [0, 20_001]],
    ['intervalMm', [0.01, 2], [0, 2.1]],
    ['passes', [1, 20], [0, 21, 1.5]],
    ['focusOffsetMm', [-20, 20], [-20.1, 20.1]],
    ['air', ['off', 'low', 'on'], ['none', true]],
    ['direction', ['horizontal', 'vertical'], ['diagonal']],
    ['bothWays', [true, false], ['yes']],
    ['runUpMm', [0, 300, null], [-1, 301]],
    ['scanOffsetMm', [-2, 2], [-2.1, 2.1]],
    ['lengthenMm', [-0.5, 0.5], [-0.51, 0.51]],
    ['lineAngleDeg', [0, 89.9], [-1, 90]],
    ['crossHatch', [true, false], [0]],
    ['frequencyKHz', [1, 10_000, null], [0, 10_001]],
  ] as const)('%s has its own bounds', (key, within, beyond) => {
    for (const value of within) expect(takes(settingsSchema, { ...settings, [key]: value }), String(value)).toBe(true);
    for (const value of beyond) expect(takes(settingsSchema, { ...settings, [key]: value }), String(value)).toBe(false);
  });
});

describe('a frame and a set-up', () => {
  const mark = { powerFraction: 0.2, speedMmPerS: 100 };
  const frame = { marker: { ...mark, intervalMm: 0.2 }, lettering: mark, words: 'short' };
  const setup = {
    masked: false,
    wiped: false,
    dried: false,
    coatedWith: '',
    support: 'pins',
    heldBy: 'magnets',
    focusSetBy: 'ruler',
    airNozzle: '',
    airPressureKPa: null,
    airFlowLPerMin: null,
    finish: 'none',
    lookedAt: 'before',
  };
  it('are taken whole', () => {
    expect(takes(frameSchema, frame)).toBe(true);
    expect(takes(setupSchema, setup)).toBe(true);
    for (const key of Object.keys(frame)) expect(takes(frameSchema, { ...frame, [key]: undefined }), key).toBe(false);
    for (const key of Object.keys(setup)) expect(takes(setupSchema, { ...setup, [key]: undefined }), key).toBe(false);
    for (const key of ['powerFraction', 'speedMmPerS', 'intervalMm'])
      expect(takes(frameSchema, { ...frame, marker: { ...frame.marker, [key]: 0 } }), key).toBe(false);
  });
  it.each([
    ['coatedWith', ['', 'x'.repeat(80)], ['x'.repeat(81), 3]],
    ['airNozzle', ['', '2 mm'], ['x'.repeat(81)]],
    ['support', ['bed', 'honeycomb', 'pins', 'board'], ['air', '']],
    ['heldBy', ['nothing', 'magnets', 'clamps', 'tape'], ['hope', '']],
    ['focusSetBy', ['not-said', 'spacer', 'automatic', 'ruler', 'trial'], ['eye', '']],
    ['airPressureKPa', [null, 0.1, 2000], [0, 2001]],
    ['airFlowLPerMin', [null, 0.1, 2000], [0, 2001]],
    ['finish', ['none', 'wiped', 'washed', 'brushed', 'sanded', 'stained'], ['painted', '']],
    ['lookedAt', ['before', 'after', 'both'], ['never', '']],
  ] as const)('%s has its own words and bounds', (key, within, beyond) => {
    for (const value of within) expect(takes(setupSchema, { ...setup, [key]: value }), String(value)).toBe(true);
    for (const value of beyond) expect(takes(setupSchema, { ...setup, [key]: value }), String(value)).toBe(false);
  });
});
