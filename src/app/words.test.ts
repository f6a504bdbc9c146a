import { describe, expect, it } from 'vitest';
import { PLAIN_FILL } from '../../tests/support/settings';
import type { FactValues } from '../core/book/fact-values';
import type { BurnSettings } from '../core/card/settings';
import { DEFAULT_LIKED_UNITS, type LikedUnits } from '../core/quantities/format';
import type { FactRecord, FactVersionRecord } from '../records/fact';
import { changesBetween, factRows } from './fact-words';
import { load, loadOrBench, numberBetween, pageNumber, wholeNumbers } from './page-load';
import { isProblem, notFound, Problem, problemBody, PROBLEMS } from './problems';

const SETTINGS: BurnSettings = {
  ...PLAIN_FILL,
  powerFraction: 0.455,
  speedMmPerS: 120,
  focusOffsetMm: 2.54,
  air: 'low',
};

describe('a fact in words', () => {
  const engrave: FactValues['engrave'] = {
    settings: SETTINGS,
    lightness: 45.25,
    lightnessSigma: 0.4,
    confidence: 0.999,
  };
  const rowsOf = (
    name: FactRecord['name'],
    value: unknown,
    liked: LikedUnits,
    at: FactRecord['at'] = {},
    sigma: number | null = null,
  ) => new Map(factRows({ name, at } as FactRecord, { value, sigma } as FactVersionRecord, liked));

  it('is in the units the operator likes, with how sure it is', () => {
    const rows = rowsOf('engrave', engrave, { length: 'in', speed: 'mm/min', density: 'dpi' });
    expect(rows.get('Power')).toBe('45.5 %');
    expect(rows.get('Speed')).toBe('7200 mm/min');
    expect(rows.get('Line interval')).toBe('254 DPI');
    expect(rows.get('Focus offset')).toBe('+0.1 in');
    expect(rows.get('Run-up')).toBe('as the speed needs');
    expect(rows.get('Lightness')).toBe('L* 45.3 ± 0.8 (95 %)');
    const byEye = { ...engrave, lightness: null, lightnessSigma: null, confidence: null };
    expect(rowsOf('engrave', byEye, DEFAULT_LIKED_UNITS).get('Lightness')).toMatch(/by eye/);
  });
  it('has a row for each setting, those of mirrors and pulses only where they say something', () => {
    const rows = rowsOf('engrave', engrave, DEFAULT_LIKED_UNITS, { shade: 'dark' });
    expect([...rows]).toEqual([
      ['Shade', 'dark'],
      ['Power', '45.5 %'],
      ['Speed', '120 mm/s'],
      ['Line interval', '0.1 mm'],
      ['Passes', '1'],
      ['Focus offset', '+2.54 mm'],
      ['Air', 'low'],
      ['Lines run', 'along X'],
      ['Burns', 'both ways'],
      ['Run-up', 'as the speed needs'],
      ['Scan offset', '0 mm'],
      ['Lightness', 'L* 45.3 ± 0.8 (95 %)'],
      ['Confidence', '99.9 %'],
    ]);
    const galvo = {
      ...SETTINGS,
      lineAngleDeg: 45,
      crossHatch: true,
      frequencyKHz: 40,
      runUpMm: 3.5,
      focusOffsetMm: -1,
      direction: 'vertical',
      bothWays: false,
    } as const;
    const turned = rowsOf('engrave', { ...engrave, settings: galvo, confidence: null }, DEFAULT_LIKED_UNITS);
    const of = (...labels: string[]) => labels.map((label) => turned.get(label));
    expect(of('Lines turned', 'Cross-hatched', 'Frequency')).toEqual(['45°', 'yes', '40 kHz']);
    expect(of('Run-up', 'Focus offset', 'Lines run', 'Burns')).toEqual(['3.5 mm', '-1 mm', 'along Y', 'one way']);
    const sharp = rowsOf('engrave', { ...engrave, settings: { ...SETTINGS, focusOffsetMm: 0 } }, DEFAULT_LIKED_UNITS);
    expect(sharp.get('Focus offset')).toBe('0 mm');
    expect(of('Confidence', 'Shade', 'Measured at')).toEqual([undefined, undefined, undefined]);
  });
  it('of a showpiece says what of each kind holds, and from when it does not', () => {
    const value = {
      settings: SETTINGS,
      letteringMm: { fromMm: 1.4, notMm: 0.9 },
      hairlineMm: { fromMm: null, notMm: 0.12 },
      pointMm: null,
    };
    const rows = rowsOf('showpiece', value, DEFAULT_LIKED_UNITS);
    expect(rows.get('Speed')).toBe('120 mm/s');
    expect(rows.get('Lettering is legible')).toBe('from 1.4 mm, not at 0.9 mm');
    expect(rows.get('Hairlines hold')).toBe('not at 0.12 mm');
    expect(rows.get('Points hold')).toBe('not told');
    const all = rowsOf('showpiece', { ...value, pointMm: { fromMm: 0.24, notMm: null } }, DEFAULT_LIKED_UNITS);
    expect(all.get('Points hold')).toBe('from 0.24 mm');
  });
  it('of a part says what was made up for and how it came out, and nothing that only fills have', () => {
    const value = {
      settings: SETTINGS,
      kerf: { xMm: 0.17, yMm: 0.2 },
      offMm: 0.012,
      expectedMm: 0.05,
      goes: 'press',
      slotMm: -0.2,
    } as const;
    const rows = rowsOf('part', value, DEFAULT_LIKED_UNITS);
    expect(rows.get('Kerf made up for')).toBe('X 0.17 mm, Y 0.2 mm');
    expect(rows.get('Sizes off')).toBe('0.012 mm rms; up to 0.05 mm was expected');
    expect(rows.get('In its slot')).toBe('pressed in');
    expect([...rows.keys()]).toContain('Speed');
    expect([...rows.keys()]).not.toContain('Lines run');
    const untried = rowsOf('part', { ...value, goes: null }, DEFAULT_LIKED_UNITS);
    expect(untried.get('In its slot')).toBe('not tried');
  });
  it('of a cut says what it drops, of which sheets, and how its edge looks', () => {
    const value: FactValues['cut'] = {
      settings: SETTINGS,
      certainty: 0.985,
      outlineMm: 24,
      thicknessMm: { from: 2.9, to: 3.2 },
      comesThrough: 0.9,
      laidDown: 1.15,
      edge: null,
    };
    expect([...rowsOf('cut', value, DEFAULT_LIKED_UNITS)].slice(4)).toEqual([
      ['Air', 'low'],
      ['Drops', '98.5 of 100 parts with 24 mm of outline'],
      ['Good for sheets of', '2.9 mm to 3.2 mm'],
      ['Lays down', '1.15 J/mm for each mm of thickness; sound stock comes through at 0.9'],
      ['Edge', 'not looked at'],
    ]);
    expect(rowsOf('cut', { ...value, edge: 'brown' }, DEFAULT_LIKED_UNITS).get('Edge')).toBe('brown');
  });
  it('of a line that tears or folds, and of passes, has nothing that only fills have', () => {
    const score = rowsOf('score', { settings: SETTINGS, dashMm: 3, skipMm: 0.6, share: null }, DEFAULT_LIKED_UNITS);
    const passes = rowsOf('passes', { settings: SETTINGS, dropped: 3 }, DEFAULT_LIKED_UNITS);
    expect([...score.values()].at(-1)).toBe('dashes 3 mm, 0.6 mm between');
    expect(passes.get('Dropped whole')).toBe('3 of 3');
    for (const rows of [score, passes]) expect([...rows.keys()]).not.toContain('Line interval');
  });
  it('that nobody burned here says so', () => {
    const brought = { ...engrave, lightness: null, lightnessSigma: null, confidence: null };
    const version = { value: brought, sigma: null, origin: 'brought' } as unknown as FactVersionRecord;
    const rows = new Map(factRows({ name: 'engrave', at: {} } as FactRecord, version, DEFAULT_LIKED_UNITS));
    expect(rows.get('Lightness')).toBe('nothing was burned here');
  });
  it('says at what it was measured, and how sure, doubled for 95 %', () => {
    const floor = rowsOf('floor', { powerFraction: 0.065 }, DEFAULT_LIKED_UNITS, { speed: 120 }, 0.004);
    expect([...floor.values()]).toEqual(['floor 6.5 %', '± 0.8 %', '120 mm/s']);
    expect(rowsOf('interval', { intervalMm: 0.12 }, DEFAULT_LIKED_UNITS).get('How sure')).toBe('not known');
  });
});

describe('what changed from one version of a fact to the next', () => {
  const changes = (name: FactRecord['name'], before: unknown, after: unknown, sigmas = [0.01, 0.01]) => {
    const [one, two] = [before, after].map((value, at) => ({ value, sigma: sigmas[at]!, origin: 'card' }));
    const fact = { name, at: {} } as FactRecord;
    return changesBetween(fact, one as FactVersionRecord, two as FactVersionRecord, DEFAULT_LIKED_UNITS);
  };
  it('is told row by row, and only what did', () => {
    const before = { settings: SETTINGS, lightness: 45, lightnessSigma: 0.4, confidence: null };
    const other = { speedMmPerS: 90, bothWays: false, direction: 'vertical', crossHatch: true, runUpMm: 4 };
    expect(changes('engrave', before, before)).toEqual([]);
    expect(changes('engrave', before, { ...before, settings: { ...SETTINGS, ...other }, lightness: 42 })).toEqual([
      'Speed: 120 mm/s → 90 mm/s',
      'Lines run: along X → along Y',
      'Burns: both ways → one way',
      'Run-up: as the speed needs → 4 mm',
      'Cross-hatched: no → yes',
      'Lightness: L* 45 ± 0.8 (95 %) → L* 42 ± 0.8 (95 %)',
    ]);
    expect(changes('engrave', before, { ...before, confidence: 0.99 })).toEqual(['Confidence: not told → 99 %']);
  });
  it('is in words for every sort of fact, and never a list of numbers', () => {
    expect(changes('floor', { powerFraction: 0.05 }, { powerFraction: 0.06 }, [0.004, 0.001])).toEqual([
      'Least power that marks: floor 5 % → floor 6 %',
      'How sure: ± 0.8 % → ± 0.2 %',
    ]);
    const slots = (snug: number) => ({ fromMm: { press: -0.24, snug, slip: -0.08, loose: 0.02 }, thicknessMm: 3.05 });
    expect(changes('fit', slots(-0.16), slots(-0.12))[0]).toMatch(/: snug from -0\.16 mm .* → snug from -0\.12 mm/);
    const tone = (last: number) => ({ topFraction: 0.4, strongest: 44, proven: true, table: [0, 0.2, last] });
    expect(changes('tone', tone(0.4), tone(0.4))).toEqual([]);
    expect(changes('tone', tone(0.4), tone(0.39))).toEqual(['numbers that are not shown here']);
  });
});

describe('problems', () => {
  it('say in each case what to do, by a status of refusal', () => {
    for (const [code, { status, title, whatToDo }] of Object.entries(PROBLEMS)) {
      expect(status, code).toBeGreaterThanOrEqual(400);
      expect(title.length, code).toBeGreaterThan(8);
      expect(whatToDo, code).toMatch(/[.]$/);
    }
  });
  it('carry type, title, status and detail as RFC 9457 has them', () => {
    const body = problemBody(new Problem('retired', 'Heron is retired.'));
    expect(body).toMatchObject({
      type: '/problems#retired',
      status: 409,
      detail: 'Heron is retired.',
      whatIsSafe: 'Nothing was changed.',
    });
    expect(body).not.toHaveProperty('fields');
    expect(isProblem(notFound('card', 7))).toBe(true);
    expect(isProblem(new Error('plain'))).toBe(false);
  });
});

describe('the id in a page’s address', () => {
  const page = (id: string | undefined) => ({
    params: { id },
    rewrite: async (path: string) => new Response(path),
    redirect: (path: string) => new Response(null, { status: 302, headers: { location: path } }),
  });
  it('is handed to the loader', async () => {
    expect(await load(page('12'), async (id) => ({ id }))).toEqual({ id: 12 });
  });
  it.each(['0', '-1', '1.5', 'abc', '1e3', '99999999999', undefined])(
    'that is none (%s) leads to the page for that',
    async (id) => {
      const answer = await load(page(id), async () => 'never');
      expect(answer).toBeInstanceOf(Response);
      expect(await (answer as Response).text()).toBe('/404');
    },
  );
  it('that names nothing leads there too, and other failures are not hidden', async () => {
    const missing = await load(page('5'), async () => Promise.reject(notFound('card', 5)));
    expect(await missing.text()).toBe('/404');
    await expect(load(page('5'), async () => Promise.reject(new Error('fault')))).rejects.toThrow('fault');
    const other = new Problem('machine-busy', 'Heron burns another card.');
    await expect(load(page('5'), async () => Promise.reject(other))).rejects.toBe(other);
    const alike = Object.assign(new Error('elsewhere'), { code: 'not-found' });
    await expect(load(page('5'), async () => Promise.reject(alike))).rejects.toBe(alike);
  });
  it('of a bench leads back to it with what keeps the page from being shown, and to nowhere when there is none', async () => {
    const refused = Promise.reject(new Problem('banned-material', 'PVC is never burned.'));
    const back = await loadOrBench(page('5'), () => refused, '?cannot=grid');
    expect(back.headers.get('location')).toBe('/bench/5?cannot=grid');
    const missing = await loadOrBench(page('5'), async () => Promise.reject(notFound('bench', 5)));
    expect(await missing.text()).toBe('/404');
  });
});

describe('the page number of a list', () => {
  it.each([
    ['', 1],
    ['?page=3', 3],
    ['?page=0', 1],
    ['?page=-2', 1],
    ['?page=1.5', 1],
    ['?page=two', 1],
  ])('of %s is %i', (query, page) => expect(pageNumber(new URL(`http://localhost/book${query}`))).toBe(page));
});

describe('a number that an address gives', () => {
  it.each([
    ['?at=10', 10],
    ['?at=95.5', 95.5],
    ['?at=100', 100],
    ['?at=9.99', null],
    ['?at=100.01', null],
    ['?at=-20', null],
    ['?at=many', null],
    ['', null],
  ])('from 10 to 100 is by %s %j', (query, number) =>
    expect(numberBetween(new URL(`http://localhost/compare${query}`), 'at', 10, 100)).toBe(number),
  );
});

describe('whole numbers that an address gives', () => {
  it('come in its order, without what is none', () => {
    const address = new URL('http://localhost/compare?pairing=7&pairing=no&pairing=12&pairing=0&other=4&pairing=-3');
    expect(wholeNumbers(address, 'pairing')).toEqual([7, 12]);
    expect(wholeNumbers(address, 'strength')).toEqual([]);
  });
});
