import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { constantFields, FRAME_FIELDS, valueAt, withValueAt, type PlanField } from './plan-fields';

const heron = demoPairing('heron', 'birch').machine;
const tern = demoPairing('tern', 'twoLayer').machine;
/** "constants.passes: Passes, count" */
const told = ({ path, label, as }: PlanField) => `${path}: ${label}, ${as}`;

describe('what the planner asks of every cell alike', () => {
  it('is what a gantry can set', () => {
    const fields = constantFields(heron, 'constants');
    expect(fields.map(told)).toEqual([
      'constants.powerFraction: Power, power',
      'constants.speedMmPerS: Speed, speed',
      'constants.intervalMm: Line interval, interval',
      'constants.passes: Passes, count',
      'constants.focusOffsetMm: Focus offset, offset',
      'constants.air: Air, choice',
      'constants.direction: Lines run, choice',
      'constants.bothWays: Burn both ways, flag',
      'constants.scanOffsetMm: Scan offset, offset',
      'constants.lengthenMm: Longer dots, offset',
      'constants.runUpMm: Run-up, run-up',
    ]);
    expect([...new Set(fields.map(({ group }) => group))]).toEqual(['same']);
    expect(fields.flatMap(({ hint }) => hint ?? [])).toEqual([
      'from the focus you set: plus raises the head, minus lowers it',
      'halves the time of a fill',
      'each line of the way back is laid so much further along: minus where the beam is late',
      'each lit stretch of a line is drawn so much longer: plus where the beam comes on late',
      'each side, also called overscan; empty for what the speed needs',
    ]);
    expect(fields.find(({ label }) => label === 'Lines run')!.options).toEqual([
      { value: 'horizontal', name: 'along X' },
      { value: 'vertical', name: 'along Y' },
    ]);
  });
  it('is angle, hatch and pulses under mirrors, and no run-up', () => {
    const fields = constantFields(tern, 'constants');
    expect(fields.slice(-3)).toEqual([
      {
        path: 'constants.lineAngleDeg',
        label: 'Lines turned by',
        as: 'number',
        unit: '°',
        group: 'same',
        hint: 'counter-clockwise, 0 up to 90',
      },
      {
        path: 'constants.crossHatch',
        label: 'Cross-hatch',
        as: 'flag',
        group: 'same',
        hint: 'each pass once more at right angles: twice the energy',
      },
      {
        path: 'constants.frequencyKHz',
        label: 'Frequency',
        as: 'number',
        unit: 'kHz',
        optional: true,
        group: 'same',
        hint: '20 to 80 kHz; empty to leave it as it is. Files carry it as a remark: set it at the machine.',
      },
    ]);
    expect(fields.map(({ label }) => label)).not.toContain('Run-up');
    const steady = { ...tern, galvo: { ...tern.galvo!, frequencyKHz: null } };
    expect(constantFields(steady, 'constants').map(({ label }) => label)).not.toContain('Frequency');
  });
  it('leaves out what varies on the card, and nothing else', () => {
    const left = constantFields(heron, 'at.settings', ['powerFraction', 'focusOffsetMm']).map(({ path }) => path);
    expect(left).toHaveLength(9);
    expect(left[0]).toBe('at.settings.speedMmPerS');
    expect(left).not.toContain('at.settings.focusOffsetMm');
    expect(constantFields(tern, 'constants', ['passes'])).toHaveLength(12);
  });
  it('offers the air that the machine has', () => {
    const airs = (airAssist: 'none' | 'on-off' | 'adjustable') =>
      constantFields({ ...heron, airAssist }, 'c').find(({ label }) => label === 'Air')!.options;
    expect(airs('none')).toEqual([{ value: 'off', name: 'off' }]);
    expect(airs('on-off')!.map(({ value }) => value)).toEqual(['off', 'on']);
    expect(airs('adjustable')!.map(({ value }) => value)).toEqual(['off', 'low', 'on']);
  });
  it('asks of the frame how strong and how fast', () => {
    expect(FRAME_FIELDS.map(told)).toEqual([
      'frame.markers: Placed in a photo by, choice',
      'frame.marker.powerFraction: Marker power, power',
      'frame.marker.speedMmPerS: Marker speed, speed',
      'frame.lettering.powerFraction: Lettering power, power',
      'frame.lettering.speedMmPerS: Lettering speed, speed',
    ]);
  });
});

describe('a place in a plan', () => {
  const plan = { cellMm: 4, constants: { passes: 2, air: 'off' } };
  it('is read by its path, and nothing where the path ends', () => {
    expect([valueAt(plan, 'cellMm'), valueAt(plan, 'constants.passes')]).toEqual([4, 2]);
    expect([valueAt(plan, 'none'), valueAt(plan, 'none.deeper')]).toEqual([undefined, undefined]);
  });
  it('is changed in a copy, everything beside it as it was', () => {
    const changed = withValueAt(plan, 'constants.passes', 3);
    expect(changed).toEqual({ cellMm: 4, constants: { passes: 3, air: 'off' } });
    expect(plan.constants.passes).toBe(2);
    expect(withValueAt(plan, 'cellMm', 5)).toEqual({ cellMm: 5, constants: plan.constants });
  });
});
