import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { inComparisons, likedBest, surelyLiked, type LikedBest } from '../../core/card/liked';
import { BETTER } from '../../core/card/usual-asks';
import { comparePicture, type PictureFit } from '../../core/fit/picture';
import { LOW_CONFIDENCE } from '../../core/reading/observations';
import { formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import { unpackGreys } from '../../core/picture/greys';

export const LOOKS_FIELD = 'looks';

export const PICTURE_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk(LOOKS_FIELD, 'How does this picture look?', [
    ['right', 'r', 'right'],
    ['pale', 'p', 'too pale'],
    ['dark', 'd', 'too dark'],
    ['spoiled', 's', 'spoiled'],
  ]),
  BETTER,
];

/** L* that a picture may be off before an eye is sure to see it, as a corrected wedge may (common practice). */
export const GOOD_L = 2.5;
/** Tones that came out wrong by less are not worth a word. */
const WORTH_A_WORD_L = 2;
/** A photo less sure than this of how light the picture is tells no tones. */
const MOST_SIGMA_L = 3;
/** Pictures that mark by fewer L* are not worth comparing. */
const LEAST_STRENGTH_L = 5;

/** One burn of the picture, and how it came out. */
export interface PicturePart {
  readonly cellIndex: number;
  readonly corrected: boolean;
  readonly fit: PictureFit;
  /** Whether the photo itself marks it: a reflection or a blown-out place would pass for tones that came out wrong. */
  readonly doubted: boolean;
  /** What the operator calls it; null where nothing was said. */
  readonly word: string | null;
}

/** L* from bare stock of its black: as it is seen, or where a picture has none, as the rest of it has it. */
export const blackOf = ({ fit }: PicturePart): number => fit.black ?? fit.strongest;

export interface PictureFinding extends BaseFinding {
  readonly parts: readonly PicturePart[];
  /** What the operator likes best of the burns that were compared; it goes before what is off where it is sure. */
  readonly liked: LikedBest | null;
}

/** Whether marks of a card are darker or brighter than bare stock: by where most was wanted. */
function wayOf(bytes: Uint8Array, deltas: readonly (number | null)[]): 1 | -1 {
  const wanted = bytes.reduce((sum, byte) => sum + byte, 0);
  const told = deltas.reduce<number>((sum, delta) => sum + (delta ?? 0), 0);
  return wanted > 0 && told > 0 ? 1 : -1;
}

/**
 * How each burn of the picture came out against what was wanted, by a photo. Where none was read, where it is not sure enough, or where hardly anything
 * marked, what is missing is said instead.
 */
export function findPicture(layout: Layout, seen: Seen, known: Known): PictureFinding {
  const liked = likedBest(layout, seen);
  const none = { parts: [], liked, says: '' };
  if (seen.readings.length === 0)
    return {
      ...none,
      missing: ['No photo of this card was read yet: it tells how each part of the picture came out.'],
    };
  let unsure = 0;
  const parts = layout.order.flatMap((cellIndex): PicturePart[] => {
    const reading = seen.readings.find((one) => one.cellIndex === cellIndex);
    const { shape } = mainBurn(layout.cells[cellIndex]!);
    if (!reading?.picture || shape.do !== 'picture') return [];
    if (reading.lightnessSigma > MOST_SIGMA_L) {
      unsure++;
      return [];
    }
    const fit = comparePicture(shape.wanted, reading.picture, {
      widthMm: shape.box.width,
      heightMm: shape.box.height,
      bareLightness: reading.lightness - reading.deltaLightness,
      way: wayOf(unpackGreys(shape.wanted), reading.picture.deltas),
    });
    const word = wordOf(seen, LOOKS_FIELD, cellIndex);
    const doubted = reading.confidence < LOW_CONFIDENCE;
    return fit ? [{ cellIndex, corrected: shape.table !== null, fit, doubted, word }] : [];
  });
  parts.sort((a, b) => a.cellIndex - b.cellIndex);
  const first = parts[0];
  if (!first)
    return {
      ...none,
      missing: [
        unsure > 0
          ? 'The photo is not sure enough of how light the picture is, for the reasons it is marked with: take one more in other light, or turned a quarter.'
          : 'The photo shows too little of the picture: all of it must be seen, and something of it burned.',
      ],
    };
  const weak = parts.find((part) => blackOf(part) < LEAST_STRENGTH_L);
  if (weak)
    return {
      parts,
      liked,
      says: '',
      missing: [
        `Black of the picture would be ${plainNumber(blackOf(weak), 2)} L* from bare stock: burn with more power for black, or slower.`,
      ],
    };
  const says = `${wordsOf(parts, known.pairing.machine.likedUnits)}${likedBeside(parts, liked)}`;
  return { parts, liked, missing: [], says };
}

/** The burn that is surely liked best, in words; empty where none is. */
function likedBeside(parts: readonly PicturePart[], liked: LikedBest | null): string {
  const top = surelyLiked(liked);
  const part = top && parts.find(({ cellIndex }) => cellIndex === top.cellIndex);
  if (!liked || !top || !part) return '';
  return ` Liked better is the one ${part.corrected ? 'through the table' : 'without the table'}, ${inComparisons(liked.comparisons)}: ${plainNumber(100 * top.best, 2)} % sure.`;
}

/**
 * The burn to go by: of those that the operator calls right, or else said nothing of, the one that is surely liked best, or else what is off by least;
 * none where all were called wrong.
 */
export function burnToGoBy({ parts, missing, liked }: PictureFinding): PicturePart | null {
  if (missing.length > 0) return null;
  const right = parts.filter(({ word }) => word === 'right');
  const open = right.length > 0 ? right : parts.filter(({ word }) => word === null);
  const top = surelyLiked(liked);
  const preferred = open.find(({ cellIndex }) => cellIndex === top?.cellIndex);
  if (preferred) return preferred;
  return open.reduce<PicturePart | null>((best, one) => (best && best.fit.rmsL <= one.fit.rmsL ? best : one), null);
}

const TONES = ['light parts', 'middle tones', 'dark parts'] as const;

/** Which tones came out wrong, in words: "middle tones 4 L* too strong". */
export const toneWords = ({ offByTone }: PictureFit): string[] =>
  offByTone.flatMap((off, tone) =>
    off === null || Math.abs(off) < WORTH_A_WORD_L
      ? []
      : [`${TONES[tone]} ${plainNumber(Math.abs(off), 2)} L* too ${off > 0 ? 'strong' : 'weak'}`],
  );

/** From how far away it is told, to a centimetre: "300 mm". */
export const viewingWords = ({ viewingMm }: PictureFit, liked: LikedUnits): string =>
  formatLength(10 * Math.round(viewingMm / 10), liked, 3);

const offWords = ({ rmsL }: PictureFit): string => `${plainNumber(rmsL, 2)} L* off`;

function wordsOf(parts: readonly PicturePart[], liked: LikedUnits): string {
  const through = parts.find(({ corrected }) => corrected);
  const plain = parts.find(({ corrected }) => !corrected);
  const main = (through ?? plain)!;
  const from = `as seen from ${viewingWords(main.fit, liked)}`;
  const tones = toneWords(main.fit);
  const doubt = parts.some(({ doubted }) => doubted)
    ? ' The photo is in doubt, for the reasons it is marked with: take one more before you go by this.'
    : '';
  const which = `${tones.length > 0 ? ` ${capital(tones.join(', '))}.` : ''}${doubt}`;
  if (through && plain) {
    const gain = plain.fit.rmsL - through.fit.rmsL;
    const verdict =
      gain > 0.5
        ? 'The table helps'
        : gain < -0.5
          ? 'The table makes it worse: burn a new tone wedge'
          : 'The table changes little';
    return `${verdict}: ${offWords(through.fit)} through it, ${offWords(plain.fit)} without, ${from}.${which}`;
  }
  const verdict = main.fit.rmsL <= GOOD_L ? 'It comes out as wanted' : 'It comes out otherwise than wanted';
  return `${verdict}: ${offWords(main.fit)} over all of it, ${from}.${which}`;
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
