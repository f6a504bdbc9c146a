import { describe, expect, it } from 'vitest';
import type { Cell } from '../../core/card/layout';
import type { CellReading } from '../../core/reading/observations';
import type { PhotoView } from '../../records/photo';
import {
  asksForCorners,
  countWords,
  doubtReasons,
  doubtWords,
  mirroredWords,
  isBeyondBench,
  nextPhotoWords,
  placedBy,
  placeWords,
  stateOf,
  tonesAdvice,
  tonesWords,
  veilAdvice,
} from './photo-words';
import type { Layout } from '../../core/card/layout';

const photo = (status: PhotoView['status'], more: Partial<PhotoView> = {}) =>
  ({ status, step: null, placeInLine: null, detail: {}, otherCards: [], ...more }) as const;
const unreadable = (reason?: string) => photo('unreadable', { detail: reason === undefined ? {} : { reason } });

describe('what a dark stock mirrors', () => {
  it('is warned of before a photo is taken, with what it does to a light mark', () => {
    // 70 - 62.17, worked by hand where the function is tested; L* 34 is Y 0.080084: (0.417494 / 0.090084) 0.080084 = 0.371150, L* 67.36.
    expect(veilAdvice({ bareLightness: 19 })).toMatch(
      /read 8 L\* too dark.*Hold something dark behind the camera; a second photo .*, and a frame sheet .* takes most of it out/,
    );
    expect(veilAdvice({ bareLightness: 34 })).toMatch(/read 3 L\* too dark/);
    expect([45, 66, 90].map((bareLightness) => veilAdvice({ bareLightness }))).toEqual([null, null, null]);
  });
});

describe('what is known of the camera’s tones', () => {
  it('is told in words, with what would tell more', () => {
    expect(tonesWords({ told: 'by-two', bentBy: 0.119 })).toBe('true to light, by two photos');
    expect(tonesWords({ told: 'by-two', bentBy: 0.25 })).toBe(
      'bent by up to 25 % of light, and put right by two photos',
    );
    expect(tonesWords({ told: 'by-sheet', format: 'a5', bentBy: 0.119 })).toBe('true to light, by the frame sheet');
    expect(tonesWords({ told: 'by-sheet', format: 'a5', bentBy: 0.25 })).toBe(
      'bent by up to 25 % of light, and put right by the frame sheet',
    );
    const not = { told: 'not-told', cameraIsTrue: false } as const;
    expect(tonesWords({ ...not, why: 'sheet-not-measured' })).toBe(
      'not known: the greys of this frame sheet were never measured',
    );
    expect(tonesAdvice({ ...not, why: 'sheet-not-measured' }, 'markers')).toContain('Measure them once');
    expect(tonesAdvice({ ...not, why: 'sheet-not-flat' }, 'cells')).toContain('Lay it flat');
    expect(tonesAdvice({ told: 'by-sheet', format: 'a5', bentBy: 0.5 }, 'markers')).toBeNull();
    expect(tonesWords({ told: 'by-one-photo', cameraIsTrue: false })).toBe('not known, from one photo');
    expect(tonesWords({ told: 'by-one-photo', cameraIsTrue: true })).toBe('true to light: camera checked');
    expect(tonesWords({ told: 'not-told', cameraIsTrue: false, why: 'not-found' })).toMatch(/too few markers$/);
    expect(tonesWords({ told: 'not-told', cameraIsTrue: false, why: 'no-curve' })).toMatch(/Was the light alike\?$/);
    expect(tonesAdvice({ told: 'by-two', bentBy: 0.5 }, 'markers')).toBeNull();
    expect(tonesAdvice({ told: 'by-one-photo', cameraIsTrue: true }, 'markers')).toBeNull();
    expect(tonesAdvice({ told: 'by-one-photo', cameraIsTrue: false }, 'cells')).toMatch(/of any card with markers/);
    for (const tones of [
      { told: 'by-one-photo', cameraIsTrue: false },
      { told: 'not-told', cameraIsTrue: false, why: 'no-curve' },
    ] as const)
      expect(tonesAdvice(tones, 'markers')).toMatch(
        /^Cameras bend tones, .* is put right; so does a frame sheet around the card\. A camera that is found true/,
      );
  });
});

describe('what became of a photo', () => {
  it.each([
    [photo('waiting'), /waiting its turn/],
    [photo('waiting', { placeInLine: 1 }), /^waiting its turn …$/],
    [photo('waiting', { placeInLine: 3 }), /^waiting: number 3 in line …$/],
    [photo('reading'), /^reading …$/],
    [photo('reading', { step: 'levelling the light' }), /^levelling the light …$/],
    [photo('read'), /^read$/],
    [photo('needs-corners', { detail: { markers: 2 } }), /^2 of 4 markers found: drag/],
    [photo('needs-corners'), /^0 of 4 markers/],
    [photo('other-card', { otherCards: [{ id: 4, code: 'CD004-K' }] }), /shows card CD004-K/],
    [photo('other-card'), /another book/],
    [photo('several-cards'), /several cards/],
    [unreadable('too-dark'), /light on the card/],
    [unreadable('overexposed'), /exposure set darker/],
    [unreadable('more-cells'), /outermost cells/],
    [unreadable('screen'), /photo of the piece itself/],
    [unreadable('not-to-scale'), /not as large as the frame sheet/],
    [unreadable('other-cells'), /ruler/],
    [unreadable(), /failed inside/],
    [unreadable('something new'), /cannot be read/],
  ] as const)('is told in words, %#', (one, words) => expect(stateOf(one, 'markers')).toMatch(words));
  it('asks for the corners of cells on an old card, and names the sheet for one that was to lie on it', () => {
    expect(stateOf(photo('needs-corners'), 'cells')).toMatch(/corners of its cells/);
    expect(stateOf(photo('needs-corners'), 'sheet')).toMatch(/not found on a frame sheet: drag/);
  });
  it('says by what a card is placed, and was', () => {
    const layout = (markers: number, adopted: boolean, by = 'on-sheet') =>
      ({ adopted, frame: { markers: Array(markers), settings: { markers: by } } }) as unknown as Layout;
    // The last one is cut out: it never had any, whatever was wanted.
    expect([layout(4, false), layout(0, false), layout(0, true), layout(0, false, 'burned')].map(placedBy)).toEqual([
      'markers',
      'sheet',
      'cells',
      'cells',
    ]);
    expect([placeWords(3, false), placeWords(0, false), placeWords(0, true)]).toEqual([
      '3 of 4 markers',
      'the frame sheet',
      'corners by hand',
    ]);
  });
});

describe('why cells are in doubt', () => {
  it.each([
    ['acrylic-cast', 'clear', 'seen through its back'],
    ['acrylic-cast', 'tinted', 'seen through its back'],
    ['acrylic-extruded', 'opaque black', 'mirrored by its camera'],
    ['glass', 'bottle glass', 'seen through its back'],
    ['coated-clear', 'coat on the far face', 'seen through its back'],
    ['mdf', 'clear coated', 'mirrored by its camera'],
  ])('says what a mirror image of %s, %s, is: %s', (family, type, words) =>
    expect(mirroredWords({ family, type })).toBe(words),
  );
  it('is told of one cell by all its reasons', () => {
    expect(doubtWords({ doubts: ['clipped', 'uneven'] })).toBe(
      'the photo is blown out or black there; it is uneven within itself',
    );
  });
  it('is told of many by the first of each, most first', () => {
    const cells = [
      { doubts: ['uneven'] },
      { doubts: ['reflection', 'uneven'] },
      { doubts: ['reflection'] },
      { doubts: [] },
    ] as const;
    expect(doubtReasons(cells)).toEqual([
      { count: 2, words: 'how much light a reflection adds there is not sure' },
      { count: 1, words: 'it is uneven within itself' },
    ]);
  });
});

describe('whether a photo counts', () => {
  it('is told where there are more than one', () => {
    expect(countWords({ id: 3, leftOut: false }, [3])).toBe('');
    expect(countWords({ id: 3, leftOut: false }, [4, 3])).toBe('one of 2 that count');
    expect(countWords({ id: 3, leftOut: true }, [4])).toBe('left aside');
    expect(countWords({ id: 3, leftOut: false }, [4])).toMatch(
      /^does not count: .* as it is now, or by a camera whose tones are known$/,
    );
  });
});

describe('the photo that would help', () => {
  it('is asked for with the cells that it may tell', () => {
    const cells = Array.from({ length: 3 }, (_, index) => ({
      index,
      leftOut: false,
      box: { x: 5 * index, y: 0, width: 4, height: 4 },
    })) as unknown as Cell[];
    const doubted = { cellIndex: 1, confidence: 0.7, doubts: ['reflection'] } as unknown as CellReading;
    expect(nextPhotoWords([doubted], { cells })).toMatch(
      /turned a quarter.*not sure of cell 2; photos of a card are merged\.$/,
    );
    expect(nextPhotoWords([{ ...doubted, confidence: 0.98 }], { cells })).toBeNull();
  });
});

describe('corners by hand', () => {
  it('are asked for where they are missing, may mend the reading, or are wanted', () => {
    expect(asksForCorners(photo('needs-corners'), false)).toBe(true);
    for (const reason of ['bad-corners', 'no-cells', 'other-cells', 'more-cells'])
      expect(asksForCorners(unreadable(reason), false), reason).toBe(true);
    for (const reason of ['too-dark', 'too-small', 'damaged', undefined])
      expect(asksForCorners(unreadable(reason), true), reason).toBe(false);
    expect(asksForCorners(photo('read'), false)).toBe(false);
    expect(asksForCorners(photo('read'), true)).toBe(true);
    expect(asksForCorners(photo('waiting'), true)).toBe(false);
  });
});

describe('the simulated bench', () => {
  it('wipes, washes and brushes, and shows no piece that was sanded or stained', () => {
    for (const finish of ['sanded', 'stained'] as const) {
      expect(isBeyondBench({ finish }, 'after')).toBe(true);
      expect(isBeyondBench({ finish }, 'before')).toBe(false);
      expect(isBeyondBench({ finish }, null)).toBe(false);
    }
    expect(isBeyondBench({ finish: 'wiped' }, 'after')).toBe(false);
  });
});
