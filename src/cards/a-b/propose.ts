import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeFill } from '../../core/card/propose-fill';
import type { BurnSettings } from '../../core/card/settings';
import { proposeSetup } from '../../core/card/work-setup';
import type { Machine } from '../../core/machine/machine';
import { A_B_VERSION, cleanedSetup, COMPARABLE, type ABPlan, type Comparable } from './plan';

/** Tells 4 L* apart in one look where patches scatter by 1.5 L*, as they do on an even sheet. */
const PAIRS = 6;
const PATCH_MM = 3.2;
const GAP_MM = 1;

/** What usually stands against a setting: air the other way, lines the other way, one more pass. */
function otherThan(settings: BurnSettings, machine: Machine): Pick<BurnSettings, Comparable> {
  const { air, direction, bothWays, passes, intervalMm, focusOffsetMm, lineAngleDeg, crossHatch } = settings;
  return {
    air: machine.airAssist === 'none' || air !== 'off' ? 'off' : 'on',
    direction: direction === 'horizontal' ? 'vertical' : 'horizontal',
    bothWays: !bothWays,
    passes: passes + 1,
    intervalMm: Math.round(intervalMm * 1.25 * 1e4) / 1e4,
    focusOffsetMm: focusOffsetMm + 1,
    lineAngleDeg: lineAngleDeg === 45 ? 0 : 45,
    crossHatch: !crossHatch,
    frequencyKHz: machine.galvo?.frequencyKHz?.most ?? null,
  };
}

/**
 * Six patches of each of two settings that differ by one constant, around the engraving setting that was kept; what the last comparison still wants,
 * where one was not enough. Throws RangeError where the wavelength cannot mark.
 */
export function proposeAB(known: Known): Proposal<ABPlan> {
  const { pairing, facts } = known;
  const { machine } = pairing;
  const { settings, reasons } = proposeFill(known);
  const kept = factOf(facts, 'engrave')?.value.settings;
  const own = kept ? { ...kept, powerFraction: Math.min(kept.powerFraction, machine.powerCap) } : settings;
  const frame = proposeFrame(pairing);
  const rest = { patchMm: PATCH_MM, gapMm: GAP_MM, frame: frame.settings, setup: proposeSetup(pairing) };
  const framed = {
    'frame.marker.powerFraction': frame.reasons.marker,
    'frame.lettering.powerFraction': frame.reasons.lettering,
  };
  const last = factOf(facts, 'compared')?.value;
  if (last && last.more > 0) {
    const { a, b } = last.sides;
    const what =
      COMPARABLE.find((one) => a[one] !== b[one]) ?? (last.looks.some(({ paired }) => paired) ? 'cleaned' : 'prepared');
    const isOfConstants = what !== 'prepared' && what !== 'cleaned';
    return {
      plan: {
        ...rest,
        version: A_B_VERSION,
        what,
        pairs: last.more,
        constants: a,
        ...(what === 'cleaned' && { setup: cleanedSetup(rest.setup) }),
        other: { ...otherThan(a, machine), ...(isOfConstants ? { [what]: b[what] } : {}) },
        prepared: what === 'prepared' ? { a: last.a, b: last.b } : { a: 'masked', b: 'bare' },
      },
      reasons: {
        ...framed,
        what: 'the last comparison was not enough: this is its second look, and the last',
        pairs: `so many more of each tell ${last.a} from ${last.b}, by how its patches scattered`,
        'constants.powerFraction': 'as the first look had it',
      },
    };
  }
  const what = machine.airAssist === 'none' ? 'direction' : 'air';
  return {
    plan: {
      ...rest,
      version: A_B_VERSION,
      what,
      pairs: PAIRS,
      constants: own,
      other: otherThan(own, machine),
      prepared: { a: 'masked', b: 'bare' },
    },
    reasons: {
      ...(kept ? { 'constants.powerFraction': 'as the kept engraving setting' } : reasons),
      ...framed,
      what:
        what === 'air'
          ? 'air is the constant that changes most: less soot, but cooler'
          : 'grain makes a difference on many stocks',
      pairs:
        'six of each tell 4 L* apart where patches scatter by 1.5 L*; a second look is asked for where they scatter more',
    },
  };
}
