import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import type { RgbImage } from '../../image/raster';
import { meanAndSpread } from '../../stats/robust';
import { GREY_STEPS, type SheetFormat } from '../../sheet/frame-sheet';
import { findMarkers } from '../find-markers';
import { rectify } from '../rectify';
import { placeTerms } from '../tone/place-terms';
import { undoneTones, type SecondExposure } from '../tone/second-exposure';
import { isFlat, locateSheet, type SheetPlace } from './locate-sheet';
import { faultOfGreys, seenGreys, type SeenGrey, type SheetGreys } from './sheet-greys';

/** Why two photos of a frame sheet do not tell its greys. */
export type GreysFault =
  | 'no-sheet'
  | 'two-formats'
  | 'sheet-not-flat'
  | 'greys-out-of-order'
  | 'clipped'
  | 'no-curve'
  | 'too-pale'
  | 'uneven';

export type MeasuredGreys =
  | { readonly greys: SheetGreys; readonly format: SheetFormat; readonly scatter: number }
  | { readonly fault: GreysFault };

const PX_PER_MM = 8;
/** Greys of one step that differ by more than this on the average, as a share: printed unevenly, or lit by more than one broad light. */
const MOST_SCATTER = 0.05;
const UNKNOWNS_BESIDE_STEPS = 6;

/** What greys send back beside paper, in one channel, with what they scatter by: light over the sheet is of the second order by place. */
function reflectancesOf(greys: readonly SeenGrey[], channel: 0 | 1 | 2): { values: number[]; scatter: number } {
  const byPlace = placeTerms(greys);
  const steps = GREY_STEPS.length - 1;
  const rows = new Matrix(
    greys.map(({ step }, index) => [
      ...Array.from({ length: steps }, (_, other) => (other === step ? 1 : 0)),
      1,
      ...byPlace[index]!,
    ]),
  );
  const wanted = Matrix.columnVector(greys.map(({ rgb }) => Math.log(rgb[channel])));
  const normal = rows.transpose().mmul(rows);
  const found = new CholeskyDecomposition(normal).solve(rows.transpose().mmul(wanted));
  const left = Matrix.sub(wanted, rows.mmul(found)).to1DArray();
  const free = greys.length - steps - UNKNOWNS_BESIDE_STEPS;
  const squares = left.reduce((sum, value) => sum + value ** 2, 0);
  const values = Array.from({ length: steps }, (_, step) => Math.exp(found.get(step, 0)));
  return { values: [...values, 1], scatter: Math.sqrt(squares / free) };
}

function placeIn(photo: RgbImage): SheetPlace | null {
  return locateSheet(findMarkers(photo));
}

/**
 * What light a printed sheet's greys send back, from two photos of it in one light, one of them darker: whatever the camera makes of tones, two
 * exposures tell. Says why not where that does not do: no sheet, one that is bent, greys that do not grow lighter as they were printed, paper at
 * the bright end of the camera's range, a print too pale, or one whose greys differ too much from side to side.
 */
export function measureGreys(first: RgbImage, second: SecondExposure): MeasuredGreys {
  const [place, other] = [placeIn(first), placeIn(second.photo)];
  if (!place || !other) return { fault: 'no-sheet' };
  const { sheet } = place;
  if (sheet.format !== other.sheet.format) return { fault: 'two-formats' };
  if (!isFlat(place) || !isFlat(other)) return { fault: 'sheet-not-flat' };
  const straight = (photo: RgbImage, { toPhoto }: SheetPlace) =>
    rectify(photo, toPhoto, sheet.widthMm, sheet.heightMm, PX_PER_MM, 2);
  const undone = undoneTones(straight(first, place), straight(second.photo, other), second);
  if (!undone) return { fault: 'no-curve' };
  const seen = seenGreys(first, place, undone.linearOfByte);
  // Each step must be seen on two sides at the least, or light over the sheet is not told from steps.
  if (GREY_STEPS.some((_, step) => seen.filter((grey) => grey.step === step).length < 2)) return { fault: 'clipped' };
  const channels = ([0, 1, 2] as const).map((channel) => reflectancesOf(seen, channel));
  const scatter = meanAndSpread(channels.map((channel) => channel.scatter)).mean;
  const reflectances = GREY_STEPS.map(
    (_, step) => channels.map(({ values }) => values[step]!) as unknown as readonly [number, number, number],
  );
  const greys = { reflectances, contrastSigma: second.logRatioSigma / Math.abs(second.logRatio) };
  const fault = faultOfGreys(greys);
  if (fault) return { fault };
  return scatter > MOST_SCATTER ? { fault: 'uneven' } : { greys, format: sheet.format, scatter };
}
