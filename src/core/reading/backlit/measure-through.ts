import type { Cell } from '../../card/layout';
import { luminance } from '../../color/srgb';
import { grown, type Rect } from '../../geometry/point';
import { meanAndSpread, quantile } from '../../stats/robust';
import { FLAT_ENOUGH_MM, LEAST_PX_PER_MM } from '../photo-context';
import type { Rectified } from '../rectify';
import { MOST_SIGMA, type CellThrough, type ThroughDoubt } from './observations';
import type { OpenLight } from './open-light';

/** What holds for a whole photo of a card on a light table. */
export interface BacklitContext {
  readonly rectified: Rectified;
  readonly open: OpenLight;
  readonly photoPxPerMm: number;
  readonly frameErrorMm: number;
  /** Share of the open light that bare stock sends to the camera. */
  readonly bareThrough: number;
  /** What the room's light, sent back by white, may be of the open table's, at the most. */
  readonly mostRoomLight: number;
  /** How sure the ratio of two lights is by the camera's tones: as a logarithm. */
  toneSigma(light: number, other: number): number;
}

const INNER = 0.6;
/** Share of the room's light that a mark sends back at the most: frosted and bared plastic are no whiter. */
const MARK_REFLECTS = 0.7;
/** Noise, stored steps and what the lens scatters, as a share of the open light. */
const LEAST_OWN = 0.004;
/** How much better the light of two places of one card is known against each other: measured on the bench, 0.003 in the mean. */
const LIGHT_BY_PLACE = 0.006;
const MOST_BLOWN_OUT = 0.02;

/** Light of each pixel in an area, as a share of the open table's at the middle of the area. */
function sharesIn({ rectified, open }: Pick<BacklitContext, 'rectified' | 'open'>, area: Rect): Float32Array {
  const { data, width, height, pxPerMm } = rectified;
  const left = Math.max(0, Math.round(area.x * pxPerMm));
  const right = Math.min(width, Math.round((area.x + area.width) * pxPerMm));
  const top = Math.max(0, Math.round(area.y * pxPerMm));
  const bottom = Math.min(height, Math.round((area.y + area.height) * pxPerMm));
  const light = open.at(area.x + area.width / 2, area.y + area.height / 2);
  const shares = new Float32Array(Math.max(0, right - left) * Math.max(0, bottom - top));
  let count = 0;
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const at = (y * width + x) * 3;
      shares[count++] = luminance(data[at]!, data[at + 1]!, data[at + 2]!) / light;
    }
  return shares;
}

function clippedIn({ clipped, width, pxPerMm }: Rectified, area: Rect): number {
  let count = 0;
  let all = 0;
  for (let y = Math.round(area.y * pxPerMm); y < Math.round((area.y + area.height) * pxPerMm); y++)
    for (let x = Math.round(area.x * pxPerMm); x < Math.round((area.x + area.width) * pxPerMm); x++, all++)
      count += clipped[y * width + x] ?? 1;
  return count / all;
}

/** How much light comes through one cell, with how sure it is. */
export function measureThrough(context: BacklitContext, { index, box }: Cell): CellThrough {
  const { open, bareThrough, frameErrorMm } = context;
  const side = Math.min(box.width, box.height);
  const inner = grown(box, (-(1 - INNER) * side) / 2);
  const shares = sharesIn(context, inner);
  const through = meanAndSpread(shares).mean;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const light = open.at(x, y);
  const lightSigma = through * open.sigma;
  const frameSigma = (frameErrorMm / side) * 0.5 * Math.abs(through - bareThrough);
  const roomSigma = (context.mostRoomLight * MARK_REFLECTS) / 4;
  const toneSigma = through * context.toneSigma(through * light, light);
  const ownSigma = Math.hypot(LEAST_OWN, through * LIGHT_BY_PLACE, frameSigma);
  const sigma = Math.hypot(ownSigma, lightSigma, roomSigma, toneSigma);

  const doubts: ThroughDoubt[] = [];
  // The dark end of the range is what a coat looks like; at the bright end light is lost.
  if (through > 0.5 && clippedIn(context.rectified, inner) > MOST_BLOWN_OUT) doubts.push('blown-out');
  if (context.photoPxPerMm < LEAST_PX_PER_MM) doubts.push('blurred');
  if (frameErrorMm > FLAT_ENOUGH_MM) doubts.push('off-frame');
  if (roomSigma > MOST_SIGMA) doubts.push('room-light');
  if (toneSigma > MOST_SIGMA) doubts.push('tones-unknown');
  return { cellIndex: index, through, sigma, ownSigma, darkestTenth: quantile(shares, 0.1), doubts };
}
