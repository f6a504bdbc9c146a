import type { Point } from '../geometry/point';

/**
 * Single-stroke letters of our own, drawn on a grid 4 wide and 6 high (y down, baseline at 6). A glyph is its polylines, each
 * a run of two-digit points: "06 20 46" goes from (0,6) to (2,0) to (4,6). They have few corners: a head comes to rest at each.
 */
const GLYPHS: Readonly<Record<string, string>> = {
  A: '06 20 46|14 34',
  B: '00 30 33 03|33 43 46 06 00',
  C: '40 00 06 46',
  D: '06 00 20 43 26 06',
  E: '40 00 06 46|03 33',
  F: '40 00 06|03 33',
  G: '40 00 06 46 43 23',
  H: '00 06|40 46|03 43',
  I: '20 26',
  J: '40 46 06 04',
  K: '00 06|40 03 46',
  L: '00 06 46',
  M: '06 00 23 40 46',
  N: '06 00 46 40',
  O: '20 43 26 03 20',
  P: '06 00 40 43 03',
  Q: '20 43 26 03 20|24 46',
  R: '06 00 40 43 03|23 46',
  S: '40 00 46 06',
  T: '00 40|20 26',
  U: '00 06 46 40',
  V: '00 26 40',
  W: '00 16 23 36 40',
  X: '00 46|40 06',
  Y: '00 23 40|23 26',
  Z: '00 40 06 46',
  0: '00 40 46 06 00',
  1: '11 20 26',
  2: '10 40 42 06 46',
  3: '00 40 46 06|13 43',
  4: '36 30 04 44',
  5: '40 00 03 43 46 06',
  6: '40 00 06 46 43 03',
  7: '00 40 16',
  8: '00 40 46 06 00|03 43',
  9: '43 03 00 40 46 06',
  '.': '25 26',
  ',': '25 17',
  '-': '13 33',
  '+': '13 33|22 24',
  '/': '06 40',
  ':': '21 22|24 25',
  '%': '06 40|00 11|35 46',
  '(': '30 12 14 36',
  ')': '10 32 34 16',
  '=': '12 32|14 34',
  x: '12 35|32 15',
  '#': '10 16|30 36|02 42|04 44',
  '*': '13 33|22 24|12 34|14 32',
};

/** Four grid units of a character's width and two of gap make it advance by as much as it is high. */
const UNITS_HIGH = 6;

const polylines = (glyph: string): Point[][] =>
  glyph.split('|').map((line) => line.split(' ').map((point) => ({ x: Number(point[0]), y: Number(point[1]) })));

/** Width in mm that `text` takes at a letter height, without the gap after its last character. */
export function letteringWidthMm(text: string, heightMm: number): number {
  return text.length === 0 ? 0 : heightMm * (text.length - 2 / UNITS_HIGH);
}

/** Capital letters and signs that the lettering has; everything else becomes a space, accents are dropped. */
export function letterable(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[×]/g, 'x')
    .replace(/x(?=\d)|(?<=\d)x/g, '\u0001')
    .toUpperCase()
    .replace(/\u0001/g, 'x')
    .replace(/[^A-Z0-9 .,\-+/:%()=x#*]/g, '');
}

export interface LetteringPlace {
  readonly x: number;
  /** Top of the capitals. */
  readonly y: number;
  readonly heightMm: number;
  readonly anchor?: 'start' | 'middle' | 'end';
}

/**
 * Strokes of a line of text in card millimetres, left to right, in reading order. Characters outside the lettering are
 * dropped after `letterable`. Throws RangeError for a height that is not above zero.
 */
export function letter(text: string, place: LetteringPlace): Point[][] {
  if (!(place.heightMm > 0)) throw new RangeError(`invalid heightMm: ${place.heightMm}`);
  const plain = letterable(text);
  const width = letteringWidthMm(plain, place.heightMm);
  const start = place.x - (place.anchor === 'end' ? width : place.anchor === 'middle' ? width / 2 : 0);
  const unit = place.heightMm / UNITS_HIGH;
  const strokes: Point[][] = [];
  [...plain].forEach((character, index) => {
    const glyph = GLYPHS[character];
    if (glyph === undefined) return;
    const left = start + index * place.heightMm;
    for (const line of polylines(glyph)) {
      strokes.push(line.map((point) => ({ x: left + point.x * unit, y: place.y + point.y * unit })));
    }
  });
  return strokes;
}

/** The largest letter height up to `mostMm` at which `text` fits into `widthMm`. */
export function fittingHeightMm(text: string, widthMm: number, mostMm: number): number {
  const share = letteringWidthMm(letterable(text), 1);
  return share === 0 ? mostMm : Math.min(mostMm, widthMm / share);
}
