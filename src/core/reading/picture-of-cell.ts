import type { Cell } from '../card/layout';
import { blurredSideMm, VIEWING_MM } from '../picture/viewing';
import { lightnessOf, meanRatio, type PhotoContext } from './photo-context';

/** What a photo shows of a cell that is burned as a picture: how light its blocks are. */
export interface PictureSeen {
  readonly columns: number;
  readonly rows: number;
  /** L* of each block less bare stock's, row by row from the upper left, to a tenth; null where nothing of it is seen. */
  readonly deltas: readonly (number | null)[];
}

/** Side of a block: coarser than dots, and as fine as an eye sees from where one looks at a small thing. */
const BLOCK_MM = blurredSideMm(VIEWING_MM);
/** Blocks of large pictures are larger, so that there are no more of them. */
const MOST_BLOCKS = 12_000;

/** Whether a cell is burned as a picture: how light all of it is together, and how even, says little. */
export const isPicture = ({ burns }: Pick<Cell, 'burns'>): boolean =>
  burns.length === 1 && burns[0]!.shape.do === 'picture';

/** The blocks of a cell that is burned as a picture, on stock that is darker under the cell by a logarithm of `offset`; null for other cells. */
export function pictureOfCell(
  context: PhotoContext,
  cell: Pick<Cell, 'burns' | 'box'>,
  bareLightness: number,
  offset: number,
): PictureSeen | null {
  if (!isPicture(cell)) return null;
  const { box } = cell;
  const blockMm = Math.max(BLOCK_MM, Math.sqrt((box.width * box.height) / MOST_BLOCKS));
  const columns = Math.max(1, Math.round(box.width / blockMm));
  const rows = Math.max(1, Math.round(box.height / blockMm));
  const [width, height] = [box.width / columns, box.height / rows];
  const deltas = Array.from({ length: columns * rows }, (_, index) => {
    const area = {
      x: box.x + (index % columns) * width,
      y: box.y + Math.floor(index / columns) * height,
      width,
      height,
    };
    const delta = lightnessOf(context, meanRatio(context, area), offset) - bareLightness;
    return Number.isFinite(delta) ? Math.round(10 * delta) / 10 : null;
  });
  return { columns, rows, deltas };
}
