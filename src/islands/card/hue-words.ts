import { chromaOfLinear } from '../../core/color/lab';
import { plainNumber } from '../../core/quantities/format';
import type { HueShift } from '../../core/reading/hue';
import type { CellReading } from '../../core/reading/observations';
import { stockLinearColour } from '../../core/reading/stock-colour';
import type { Stock } from '../../core/stock/stock';

/** A shift less than this is not seen beside the stock, and one of fewer sigmas may be none. */
const SEEN = 2;
const SURE_SIGMAS = 2.5;
/** Stock with less chroma has no colour of its own to lose. */
const COLOURED = 6;
/** Cosine of the angle within which a shift takes the stock's own colour away. */
const TOWARDS_GREY = -0.85;

const NAMES = ['reddish', 'orange', 'yellowish', 'greenish yellow', 'greenish', 'greenish blue', 'bluish', 'violet'];

const sizeOf = ({ a, b }: HueShift): number => Math.hypot(a, b);
const isSeen = (hue: HueShift): boolean => sizeOf(hue) >= Math.max(SEEN, SURE_SIGMAS * hue.sigma);

type Look = Pick<Stock, 'bareLightness' | 'colour'>;

function nameOf(hue: HueShift, stock: Look): string {
  const own = chromaOfLinear(...stockLinearColour(stock));
  const chroma = Math.hypot(own.a, own.b);
  const along = (own.a * hue.a + own.b * hue.b) / (chroma * sizeOf(hue));
  if (chroma >= COLOURED && along < TOWARDS_GREY) return 'greyer';
  const turn = Math.round(Math.atan2(hue.b, hue.a) / (Math.PI / 4));
  return NAMES[(turn + 8) % 8]!;
}

/** How a cell's hue differs from its stock's, with two sigmas; what is not known to differ does not. */
export function hueWords(hue: HueShift | null, stock: Look): string {
  if (!hue) return 'not looked at';
  if (!isSeen(hue)) return `as the stock’s ± ${plainNumber(2 * hue.sigma, 2)}`;
  return `${nameOf(hue, stock)} by ${plainNumber(sizeOf(hue), 2)} ± ${plainNumber(2 * hue.sigma, 2)}`;
}

/** How hue goes over a card: the cell that differs most from the stock, and how many do; null where none does, or none was looked at. */
export function hueOfCard(readings: readonly CellReading[], stock: Look): { words: string; cellIndex: number } | null {
  const seen = readings.flatMap(({ hue, cellIndex }) => (hue && isSeen(hue) ? [{ hue, cellIndex }] : []));
  if (seen.length === 0) return null;
  const most = seen.reduce((one, other) => (sizeOf(other.hue) > sizeOf(one.hue) ? other : one));
  return {
    words: `${hueWords(most.hue, stock)}, ${seen.length} of ${readings.length} cells`,
    cellIndex: most.cellIndex,
  };
}
