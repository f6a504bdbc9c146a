import { plainNumber } from '../quantities/format';
import { AS_RECORDED, type MotionShares } from './head-motion';

/** How an estimate is made, and what it stands on. */
export interface Pace {
  readonly by: 'record' | 'scale' | 'motion';
  /** Every time is multiplied by this. */
  readonly scale: number;
  readonly shares: MotionShares;
  /** Timed burns that it stands on. */
  readonly logs: number;
  /** Timed burns that were left out because they contradict the others. */
  readonly leftOut: number;
  /** An estimate is right within this share in 95 of 100 burns; null when nothing tells. */
  readonly within95: number | null;
}

/** Nothing was timed: as the record says, and nobody knows how far off that is. */
export const UNTIMED: Pace = {
  by: 'record',
  scale: 1,
  shares: AS_RECORDED,
  logs: 0,
  leftOut: 0,
  within95: null,
};

const burns = (count: number): string => (count === 1 ? '1 timed burn' : `${count} timed burns`);

/** What timed burns told, in one line. */
export function paceWords({ by, scale, shares, logs }: Pace): string {
  if (by === 'record') return logs === 0 ? 'no burn was timed yet' : `${burns(logs)}: three say more`;
  if (by === 'scale') return `${plainNumber(scale, 3)} × the model’s time, from ${burns(logs)}`;
  const overhead = plainNumber(shares.lineOverheadS * 1000, 2);
  return `acceleration ${plainNumber(shares.acceleration, 2)} and travel speed ${plainNumber(shares.travelSpeed, 2)} of the record, ${overhead} ms a line, from ${burns(logs)}`;
}

/**
 * How sure an estimate made at a pace is, in words: what it stands on, and within what it is right 95 times of 100. Without timed burns
 * nobody knows: machines have taken twice as long as a program thought (common practice).
 */
export function sureOfPace({ logs, leftOut, within95 }: Pace): string {
  const odd = leftOut === 0 ? '' : `; ${leftOut} more left out, twice off the others`;
  if (within95 === null)
    return logs === 0 ? 'never timed: may take twice as long' : `${burns(logs)}, three are needed to go by${odd}`;
  return `± ${plainNumber(within95 * 100, 2)} % (95 %), from ${burns(logs)}${odd}`;
}
