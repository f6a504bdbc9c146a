import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../core/quantities/format';
import type { BurnSettings } from '../core/card/settings';
import { differencesBetween, type VersionView } from './book-views';
import { load } from './page-load';
import { sniffMediaType } from './photos';
import { isProblem, notFound, Problem, problemBody, PROBLEMS } from './problems';
import { differenceWords, settingRows } from './setting-words';

const SETTINGS: BurnSettings = {
  powerFraction: 0.455,
  speedMmPerS: 120,
  intervalMm: 0.1,
  passes: 1,
  focusOffsetMm: 0,
  air: 'low',
  direction: 'horizontal',
  bothWays: true,
};

describe('a setting in words', () => {
  const version = { settings: SETTINGS, lightness: 45.25, lightnessSigma: 0.4, confidence: 0.999 } as VersionView;
  it('is in the units the operator likes, with how sure it is', () => {
    const rows = new Map(settingRows(version, { length: 'in', speed: 'mm/min', density: 'dpi' }));
    expect(rows.get('Power')).toBe('45.5 %');
    expect(rows.get('Speed')).toBe('7200 mm/min');
    expect(rows.get('Line interval')).toBe('254 DPI');
    expect(rows.get('Lightness')).toBe('L* 45.3 ± 0.8 (95 %)');
    expect(
      new Map(settingRows({ ...version, lightness: null, confidence: null }, DEFAULT_LIKED_UNITS)).get('Lightness'),
    ).toMatch(/by eye/);
  });
  it('differs from another by what changed, and only that', () => {
    const after: BurnSettings = { ...SETTINGS, speedMmPerS: 90, bothWays: false, direction: 'vertical' };
    expect(differencesBetween(SETTINGS, SETTINGS)).toEqual([]);
    expect(
      differencesBetween(SETTINGS, after).map((difference) => differenceWords(difference, DEFAULT_LIKED_UNITS)),
    ).toEqual(['Speed: 120 mm/s → 90 mm/s', 'Lines run: left and right → to and fro', 'Burns: both ways → one way']);
  });
});

describe('what a file is, by its first bytes', () => {
  const bytes = (...parts: (string | number)[]): Buffer =>
    Buffer.concat(parts.map((part) => (typeof part === 'string' ? Buffer.from(part, 'latin1') : Buffer.from([part]))));
  it.each([
    [bytes(0xff, 0xd8, 0xff, 0xe0), 'image/jpeg'],
    [bytes('\x89PNG\r\n\x1a\n'), 'image/png'],
    [bytes('RIFF', 0, 0, 0, 0, 'WEBPVP8 '), 'image/webp'],
    [bytes(0, 0, 0, 24, 'ftypheic'), 'heic'],
    [bytes(0, 0, 0, 24, 'ftypmif1'), 'heic'],
    [bytes('RIFF', 0, 0, 0, 0, 'WAVEfmt '), null],
    [bytes('<svg xmlns="http://www.w3.org/2000/svg">'), null],
    [bytes('GIF89a'), null],
    [bytes('%PDF-1.7'), null],
    [Buffer.alloc(0), null],
  ])('%#', (file, type) => expect(sniffMediaType(file)).toBe(type));
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
  const page = (id: string | undefined) => ({ params: { id }, rewrite: async (path: string) => new Response(path) });
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
    expect(await (missing as Response).text()).toBe('/404');
    await expect(load(page('5'), async () => Promise.reject(new Error('fault')))).rejects.toThrow('fault');
  });
});
