import { formatInterval, formatLength, formatPower, formatSpeed, type LikedUnits } from '../quantities/format';
import { valueAt, type PlanField } from './plan-fields';

/** A constant is far from what was proposed when it is this many times as much, or as little. */
const FAR = 2;
/** Offsets go through zero: far is this many millimetres. */
const FAR_OFFSET_MM = 2;

function shown(as: PlanField['as'], value: number, liked: LikedUnits): string {
  if (as === 'power') return formatPower(value);
  if (as === 'speed') return formatSpeed(value, liked);
  if (as === 'interval') return formatInterval(value, liked);
  return as === 'count' ? String(value) : formatLength(value, liked);
}

function isFar(as: PlanField['as'], value: number, proposed: number): boolean {
  if (as === 'offset') return Math.abs(value - proposed) >= FAR_OFFSET_MM;
  if (value <= 0 || proposed <= 0) return value !== proposed;
  return Math.max(value / proposed, proposed / value) >= FAR;
}

/**
 * Constants of a plan that lie far from the proposal, which starts from what was kept last: slips of a finger and forgotten changes, in
 * words with the proposal's own reason. Not faults: the operator may mean it.
 *
 * With the plan of the card `before`, what is as it was there is not pointed out, and what is not says what was used.
 *
 * passes 4 where 1 was proposed -> 'Passes: 4, where 1 was proposed (as the kept engraving setting).'
 */
export function unusualConstants(
  fields: readonly PlanField[],
  plan: object,
  proposal: { readonly plan: object; readonly reasons: Readonly<Record<string, string>> },
  liked: LikedUnits,
  before: { readonly plan: object; readonly code: string } | null = null,
): string[] {
  return fields.flatMap(({ path, label, as, group }) => {
    const value = valueAt(plan, path);
    const proposed = valueAt(proposal.plan, path);
    if (group !== 'same' || typeof value !== 'number' || typeof proposed !== 'number') return [];
    if (!isFar(as, value, proposed)) return [];
    const used = before && valueAt(before.plan, path);
    const told = typeof used === 'number' ? used : null;
    if (told !== null && !isFar(as, value, told)) return [];
    const until = told === null ? '' : `; you used ${shown(as, told, liked)} until now (card ${before!.code})`;
    const reason = proposal.reasons[path];
    const because = reason === undefined ? '' : ` (${reason})`;
    return [
      `${label}: ${shown(as, value, liked)}, where ${shown(as, proposed, liked)} was proposed${because}${until}.`,
    ];
  });
}
