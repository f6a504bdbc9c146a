import { mainBurn, type Cell } from '../card/layout';
import { chanceWithin } from '../stats/normal';
import { median } from '../stats/robust';
import { isToneless } from './lines/bars-of-cell';
import { LOW_CONFIDENCE, PROMISE, type CellReading, type Doubt } from './observations';
import { isPicture } from './picture-of-cell';

/** A cell is held against so many others of the nearest tones, none of them further from it than this, L*. */
const BESIDE = 8;
const LEAST_BESIDE = 6;
const FURTHEST = 15;
const SAME_INTERVAL = 0.01;
/** Cells of one tone spread by so many times each other by chance. */
const BY_CHANCE = 1.7;
/** What lies under a cell and shows in it moves its mean by this share of what it spreads more than others. */
const OF_SPREAD = 1;

/** Whether two cells are burned with the same lines, as far apart, crossed and focused alike: other lines spread more or less by themselves. */
function hasLikeLines(one: Cell, other: Cell): boolean {
  const [a, b] = [mainBurn(one).settings, mainBurn(other).settings];
  return (
    Math.abs(a.intervalMm - b.intervalMm) <= SAME_INTERVAL * a.intervalMm &&
    a.direction === b.direction &&
    a.lineAngleDeg === b.lineAngleDeg &&
    a.crossHatch === b.crossHatch &&
    a.focusOffsetMm === b.focusOffsetMm &&
    a.frequencyKHz === b.frequencyKHz
  );
}

/** The spread that cells of a tone usually have on this card; null where too few are near it. */
function usualSpread(cell: CellReading, others: readonly CellReading[]): number | null {
  const beside = others
    .filter((other) => other !== cell && Math.abs(other.lightness - cell.lightness) <= FURTHEST)
    .sort((a, b) => Math.abs(a.lightness - cell.lightness) - Math.abs(b.lightness - cell.lightness))
    .slice(0, BESIDE);
  return beside.length < LEAST_BESIDE ? null : median(beside.map(({ spread }) => spread));
}

/**
 * Cells that spread more than others of their tone and their lines do on the same photo are less sure by that: a knot, a vein or a smudge lies under them, where bare
 * stock beside them need not show it. Cells that are not burned to one tone are left as they are, and so are all where too few are alike.
 */
export function doubtingUneven(readings: readonly CellReading[], cells: readonly Cell[]): CellReading[] {
  const isEven = ({ cellIndex }: CellReading): boolean =>
    !isToneless(cells[cellIndex]!) && !isPicture(cells[cellIndex]!);
  const others = readings.filter(isEven);
  return readings.map((reading) => {
    const own = cells[reading.cellIndex]!;
    const like = others.filter(({ cellIndex }) => hasLikeLines(own, cells[cellIndex]!));
    const usual = isEven(reading) ? usualSpread(reading, like) : null;
    if (usual === null || reading.spread <= BY_CHANCE * usual) return reading;
    const lightnessSigma = Math.hypot(
      reading.lightnessSigma,
      OF_SPREAD * Math.sqrt(reading.spread ** 2 - (BY_CHANCE * usual) ** 2),
    );
    const chance = chanceWithin(PROMISE, lightnessSigma);
    const doubts: readonly Doubt[] =
      chance < LOW_CONFIDENCE && reading.doubts.length === 0 ? ['uneven'] : reading.doubts;
    return { ...reading, lightnessSigma, doubts, confidence: Math.min(chance, 0.75 ** doubts.length) };
  });
}
