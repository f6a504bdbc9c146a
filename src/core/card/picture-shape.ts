import { unpackGreys, type Greys } from '../picture/greys';
import { powerOfGrey, type PictureMode } from '../picture/mode';
import { screened } from '../picture/screen';
import { lookedUp } from '../picture/tone-table';

/** What a picture's burn goes by: see `PictureShape`. */
export interface PictureBurn {
  readonly wanted: Greys;
  readonly table: readonly number[] | null;
  readonly mode: PictureMode;
  readonly floorFraction: number;
}

/** Powers are told to programs in thousandths. */
const POWER_STEP = 1e-3;

/** What is burned at each place, row by row: a share of the strongest where power follows grey, none or all of it where dots do. */
export function burnedOf({ wanted, table, mode }: PictureBurn): Float32Array {
  const { columns, rows } = wanted;
  const bytes = unpackGreys(wanted);
  const shares = Float32Array.from({ length: 256 }, (_, byte) => (table ? lookedUp(table, byte / 255) : byte / 255));
  if (mode === 'power') return Float32Array.from(bytes, (byte) => shares[byte]!);
  return Float32Array.from(
    screened((column, row) => shares[bytes[row * columns + column]!]!, columns, rows, mode).burned,
  );
}

/** The power that is burned for a share of the strongest: none for none. */
export function powerOfShare(
  { mode, floorFraction }: Pick<PictureBurn, 'mode' | 'floorFraction'>,
  share: number,
  topFraction: number,
): number {
  if (share <= 0) return 0;
  const power = mode === 'power' ? powerOfGrey(share, floorFraction, topFraction) : topFraction;
  return Math.round(power / POWER_STEP) * POWER_STEP;
}

/** Neighbours along a line that are burned alike, from the first place to the one after the last. */
export interface PictureRun {
  readonly from: number;
  readonly end: number;
  /** What `levelOf` makes of them. */
  readonly level: number;
}

/**
 * Runs of a line: of places whose level is alike, by a function of what is burned there; places of level 0 are in none. Lines are rows from the
 * left, or columns from the top.
 */
export function runsOfPicture(
  { wanted: { columns, rows } }: PictureBurn,
  burned: Float32Array,
  lies: boolean,
  line: number,
  levelOf: (share: number) => number,
): PictureRun[] {
  const length = lies ? columns : rows;
  const runs: PictureRun[] = [];
  let from = 0;
  let level = 0;
  for (let place = 0; place <= length; place++) {
    const next = place === length ? 0 : levelOf(burned[lies ? line * columns + place : place * columns + line]!);
    if (next === level) continue;
    if (level !== 0) runs.push({ from, end: place, level });
    from = place;
    level = next;
  }
  return runs;
}

/** Mean of the powers that are burned, over the top. */
export function coverageOfPicture(shape: PictureBurn, { powerFraction }: { readonly powerFraction: number }): number {
  const burned = burnedOf(shape);
  let sum = 0;
  for (const share of burned) sum += powerOfShare(shape, share, powerFraction);
  return sum / burned.length / powerFraction;
}
