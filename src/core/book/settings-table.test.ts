import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { proposeFill } from '../card/propose-fill';
import { guessColumn, readTableRow, type ColumnMeaning } from './settings-table';

const pairing = demoPairing('heron', 'birch');
const { settings: usual } = proposeFill({ pairing, facts: [] });
const read = (cells: readonly string[], ...meanings: ColumnMeaning[]) =>
  readTableRow(1, cells, meanings, pairing.machine, usual);

describe('what a column means', () => {
  it.each([
    ['Power', ['20', '45'], 'power'],
    ['power (%)', ['20'], 'power'],
    ['Power', ['200', '1000'], 'power-thousandths'],
    ['Power [W]', ['6.5'], 'power-watts'],
    ['Speed', ['120'], 'speed-mm-s'],
    ['Speed mm/min', ['3000'], 'speed-mm-min'],
    ['feed (mm / min)', ['3000'], 'speed-mm-min'],
    ['Interval', ['0.1'], 'interval-mm'],
    ['interval', ['254'], 'interval-dpi'],
    ['DPI', ['254'], 'interval-dpi'],
    ['Passes', ['2'], 'passes'],
    ['Remarks', ['fine'], 'note'],
    ['Strength', ['dark'], 'shade'],
    ['Customer', ['Ann'], 'ignore'],
    ['S', ['300'], 'ignore'],
    ['%', ['45'], 'power'],
    ['Power', ['100', 'full', '12,5'], 'power'],
    ['Power', ['full', '100,5'], 'power-thousandths'],
    ['Speed in/s', ['2'], 'speed-in-s'],
    ['Lines / cm', ['100'], 'interval-lines-cm'],
    ['Lines /cm', ['100'], 'interval-lines-cm'],
    ['L/ cm', ['100'], 'interval-lines-cm'],
    ['Density (per cm)', ['100'], 'interval-lines-cm'],
    ['Line -- gap', ['10'], 'interval-mm'],
    ['Defocus', ['1'], 'focus'],
    ['Air', ['on'], 'air'],
  ] as const)('%s %j: %s', (title, samples, meaning) => expect(guessColumn(title, samples)).toBe(meaning));
});

describe('a row', () => {
  it('takes air in the words that tables have for it, and nothing that is none', () => {
    const air = (text: string) => read(['45', '100', text], 'power', 'speed-mm-s', 'air');
    expect(air('').settings?.air).toBe(usual.air);
    for (const text of ['off', 'No', ' 0 ', 'false', 'none']) expect(air(text).settings?.air, text).toBe('off');
    for (const text of ['on', 'YES', '1', 'true', 'high', 'full']) expect(air(text).settings?.air, text).toBe('on');
    expect(air('Low').settings?.air).toBe('low');
    expect(air('maybe').problems.join(' ')).toMatch(/"maybe" is neither off, low nor on/);
  });
  it('takes one to twenty whole passes', () => {
    const passes = (text: string) => read(['45', '100', text], 'power', 'speed-mm-s', 'passes');
    expect([passes(' 1 ').settings?.passes, passes('20').settings?.passes]).toEqual([1, 20]);
    for (const text of ['0', '21', '1.5', 'two'])
      expect(passes(text).problems.join(' '), text).toMatch(/is not 1 to 20/);
  });
  it('takes each unit of speed, power and interval with its sign and without', () => {
    const one = (text: string, meaning: ColumnMeaning) => {
      if (meaning.startsWith('power')) return read([text, '100'], meaning, 'speed-mm-s');
      if (meaning.startsWith('speed')) return read(['45', text], 'power', meaning);
      return read(['45', '100', text], 'power', 'speed-mm-s', meaning);
    };
    const power = (text: string, meaning: ColumnMeaning) => one(text, meaning).settings!.powerFraction;
    // Ten watts rated: 6.5 W are 65 %.
    for (const text of ['6.5', '6.5 W', '6.5w', '65 %'])
      expect(power(text, text.includes('%') ? 'power' : 'power-watts'), text).toBeCloseTo(0.65, 12);
    expect(power('450', 'power-thousandths')).toBeCloseTo(0.45, 12);
    expect(power('45 %', 'power-thousandths')).toBeCloseTo(0.45, 12);
    const speed = (text: string, meaning: ColumnMeaning) => one(text, meaning).settings!.speedMmPerS;
    expect(speed('2', 'speed-in-s')).toBeCloseTo(50.8, 9);
    expect(speed('3000 mm/min', 'speed-in-s')).toBeCloseTo(50, 9);
    expect(speed('3000', 'speed-mm-min')).toBeCloseTo(50, 9);
    const interval = (text: string, meaning: ColumnMeaning) => one(text, meaning).settings!.intervalMm;
    expect(interval('100', 'interval-lines-cm')).toBeCloseTo(0.1, 12);
    expect(interval('254', 'interval-dpi')).toBeCloseTo(0.1, 12);
    expect(interval('0.1', 'interval-mm')).toBeCloseTo(0.1, 12);
    expect(one('1.5', 'focus').settings!.focusOffsetMm).toBe(1.5);
  });
  it('becomes a setting in canonical units, with what it lacks from the usual fill', () => {
    const row = read(
      ['45', '3000', '254', '2', 'strong', 'drawer fronts'],
      'power',
      'speed-mm-min',
      'interval-dpi',
      'passes',
      'shade',
      'note',
    );
    expect(row).toMatchObject({ shade: 'strong', note: 'drawer fronts', problems: [] });
    expect(row.settings).toMatchObject({ powerFraction: 0.45, passes: 2, air: usual.air, focusOffsetMm: 0 });
    expect(row.settings!.speedMmPerS).toBeCloseTo(50, 12);
    expect(row.settings!.intervalMm).toBeCloseTo(0.1, 12);
  });
  it('takes units as they are written, and watts and thousandths for what they are', () => {
    expect(read(['6.5', '10 mm/s'], 'power-watts', 'speed-mm-min').settings).toMatchObject({
      powerFraction: 0.65,
      speedMmPerS: 10,
    });
    expect(read(['45 %', '2'], 'power-thousandths', 'speed-in-s').settings).toMatchObject({ powerFraction: 0.45 });
    expect(read(['450', '2'], 'power-thousandths', 'speed-in-s').settings).toMatchObject({
      powerFraction: 0.45,
      speedMmPerS: 50.8,
    });
  });
  it.each([
    [['', '100'], 'No power'],
    [['45', ''], 'No speed'],
    [['a lot', '100'], 'Invalid power'],
  ] as const)('%j is not taken over: %s', (cells, why) => {
    const row = read(cells, 'power', 'speed-mm-s');
    expect(row.settings).toBeNull();
    expect(row.problems.join(' ')).toContain(why);
  });
  it('says once what is wrong with it, and nothing of what it would lack besides', () => {
    expect(read(['a lot', ''], 'power', 'speed-mm-s').problems).toHaveLength(1);
  });
  it('passes over columns that mean nothing, and cells that a short row has not', () => {
    const row = read(['45', '100', 'Ann'], 'power', 'speed-mm-s', 'ignore', 'shade', 'air');
    expect(row).toMatchObject({ shade: '', note: '', problems: [] });
    expect(row.settings).toMatchObject({ powerFraction: 0.45, air: usual.air });
  });
  it('keeps names to 40 letters and remarks, joined, to 1000', () => {
    const row = read(
      ['45', '100', ` ${'n'.repeat(50)} `, 'one', 'r'.repeat(2000)],
      'power',
      'speed-mm-s',
      'shade',
      'note',
      'note',
    );
    expect(row.shade).toBe('n'.repeat(40));
    expect(row.note).toBe(`one; ${'r'.repeat(995)}`);
  });
  it('is not taken over where two columns say the same, or passes are no whole number', () => {
    const twice = read(['45', '50', '100'], 'power', 'power', 'speed-mm-s');
    expect(twice.settings).toBeNull();
    expect(twice.problems).toEqual(['Two columns say power.']);
    expect(read(['45', '100', '1.5'], 'power', 'speed-mm-s', 'passes').settings).toBeNull();
  });
});
