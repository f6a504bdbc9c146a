import { dayOf } from '../quantities/day';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import type { FactName, FactValues } from './fact-values';
import { FACTS, factWords } from './facts';
import { type Conditions } from './conditions';
import { groundOf, RUNGS, type RungId } from './rungs';

/** One version of what was kept. */
export interface KeptVersion {
  readonly value: FactValues[FactName];
  readonly sigma: number | null;
  readonly createdAt: string;
}

/** All that was kept under a name and conditions, newest first. */
export interface KeptHistory {
  readonly name: FactName;
  readonly at: Conditions;
  readonly versions: readonly KeptVersion[];
}

/** What counts of facts that others were started from, as one number. */
const MEASURES: { readonly [Name in FactName]?: (value: FactValues[Name]) => number } = {
  // Energy is what the other rungs start from: as much power at as much less speed is the same.
  engrave: ({ settings: { powerFraction, speedMmPerS, intervalMm, passes } }) =>
    (powerFraction * passes) / (speedMmPerS * intervalMm),
  floor: ({ powerFraction }) => powerFraction,
  ceiling: ({ powerFraction }) => powerFraction,
  interval: ({ intervalMm }) => intervalMm,
  tone: ({ strongest }) => strongest,
};

/** A number that changed by less than this share of itself is the same for what stands on it, and so is one within two of its sigmas. */
const SAME_SHARE = 0.05;
const SAME_SIGMAS = 2;

function differs(name: FactName, then: KeptVersion, now: KeptVersion): boolean {
  const measure = MEASURES[name] as ((value: FactValues[FactName]) => number) | undefined;
  if (!measure) return false;
  const [before, after] = [measure(then.value), measure(now.value)];
  // A setting's sigma is of its tone.
  const sigma = name === 'engrave' ? 0 : Math.hypot(then.sigma ?? 0, now.sigma ?? 0);
  return Math.abs(after - before) > Math.max(SAME_SHARE * Math.abs(before), SAME_SIGMAS * sigma);
}

/**
 * Why a fact may hold no longer because a rung below its own was done again and came out otherwise: what that says now and what it said when this was
 * kept, with the day. Shades beside the usual setting are nothing that other rungs stand on.
 *
 * A ceiling of Monday, a floor of 5 % of Sunday and of 8 % of Tuesday: ["Threshold redone on …: floor 8 %, was floor 5 %"].
 */
export function redoneReasons(
  { name, createdAt }: { readonly name: FactName; readonly createdAt: string },
  kept: readonly KeptHistory[],
): string[] {
  const { rung } = FACTS[name];
  if (rung === null) return [];
  const below: readonly RungId[] = groundOf(rung);
  return kept.flatMap(({ name: other, at, versions }) => {
    const on = FACTS[other].rung;
    if (on === null || !below.includes(on) || at['shade'] !== undefined) return [];
    const now = versions[0];
    const then = versions.find((version) => version.createdAt <= createdAt);
    if (!now || !then || now === then || !differs(other, then, now)) return [];
    const words = ({ value }: KeptVersion): string => factWords({ name: other, value }, DEFAULT_LIKED_UNITS);
    return [`${RUNGS[on].name} redone on ${dayOf(now.createdAt)}: ${words(now)}, was ${words(then)}`];
  });
}
