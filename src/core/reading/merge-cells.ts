import { chanceWithin } from '../stats/normal';
import { pooled } from '../stats/pooled';
import { offsetBetween } from './lines/single-line';
import { lightBetween, type CellsOfPhoto, type LightBetween } from './light/light-between-photos';
import { LOW_CONFIDENCE, ownSigma, PROMISE, type CellReading, type Doubt } from './observations';

/** Photos that differ by more than the promise, and by more than so many of their own sigmas, do not see the same. */
const DISAGREE_SIGMAS = 3;

function disagree(a: CellReading, b: CellReading): boolean {
  const apart = Math.abs(a.lightness - b.lightness);
  return apart > PROMISE && apart > DISAGREE_SIGMAS * Math.hypot(ownSigma(a), ownSigma(b));
}

/**
 * What several photos of one piece, taken at the same moment of its work, show of one cell. Photos that doubt it are left aside where another
 * does not. Lightness is the mean weighted by what is each photo's own; its own uncertainty grows by the Birge ratio where photos scatter more
 * than they should, and what the stock makes of it is shared and does not shrink. Photos that contradict each other are a doubt. All that is
 * not lightness is taken from the photo that is surest, lines from the one that is surest of them, ripples from the first one. A single reading is returned as it is.
 * Throws RangeError for no reading, or for readings of different cells.
 * Source: R. T. Birge, Phys. Rev. 40 (1932) 207. Example: 50 and 51, own sigmas 0.5 and 0.5, nothing shared: 50.5 with sigma 0.5.
 */
export function mergeCell(readings: readonly CellReading[]): CellReading {
  const first = readings[0];
  if (!first || readings.some(({ cellIndex }) => cellIndex !== first.cellIndex))
    throw new RangeError('only readings of one cell can be merged');
  if (readings.length === 1) return first;
  const sure = readings.filter(({ confidence }) => confidence >= LOW_CONFIDENCE);
  const used = sure.length > 0 ? sure : readings;
  const best = used.reduce((one, other) => (other.lightnessSigma < one.lightnessSigma ? other : one));
  const { value: lightness, sigma: own } = pooled(used.map((one) => ({ value: one.lightness, sigma: ownSigma(one) })));
  const sharedSigma = Math.min(...used.map((one) => one.sharedSigma));
  const lightnessSigma = Math.hypot(own, sharedSigma);
  const contradicted = used.some((one) => used.some((other) => disagree(one, other)));
  const doubts = [...best.doubts, ...(contradicted ? (['photos-disagree'] as const) : [])];
  return {
    ...best,
    lightness,
    deltaLightness: lightness - (best.lightness - best.deltaLightness),
    lightnessSigma,
    sharedSigma,
    confidence: Math.min(chanceWithin(PROMISE, lightnessSigma), 0.75 ** doubts.length),
    doubts,
    // Usually the closest photo, whatever it makes of the light.
    lines: surest(
      used,
      ({ lines }) => lines,
      ({ visibilitySigma }) => visibilitySigma,
    ),
    // Of the first photo, whatever it makes of the rest: those of two are not blunted alike.
    ripple: first.ripple,
    // By its width, or by its place where none tells that.
    line: surest(
      used,
      ({ line }) => line,
      ({ widthSigmaMm, besideSigmaMm }) => widthSigmaMm ?? 1 + besideSigmaMm,
    ),
    bars: surest(
      used,
      ({ bars }) => bars,
      ({ there, back }) => offsetBetween(there, back).sigmaMm,
    ),
    ends: surest(
      used,
      ({ ends }) => ends,
      ({ sigma }) => sigma,
    ),
    drawing: surest(
      used,
      ({ drawing }) => drawing,
      ({ takenSigma }) => takenSigma,
    ),
  };
}

/** What one of the photos shows of a cell, by the one that is surest of it; null where none shows it. */
function surest<Seen>(
  readings: readonly CellReading[],
  of: (reading: CellReading) => Seen | null | undefined,
  unsure: (seen: Seen) => number,
): Seen | null {
  const seen = readings.map(of).filter((one) => one !== null && one !== undefined);
  return seen.reduce<Seen | null>((best, one) => (best === null || unsure(one) < unsure(best) ? one : best), null);
}

/** A reading of a cell, and how much more light lies over its photo than over the clearest one. */
interface SeenUnder {
  readonly cell: CellReading;
  readonly added: number;
}

/**
 * All cells that any of the photos shows, each merged, in order of their indexes. Where photos contradict each other all over by light that lies over
 * some of them, those are left aside for what a clearer one shows as well, and every cell is less sure: as much may lie under all.
 */
export function mergeCells(photos: readonly CellsOfPhoto[]): CellReading[] {
  const light = lightBetween(photos);
  const byCell = new Map<number, SeenUnder[]>();
  photos.forEach(({ cells }, photo) => {
    for (const cell of cells)
      byCell.set(cell.cellIndex, [...(byCell.get(cell.cellIndex) ?? []), { cell, added: light.added[photo]! }]);
  });
  return [...byCell.values()]
    .map((seen) => underLight(tonedBy(clearestOf(seen), seen), light))
    .sort((a, b) => a.cellIndex - b.cellIndex);
}

/** Readings without those that more light lies over, but where only those are sure. */
function clearestOf(seen: readonly SeenUnder[]): CellReading[] {
  const isSure = ({ cell }: SeenUnder): boolean => cell.confidence >= LOW_CONFIDENCE;
  const clear = seen.filter(({ added }) => added === 0);
  const isEnough = clear.length > 0 && (clear.some(isSure) || !seen.some(isSure));
  return (isEnough ? clear : seen).map(({ cell }) => cell);
}

/** A cell whose tone some of its photos tell; what is no tone, like its lines, all of them do. */
function tonedBy(clear: readonly CellReading[], seen: readonly SeenUnder[]): CellReading {
  if (clear.length === seen.length) return mergeCell(clear);
  const { lines, line, bars, ends, drawing, ripple } = mergeCell(seen.map(({ cell }) => cell));
  return { ...mergeCell(clear), lines, line, bars, ends, drawing, ripple };
}

/** A merged cell less sure by what its photos' light differs by. */
function underLight(cell: CellReading, light: LightBetween): CellReading {
  const byLight = light.sigmaOf(cell);
  if (byLight === 0) return cell;
  const lightnessSigma = Math.hypot(cell.lightnessSigma, byLight);
  const chance = chanceWithin(PROMISE, lightnessSigma);
  const isMarkedByIt = chance < LOW_CONFIDENCE && cell.confidence >= LOW_CONFIDENCE;
  const doubts: readonly Doubt[] = isMarkedByIt ? [...cell.doubts, 'photos-disagree'] : cell.doubts;
  const confidence = Math.min(cell.confidence, chance, 0.75 ** doubts.length);
  return { ...cell, lightnessSigma, doubts, confidence };
}
