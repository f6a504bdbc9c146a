import { CORNER_NAMES, type CornerName } from './layout';
import { MARKER_CODES_36H12 } from './marker-codes';

export const MARKER_BITS = 6;
/** Modules along one side, the one-module border included. */
export const MARKER_MODULES = MARKER_BITS + 2;

/** Base of the card number's digits: the largest prime that leaves room for four corners among 250 codes. */
const BASE = 61;
const WEIGHTS = [1, 2, 3] as const;

/** One more than the largest card number that the four markers can carry. */
export const CARD_NUMBERS = BASE ** 3;

/**
 * The module pattern of a marker, `MARKER_MODULES` squared, row by row, true where it is to be burned (the border and the
 * dictionary's dark bits). Throws RangeError for an id that the dictionary does not hold.
 */
export function markerModules(id: number): boolean[] {
  const code = MARKER_CODES_36H12[id];
  if (code === undefined) throw new RangeError(`unknown marker id: ${id}`);
  const bits = BigInt(`0x${code}`)
    .toString(2)
    .padStart(MARKER_BITS * MARKER_BITS, '0');
  return Array.from({ length: MARKER_MODULES * MARKER_MODULES }, (_, index) => {
    const column = (index % MARKER_MODULES) - 1;
    const row = Math.floor(index / MARKER_MODULES) - 1;
    const inBorder = column < 0 || row < 0 || column >= MARKER_BITS || row >= MARKER_BITS;
    return inBorder || bits[row * MARKER_BITS + column] === '0';
  });
}

/**
 * The ids of the four corner markers of a card, in the order upper left, upper right, lower right, lower left. An id is
 * 61 x corner + digit; the first three digits are the number in base 61, the fourth is their weighted sum modulo 61, so that
 * any one missing digit can be worked out and most mixed-up corners are noticed.
 * Throws RangeError for a number outside 0..226980.
 */
export function markerIdsOfCard(cardNumber: number): [number, number, number, number] {
  if (!Number.isInteger(cardNumber) || cardNumber < 0 || cardNumber >= CARD_NUMBERS) {
    throw new RangeError(`invalid card number: ${cardNumber}`);
  }
  const digits = [Math.floor(cardNumber / BASE ** 2), Math.floor(cardNumber / BASE) % BASE, cardNumber % BASE];
  const check = digits.reduce((sum, digit, place) => sum + digit * WEIGHTS[place]!, 0) % BASE;
  return [...digits, check].map((digit, corner) => corner * BASE + digit) as [number, number, number, number];
}

export interface CornerDigit {
  readonly corner: CornerName;
  readonly digit: number;
}

/** Which corner of a card a marker id stands for and what digit it carries; null for ids that cards do not use. */
export function cornerOfMarker(id: number): CornerDigit | null {
  const corner = CORNER_NAMES[Math.floor(id / BASE)];
  return corner === undefined ? null : { corner, digit: id % BASE };
}

/**
 * The card number that the seen corners spell, one digit each; null when fewer than three corners are there or when four
 * contradict their check digit. With three the missing digit is worked out, and nothing is left to notice a mistake with.
 */
export function cardOfCorners(digits: ReadonlyMap<CornerName, number>): number | null {
  if (digits.size < 3) return null;
  const [first, second, third, check] = CORNER_NAMES.map((corner) => digits.get(corner));
  const known = [first, second, third];
  const sum = known.reduce<number>((total, digit, place) => total + (digit ?? 0) * WEIGHTS[place]!, 0);
  const missing = known.indexOf(undefined);
  if (missing >= 0) {
    const weight = WEIGHTS[missing]!;
    known[missing] = Array.from({ length: BASE }, (_, digit) => digit).find(
      (digit) => (sum + digit * weight) % BASE === check,
    );
  } else if (check !== undefined && sum % BASE !== check) return null;
  return known[0]! * BASE ** 2 + known[1]! * BASE + known[2]!;
}
