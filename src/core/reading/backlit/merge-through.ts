import { pooled } from '../../stats/pooled';
import type { Backlit, CellThrough } from './observations';

/** Photos that differ by more than so many of their own sigmas, and by more than a hundredth of open light, do not see the same. */
const DISAGREE_SIGMAS = 3;
const DISAGREE = 0.01;

const ownOf = ({ through, ownSigma }: CellThrough) => ({ value: through, sigma: ownSigma });
/** The part of a cell's uncertainty that all cells of its photo share: open light beside the piece, and the room's. */
const photoPart = ({ sigma, ownSigma }: CellThrough): number => Math.sqrt(Math.max(0, sigma ** 2 - ownSigma ** 2));

function disagree(a: CellThrough, b: CellThrough): boolean {
  const apart = Math.abs(a.through - b.through);
  return apart > DISAGREE && apart > DISAGREE_SIGMAS * Math.hypot(a.sigma, b.sigma);
}

/**
 * What several photos of one piece on a light table show of one cell. Photos that doubt it are left aside where another does not. What is each
 * photo's own is averaged, what the table and the room make of it is not made less. Photos that contradict each other are a doubt; the darkest tenth
 * is that of the surest photo.
 */
function mergeCell(cells: readonly CellThrough[]): CellThrough {
  if (cells.length === 1) return cells[0]!;
  const sure = cells.filter(({ doubts }) => doubts.length === 0);
  const used = sure.length > 0 ? sure : cells;
  const best = used.reduce((one, other) => (other.sigma < one.sigma ? other : one));
  const { value: through, sigma: ownSigma } = pooled(used.map(ownOf));
  const contradicted = used.some((one) => used.some((other) => disagree(one, other)));
  return {
    ...best,
    through,
    ownSigma,
    sigma: Math.hypot(ownSigma, Math.min(...used.map(photoPart))),
    doubts: [...best.doubts, ...(contradicted ? (['photos-disagree'] as const) : [])],
  };
}

type Told = Pick<Backlit, 'cells' | 'bareThrough' | 'pinholes'> & { readonly photoPxPerMm: number };

/**
 * All cells that any of the photos shows, each merged, in order of their indexes; bare stock's light is their mean, pinholes are those of the photo
 * that shows most. Throws RangeError for no photo.
 */
export function mergeThrough(photos: readonly Told[]): Backlit {
  const [first] = photos;
  if (!first) throw new RangeError('missing photos');
  const byCell = new Map<number, CellThrough[]>();
  for (const cell of photos.flatMap(({ cells }) => cells))
    byCell.set(cell.cellIndex, [...(byCell.get(cell.cellIndex) ?? []), cell]);
  const closest = photos.reduce((one, other) => (other.photoPxPerMm > one.photoPxPerMm ? other : one));
  return {
    cells: [...byCell.values()].map(mergeCell).sort((a, b) => a.cellIndex - b.cellIndex),
    bareThrough: photos.reduce((sum, { bareThrough }) => sum + bareThrough, 0) / photos.length,
    pinholes: closest.pinholes,
  };
}
