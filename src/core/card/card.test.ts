import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { markerDictionary, opencv } from '../../../tests/support/opencv';
import { cardCode, parseCardCode } from './code';
import { CORNER_NAMES, type CornerName } from './layout';
import { letter, letterable, letteringWidthMm } from './lettering';
import { MARKER_CODES_36H12 } from './marker-codes';
import { CARD_NUMBERS, cardOfCorners, cornerOfMarker, MARKER_MODULES, markerIdsOfCard, markerModules } from './markers';
import { burnOrder } from './order';
import { RECTANGLE } from '../stock/outline';
import { freePiece, freePlace, placeIsFree } from './place';
import aruco from 'js-aruco2';
import { tuples } from '../../../tests/support/tuples';

const cardNumber = fc.integer({ min: 0, max: CARD_NUMBERS - 1 });

describe('corner markers', () => {
  const digitsOf = (number: number): Map<CornerName, number> =>
    new Map(markerIdsOfCard(number).map((id) => [cornerOfMarker(id)!.corner, cornerOfMarker(id)!.digit]));

  prop([cardNumber])('carry the card number', (number) => {
    expect(cardOfCorners(digitsOf(number))).toBe(number);
  });
  prop([cardNumber, fc.constantFrom(...CORNER_NAMES)])('carry it with any one missing', (number, corner) => {
    const digits = digitsOf(number);
    digits.delete(corner);
    expect(cardOfCorners(digits)).toBe(number);
    expect(cardOfCorners(new Map([...digits].slice(0, 2)))).toBeNull();
  });
  prop([cardNumber, fc.constantFrom(...CORNER_NAMES), fc.integer({ min: 1, max: 60 })])(
    'notice one wrong digit',
    (number, corner, by) => {
      const digits = digitsOf(number);
      digits.set(corner, (digits.get(corner)! + by) % 61);
      expect(cardOfCorners(digits)).toBeNull();
    },
  );
  it.each([CARD_NUMBERS, -1, 0.5, NaN, Infinity])('refuse %f, which they cannot carry', (number) =>
    expect(() => markerIdsOfCard(number)).toThrow(RangeError),
  );

  it('are those of a second library’s dictionary', () => {
    const other = new aruco.AR.Dictionary('ARUCO_MIP_36h12');
    const ours = MARKER_CODES_36H12.map((code) => BigInt(`0x${code}`).toString(2).padStart(36, '0'));
    expect(ours).toEqual(other.codeList);
  });

  it('are drawn as a third library draws them', async () => {
    const { cv } = await opencv();
    const dictionary = markerDictionary(cv);
    for (const id of [0, 7, 100, 243]) {
      const image = new cv.Mat();
      dictionary.generateImageMarker(id, MARKER_MODULES, image, 1);
      expect([...image.data].map((value) => value === 0)).toEqual(markerModules(id));
      image.delete();
    }
  });
});

describe('readable code', () => {
  const any = fc.integer({ min: 0, max: 5_000_000 });
  prop([any])('turns round and back, however it is typed', (number) => {
    expect(parseCardCode(cardCode(number))).toBe(number);
    expect(parseCardCode(cardCode(number).toLowerCase().replace('-', ' '))).toBe(number);
    // As it is lettered on a card that stands in several places.
    for (const place of ['A1', 'c3', 'E5 ']) expect(parseCardCode(`${cardCode(number)} ${place}`)).toBe(number);
  });
  prop([any, fc.integer({ min: 0, max: 20 }), fc.constantFrom(...'0123456789ABCDEFGHJKMNPQRSTVWXY')])(
    'notices every single wrong character',
    (number, at, character) => {
      const code = cardCode(number).replace('-', '');
      const place = 2 + (at % (code.length - 2));
      if (code[place] === character) return;
      expect(parseCardCode(code.slice(0, place) + character + code.slice(place + 1))).toBeNull();
    },
  );
  prop([any, fc.integer({ min: 0, max: 20 })])('notices every swap of neighbours', (number, at) => {
    const code = cardCode(number).replace('-', '');
    const place = 2 + (at % (code.length - 3));
    const swapped = [...code];
    [swapped[place], swapped[place + 1]] = [swapped[place + 1]!, swapped[place]!];
    if (swapped.join('') !== code) expect(parseCardCode(swapped.join(''))).toBeNull();
  });
  prop([any])('is still read from a card of the first slice, and is no word of a program now', (number) => {
    expect(parseCardCode(`G${cardCode(number).slice(2)}`)).toBe(number);
    // Three digits at the least, and no more than it takes.
    expect([12, 31 ** 3 - 1, 31 ** 3].map((one) => cardCode(one).length)).toEqual([7, 7, 8]);
    expect(cardCode(12)).toMatch(/^CD00C-/);
    // A word is a letter and a number: a code that begins like one could be taken for a motion.
    for (const wrong of [-1, 0.5, NaN])
      expect(() => cardCode(wrong)).toThrow(new RangeError(`invalid card number: ${wrong}`));
    expect(cardCode(number)).not.toMatch(/^[A-Z]\s*[-+.\d]/);
  });
  it.each(['', 'hello', 'G1', 'CD', '-'])('is not "%s"', (text) => expect(parseCardCode(text)).toBeNull());
});

describe('lettering', () => {
  it('stays within the room it says it needs', () => {
    const points = letter('BIRCH 3.1MM 40X30 %', { x: 2, y: 1, heightMm: 1.5 }).flat();
    expect(Math.min(...points.map((p) => p.x))).toBeGreaterThanOrEqual(2 - 1e-9);
    expect(Math.max(...points.map((p) => p.x))).toBeLessThanOrEqual(
      2 + letteringWidthMm('BIRCH 3.1MM 40X30 %', 1.5) + 1e-9,
    );
    expect(Math.max(...points.map((p) => p.y))).toBeLessThanOrEqual(1 + 1.5 * (7 / 6) + 1e-9);
  });
  it('needs a letter’s height for each character but for the gap after the last, a third of it', () => {
    expect([letteringWidthMm('ABC', 6), letteringWidthMm('', 6)]).toEqual([16, 0]);
  });
  it('drops accents and what it cannot write, and keeps what stands for times beside a number', () => {
    expect(letterable('Érable 40×30 µ')).toBe('ERABLE 40x30 ');
    expect(letterable('box 4x6 x2 2x ax xb')).toBe('BOX 4x6 x2 2x AX XB');
  });
  it('has a height, and ends or has its middle where it is told', () => {
    const at = (anchor?: 'start' | 'middle' | 'end') =>
      Math.min(
        ...letter('III', { x: 50, y: 0, heightMm: 3, ...(anchor && { anchor }) })
          .flat()
          .map(({ x }) => x),
      );
    const width = letteringWidthMm('III', 3);
    expect([at('middle'), at('end')].map((x) => at() - x)).toEqual(
      [width / 2, width].map((by) => expect.closeTo(by, 9)),
    );
    for (const heightMm of [0, -1, NaN])
      expect(() => letter('A', { x: 0, y: 0, heightMm })).toThrow(/invalid heightMm/);
  });
});

describe('burn order', () => {
  const gridOf = (columns: number, rows: number) =>
    Array.from({ length: columns * rows }, (_, index) => {
      const column = index % columns;
      const row = Math.floor(index / columns);
      const box = { x: column * 6, y: row * 6, width: 5, height: 5 };
      return { index, box, risk: (column + 1) * (row + 1) };
    });
  const touching = (columns: number, a: number, b: number): boolean =>
    Math.abs((a % columns) - (b % columns)) <= 1 && Math.abs(Math.floor(a / columns) - Math.floor(b / columns)) <= 1;

  prop([fc.integer({ min: 4, max: 20 }), fc.integer({ min: 4, max: 20 })])(
    'burns every cell once, the riskiest last, and never two that touch after each other',
    (columns, rows) => {
      const order = burnOrder(gridOf(columns, rows));
      expect([...order].sort((a, b) => a - b)).toEqual(gridOf(columns, rows).map((cell) => cell.index));
      expect(order.at(-1)).toBe(columns * rows - 1);
      order.slice(1).forEach((index, place) => expect(touching(columns, index, order[place]!)).toBe(false));
    },
  );
  it('leaves the strongest quarter to the second half', () => {
    const order = burnOrder(gridOf(6, 6));
    const strongest = gridOf(6, 6)
      .sort((a, b) => b.risk - a.risk)
      .slice(0, 9);
    for (const cell of strongest) expect(order.indexOf(cell.index)).toBeGreaterThanOrEqual(18);
  });
  it('does what it can on the smallest cards, and on single cells', () => {
    expect(burnOrder(gridOf(2, 2))).toHaveLength(4);
    expect(burnOrder(gridOf(1, 1))).toEqual([0]);
    expect(burnOrder([])).toEqual([]);
  });
  it('keeps apart at least what shares an edge where everything touches', () => {
    // Two rows of three: the middle ones touch all others, but share an edge with three only.
    const risks = [1, 2, 3, 4, 5, 6];
    const cells = gridOf(3, 2).map((cell) => ({ ...cell, risk: risks[cell.index]! }));
    const order = burnOrder(cells);
    expect([...order].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5]);
    const place = (index: number) => [index % 3, Math.floor(index / 3)] as const;
    order.slice(1).forEach((index, at) => {
      const [[x0, y0], [x1, y1]] = [place(index), place(order[at]!)];
      expect(Math.abs(x0 - x1) + Math.abs(y0 - y1), order.join()).toBeGreaterThan(1);
    });
  });
  it('is the same each time: of equal cells the lower index comes nearer to the end, of equal groups the one that begins lower is first', () => {
    const apart = (index: number, group?: string) => ({
      index,
      risk: 1,
      box: { x: index * 100, y: (index % 2) * 100, width: 5, height: 5 },
      ...(group && { group }),
    });
    const far = [4, 2, 0, 3, 1].map((index) => ({
      ...apart(index),
      box: { x: 7 ** index, y: 0, width: 0.1, height: 5 },
    }));
    expect(burnOrder(far).at(-1)).toBe(0);
    expect(burnOrder([...far].reverse())).toEqual(burnOrder(far));
    expect(burnOrder([apart(9, 'a'), apart(2, 'b'), apart(5, 'c')])).toEqual([2, 5, 9]);
    // What needs no stop comes before what does.
    expect(burnOrder([apart(9, 'a'), apart(2, 'b'), { ...apart(5, 'c'), isReady: true }])).toEqual([5, 2, 9]);
  });
});

describe('place on the sheet', () => {
  const sheet = { sheetWidthMm: 100, sheetDepthMm: 80, outline: RECTANGLE };
  const card = { widthMm: 40, heightMm: 30 };
  it('is the corner of a fresh sheet', () => expect(freePlace(sheet, [], card)).toEqual({ x: 2, y: 2 }));
  it('goes on beside earlier cards and ends when the sheet is full', () => {
    const used: { x: number; y: number; width: number; height: number }[] = [];
    for (let place = freePlace(sheet, used, card); place; place = freePlace(sheet, used, card)) {
      const rect = { ...place, width: card.widthMm, height: card.heightMm };
      expect(placeIsFree(sheet, used, rect)).toBe(true);
      used.push(rect);
    }
    expect(used).toHaveLength(4);
  });
  it('is the nearest to the left, in whatever order the cards before were laid', () => {
    const [left, right] = [
      { x: 0, y: 0, width: 6, height: 80 },
      { x: 50, y: 0, width: 4, height: 80 },
    ];
    for (const used of tuples([right, left], [left, right]))
      expect(freePlace(sheet, used, { widthMm: 35, heightMm: 30 })).toEqual({ x: 8, y: 2 });
    const [top, bottom] = [
      { x: 0, y: 0, width: 100, height: 6 },
      { x: 0, y: 45, width: 100, height: 4 },
    ];
    for (const used of tuples([bottom, top], [top, bottom]))
      expect(freePlace(sheet, used, { widthMm: 35, heightMm: 20 })).toEqual({ x: 2, y: 8 });
  });
  it('is not where a card lies or where the sheet ends', () => {
    const used = [{ x: 2, y: 2, width: 40, height: 30 }];
    expect(placeIsFree(sheet, used, { x: 41, y: 2, width: 40, height: 30 })).toBe(false);
    expect(placeIsFree(sheet, used, { x: 61, y: 2, width: 40, height: 30 })).toBe(false);
  });
  it('is the middle of a round blank, and none where the square does not fit its circle', () => {
    const coaster = { sheetWidthMm: 100, sheetDepthMm: 100, outline: { shape: 'ellipse', radiusMm: 0 } } as const;
    // The largest square in a circle of 100 mm has sides of 100 / sqrt(2) = 70.71 mm; with 2 mm to spare all round it must still lie on it.
    expect(freePlace(coaster, [], { widthMm: 60, heightMm: 60 })).toEqual({ x: 20, y: 20 });
    expect(freePlace(coaster, [], { widthMm: 70.6, heightMm: 70.6 })).not.toBeNull();
    expect(freePlace(coaster, [], { widthMm: 70.8, heightMm: 70.8 })).toBeNull();
    expect(placeIsFree(coaster, [], { x: 2, y: 2, width: 40, height: 40 })).toBe(false);
  });
  it('keeps off round corners and the slopes of a hexagon', () => {
    const rounded = { ...sheet, outline: { shape: 'rounded', radiusMm: 20 } } as const;
    // A corner stays clear of a circle of 20 mm from 20 - 20 / sqrt(2) = 5.86 mm on.
    expect(placeIsFree(rounded, [], { x: 5.8, y: 5.8, width: 20, height: 20 })).toBe(false);
    expect(placeIsFree(rounded, [], { x: 5.9, y: 5.9, width: 20, height: 20 })).toBe(true);
    const hexagon = { ...sheet, outline: { shape: 'hexagon', radiusMm: 0 } } as const;
    // At the top edge the hexagon spans the middle half of its width.
    expect(placeIsFree(hexagon, [], { x: 24, y: 0, width: 40, height: 20 })).toBe(false);
    expect(placeIsFree(hexagon, [], { x: 25, y: 0, width: 40, height: 20 })).toBe(true);
  });
  it('is on the next blank when one is full, and nowhere when all are', () => {
    const tags = { sheetWidthMm: 50, sheetDepthMm: 40, outline: RECTANGLE, blanks: { count: 2 } };
    const used = [{ x: 2, y: 2, width: 40, height: 30, piece: 1 }];
    expect(freePiece(tags, used, card)).toEqual({ piece: 2, x: 2, y: 2 });
    const both = [...used, { ...used[0]!, piece: 2 }];
    expect(freePiece(tags, both, card)).toBeNull();
    // There is always another sheet.
    expect(freePiece({ ...tags, blanks: null }, both, card)).toEqual({ piece: 3, x: 2, y: 2 });
    expect(freePiece({ ...tags, blanks: null }, [], { widthMm: 60, heightMm: 30 })).toBeNull();
  });
});
