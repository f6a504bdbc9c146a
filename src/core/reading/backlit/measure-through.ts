import type { Cell } from '../../card/layout';
import { grown } from '../../geometry/point';
import { meanAndSpread, quantile } from '../../stats/robust';
import { FLAT_ENOUGH_MM, LEAST_PX_PER_MM } from '../photo-context';
import { clippedShareIn, luminancesIn } from '../pixels-of-area';
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

/** How much light comes through one cell, with how sure it is. */
export function measureThrough(context: BacklitContext, { index, box }: Cell): CellThrough {
  const { rectified, open, bareThrough, frameErrorMm } = context;
  const side = Math.min(box.width, box.height);
  const inner = grown(box, (-(1 - INNER) * side) / 2);
  const seen = luminancesIn(rectified, inner);
  const light = open.at(box.x + box.width / 2, box.y + box.height / 2);
  const through = meanAndSpread(seen).mean / light;
  const lightSigma = through * open.sigma;
  const frameSigma = (frameErrorMm / side) * 0.5 * Math.abs(through - bareThrough);
  const roomSigma = (context.mostRoomLight * MARK_REFLECTS) / 4;
  const toneSigma = through * context.toneSigma(through * light, light);
  const ownSigma = Math.hypot(LEAST_OWN, through * LIGHT_BY_PLACE, frameSigma);
  const sigma = Math.hypot(ownSigma, lightSigma, roomSigma, toneSigma);

  const doubts: ThroughDoubt[] = [];
  // The dark end of the range is what a coat looks like; at the bright end light is lost.
  if (through > 0.5 && clippedShareIn(rectified, inner) > MOST_BLOWN_OUT) doubts.push('blown-out');
  if (context.photoPxPerMm < LEAST_PX_PER_MM) doubts.push('blurred');
  if (frameErrorMm > FLAT_ENOUGH_MM) doubts.push('off-frame');
  if (roomSigma > MOST_SIGMA) doubts.push('room-light');
  if (toneSigma > MOST_SIGMA) doubts.push('tones-unknown');
  return { cellIndex: index, through, sigma, ownSigma, darkestTenth: quantile(seen, 0.1) / light, doubts };
}
