import type { Pairing } from '../card/pairing';
import { thicknessOf } from '../stock/stock';
import { plainNumber } from '../quantities/format';

/** Thickness that differs by more than this share is another sheet. */
const THICKNESS_SHARE = 0.05;

const NEW_BATCH = 'new batch';

/** Whether one of these reasons is that the stock is of another batch. */
export const isOfNewBatch = (reasons: readonly string[]): boolean =>
  reasons.some((reason) => reason.startsWith(NEW_BATCH));

export type Cause = 'source' | 'motion' | 'power' | 'lens' | 'batch' | 'stock' | 'thickness' | 'bed';

/**
 * Why a result that was measured on `then` may no longer hold on `now`, in words for the ladder; empty when nothing speaks
 * against it. Only what changes a mark counts: names and liked units do not. With `causes`, only those are looked at.
 */
export function stalenessReasons(then: Pairing, now: Pairing, causes?: readonly Cause[]): string[] {
  const found: [Cause, string][] = [];
  const { machine: m0, lens: l0, stock: s0 } = then;
  const { machine: m1, lens: l1, stock: s1 } = now;
  if (m0.sourceKind !== m1.sourceKind || m0.wavelengthNm !== m1.wavelengthNm || m0.ratedPowerW !== m1.ratedPowerW)
    found.push(['source', 'another source']);
  if (m0.accelerationXMmPerS2 !== m1.accelerationXMmPerS2 || m0.accelerationYMmPerS2 !== m1.accelerationYMmPerS2)
    found.push(['motion', 'another acceleration']);
  if (JSON.stringify(m0.powerTable) !== JSON.stringify(m1.powerTable)) found.push(['power', 'power measured again']);
  if (l0.focalLengthMm !== l1.focalLengthMm || l0.spotXMm !== l1.spotXMm || l0.spotYMm !== l1.spotYMm)
    found.push(['lens', 'lens or spot changed']);
  if (s0.batch !== s1.batch) found.push(['batch', `${NEW_BATCH} ${s1.batch || '(none)'}`]);
  if (s0.family !== s1.family || s0.type !== s1.type || s0.coating !== s1.coating)
    found.push(['stock', 'the stock’s record changed']);
  const t0 = thicknessOf(s0).meanMm;
  const t1 = thicknessOf(s1).meanMm;
  if (Math.abs(t1 - t0) > THICKNESS_SHARE * t0)
    found.push(['thickness', `thickness ${plainNumber(t1)} mm, was ${plainNumber(t0)} mm`]);
  return found.filter(([cause]) => causes === undefined || causes.includes(cause)).map(([, words]) => words);
}
