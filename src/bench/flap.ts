import type { Box } from './gauges';
import type { Piece } from './piece';
import { randomFrom } from './random';

/** What a flap does that hangs by its upper side when a finger bends it. */
export type BentFlap = 'off' | 'clean' | 'ragged' | 'folds' | 'breaks' | 'stiff';

/** Stock that folds; other stock breaks. */
const FOLDS = new Set([
  'card',
  'corrugated',
  'leather-vegetable',
  'leatherette',
  'felt',
  'fleece',
  'cloth',
  'veneer',
  'rubber',
  'foam',
  'cork',
]);
/** What a row of scored dashes looks like. */
export type SeenStitches = 'stitching' | 'faint' | 'deep' | 'together';

/** Stitches show where a dash is deeper than this share of a millimetre, and lie on the sheet up to this share of it; between two of them nothing shows. */
const SHOWS_MM = 0.05;
const DEEP_SHARE = 0.5;
const TOGETHER_SHARE = 0.4;

/** Looks at dashes that were scored along the middle of a box: by how deep they are, and what is left between them. */
export function lookAtStitches({ width, pxPerMm, marginMm, depthMm, thicknessMm }: Piece, box: Box): SeenStitches {
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const [left, right, y] = [px(box.x), px(box.x + box.width), px(box.y + box.height / 2)];
  const reach = Math.round(ASIDE_MM * pxPerMm);
  const along = Array.from({ length: right - left }, (_, at) => {
    let most = 0;
    for (let aside = -reach; aside <= reach; aside++) most = Math.max(most, depthMm[(y + aside) * width + left + at]!);
    return most;
  }).sort((a, b) => a - b);
  // Dashes take more than half of the line, what is between them more than a tenth.
  const [between, dash] = [along[Math.floor(0.1 * along.length)]!, along[Math.floor(0.75 * along.length)]!];
  if (dash < SHOWS_MM) return 'faint';
  if (dash > DEEP_SHARE * thicknessMm) return 'deep';
  return between > TOGETHER_SHARE * dash ? 'together' : 'stitching';
}

/** Shares of the line’s section that stand: below the first it falls, then it tears clean, then ragged. */
const FALLS_BELOW = 0.015;
const CLEAN_BELOW = 0.17;
const RAGGED_BELOW = 0.3;
/** What folds, or breaks, bends up to here; what is stronger does not give. */
const GIVES_BELOW = 0.62;
const SCATTER = 0.12;
/** A beam lies a little beside the line that it was sent along. */
const ASIDE_MM = 0.2;
/** Of the other three sides so much must be cut through. */
const FREE_SHARE = 0.97;

/** Bends a flap that hangs by the upper side of a box. */
export function bendFlap(
  piece: Piece,
  box: Box,
  { family, seed }: { readonly family: string; readonly seed: string },
): BentFlap {
  const { width, pxPerMm, marginMm, depthMm, thicknessMm } = piece;
  const px = (mm: number): number => Math.round((mm + marginMm) * pxPerMm);
  const reach = Math.round(ASIDE_MM * pxPerMm);
  /** The deepest across a line that runs along x or y, as a share of the sheet. */
  const deepest = (x: number, y: number, across: 'x' | 'y'): number => {
    let most = 0;
    for (let aside = -reach; aside <= reach; aside++)
      most = Math.max(most, depthMm[(across === 'y' ? y + aside : y) * width + (across === 'x' ? x + aside : x)]!);
    return Math.min(1, most / thicknessMm);
  };
  const [left, right, top, bottom] = [px(box.x), px(box.x + box.width), px(box.y), px(box.y + box.height)];
  let [free, places] = [0, 0];
  const side = (through: boolean): void => {
    places++;
    if (through) free++;
  };
  for (let y = top + 2 * reach; y <= bottom; y++) {
    side(deepest(left, y, 'x') >= 0.995);
    side(deepest(right, y, 'x') >= 0.995);
  }
  for (let x = left; x <= right; x++) side(deepest(x, bottom, 'y') >= 0.995);
  if (free / places < FREE_SHARE) return 'stiff';
  let standing = 0;
  for (let x = left; x <= right; x++) standing += 1 - deepest(x, top, 'y');
  const share = standing / (right - left + 1);
  const random = randomFrom(`flap ${seed} ${box.x} ${box.y}`);
  const lot = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const feels = share * Math.exp(SCATTER * lot);
  if (feels < FALLS_BELOW) return 'off';
  if (feels < CLEAN_BELOW) return 'clean';
  if (FOLDS.has(family)) return feels < GIVES_BELOW ? 'folds' : 'stiff';
  if (feels < RAGGED_BELOW) return 'ragged';
  return feels < GIVES_BELOW ? 'breaks' : 'stiff';
}
