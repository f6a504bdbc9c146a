import { factOf } from '../book/facts';
import { formatLength, type LikedUnits } from '../quantities/format';
import { familyOf, type Family } from '../stock/families';
import type { Known } from './contract';
import { widthAcross } from './mark-across';
import { PLAIN_EXTRAS, type Constants } from './settings';

const roundTo = (value: number, step: number): number => Math.round(Math.round(value / step) * step * 1e6) / 1e6;

/** Lines closer together than this share of the spot are not told apart: they add time and mud (common practice). */
const CLOSEST_SHARE = 0.8;

/**
 * Interval to start from: what is usual for the family, but no closer than the spot resolves, and no wider than the mark is across the
 * lines, so that no gap stays unlit.
 */
function usualInterval(
  family: Family,
  { spotMm, markMm }: { readonly spotMm: number; readonly markMm: number },
  liked: LikedUnits,
): { intervalMm: number; reason: string } {
  const closestMm = spotMm * CLOSEST_SHARE;
  const step = markMm < 0.06 ? 0.001 : 0.005;
  const name = family.name.toLowerCase();
  if (family.intervalMm > markMm)
    return {
      // Down, never up: a gap would stay unlit.
      intervalMm: Math.round(Math.floor(markMm / step + 1e-9) * step * 1e6) / 1e6,
      reason: `as wide as the mark of this ${formatLength(spotMm, liked)} spot on ${name}: further apart gaps stay unlit`,
    };
  if (family.intervalMm < closestMm)
    return {
      intervalMm: roundTo(closestMm, step),
      reason: `${CLOSEST_SHARE} of this lens’s ${formatLength(spotMm, liked)} spot: closer lines only add time`,
    };
  return { intervalMm: family.intervalMm, reason: `usual for ${name}` };
}

/**
 * What cards for engraving keep the same unless they are about it: interval and focus as measured, or as usual for family and spot;
 * air and direction by family, machine and grain. With the reason for each, under its path in a plan's `constants`.
 */
export function proposeConstants({ pairing, facts }: Known): { constants: Constants; reasons: Record<string, string> } {
  const { machine, stock } = pairing;
  const family = familyOf(stock.family);
  const reasons: Record<string, string> = {};

  const wanted = family.grained && stock.grain === 'along-width' ? 'vertical' : 'horizontal';
  const slow = wanted === 'vertical' && machine.accelerationYMmPerS2 < machine.accelerationXMmPerS2 / 2;
  const direction = slow ? 'horizontal' : wanted;
  const usual = usualInterval(family, widthAcross(pairing, direction), machine.likedUnits);
  let { intervalMm } = usual;
  reasons['constants.intervalMm'] = usual.reason;
  // A kept setting holds at its own interval, passes and focus; a card that asked for one of them alone knows better.
  const engrave = factOf(facts, 'engrave');
  const kept = engrave && engrave.stale.length === 0 ? engrave.value.settings : null;
  if (kept) {
    intervalMm = kept.intervalMm;
    for (const field of ['intervalMm', 'passes', 'focusOffsetMm'])
      reasons[`constants.${field}`] = 'as the kept engraving setting';
  }
  const interval = factOf(facts, 'interval');
  if (interval && interval.stale.length === 0) {
    intervalMm = interval.value.intervalMm;
    reasons['constants.intervalMm'] = 'as found by the interval card';
  }
  const focus = factOf(facts, 'focus');
  let focusOffsetMm = kept?.focusOffsetMm ?? 0;
  if (focus && focus.stale.length === 0) {
    focusOffsetMm = focus.value.focusOffsetMm;
    reasons['constants.focusOffsetMm'] = 'as found by the focus card';
  }

  const air =
    machine.airAssist === 'none' ? 'off' : machine.airAssist === 'on-off' && family.air === 'low' ? 'off' : family.air;
  reasons['constants.air'] =
    air === family.air ? family.airReason : 'what this machine can do; the family would like low air';
  reasons['constants.direction'] = slow
    ? 'along X: across the grain would be better, but this head is much quicker along X'
    : family.grained && stock.grain !== 'none'
      ? 'across the grain'
      : 'along X, the axis that moves the lighter part';
  return {
    constants: {
      intervalMm,
      passes: kept?.passes ?? 1,
      focusOffsetMm,
      air,
      direction,
      bothWays: true,
      ...PLAIN_EXTRAS,
    },
    reasons,
  };
}
