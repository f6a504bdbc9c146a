import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatLength, formatPower, formatSpeed, plainNumber } from '../../core/quantities/format';
import { cutEnergy, cutThroughJPerMm } from '../../core/stock/cutting';
import { familyOf } from '../../core/stock/families';
import { thicknessOf } from '../../core/stock/stock';
import { PLAIN_EXTRAS } from '../../core/card/settings';
import { proposeSetup } from '../../core/card/work-setup';
import { KERF_VERSION, type KerfPlan } from './plan';

/** A cut is proposed with this much more than what is expected to just come through. */
const MARGIN = 1.4;
/** Slower than this a cut chars; more passes are taken instead (common practice). */
const LEAST_SPEED = 4;
const MOST_PASSES = 8;
/** Sheets thicker than this are cut with the focus in their middle (common practice). */
const MIDDLE_FROM_MM = 3;
/** Lowered further than this, many heads come near the work. */
const LOWEST_MM = 3;

/**
 * Three squares of 20 mm cut at what should come through with margin: a prediction, no cut setting has been measured here yet.
 * Throws RangeError for stock that this source does not cut, or not in this thickness.
 */
export function proposeKerf({ pairing, facts }: Known): Proposal<KerfPlan> {
  const { machine, stock } = pairing;
  const through = cutThroughJPerMm(machine, stock);
  const family = familyOf(stock.family);
  if (through === null) throw new RangeError(`invalid pairing: ${family.name} is not cut through by this source`);
  const fallen = factOf(facts, 'burnedThrough');
  const frame = proposeFrame(pairing);
  const wanted = through * MARGIN;
  const capW = deliveredPowerW(machine, machine.powerCap);
  const top = Math.min(machine.topSpeedXMmPerS, machine.topSpeedYMmPerS) * 0.5;
  const passes = Math.max(1, Math.ceil((wanted * LEAST_SPEED) / capW));
  if (passes > MOST_PASSES)
    throw new RangeError(
      `invalid pairing: ${formatLength(thicknessOf(stock).meanMm, machine.likedUnits, 3)} ${family.name.toLowerCase()} would take ${passes} passes; not with this machine`,
    );
  const speed = Math.min(top, (capW * passes) / wanted);
  const speedMmPerS = speed < 10 ? Math.floor(speed * 10) / 10 : Math.floor(speed);
  const thickness = thicknessOf(stock).meanMm;
  const middle = thickness > MIDDLE_FROM_MM ? -Math.min(LOWEST_MM, Math.round((thickness / 2) * 10) / 10) : 0;
  const sizeMm = Math.min(20, Math.floor((Math.min(stock.sheetDepthMm, stock.sheetWidthMm) - 20) / 2));
  return {
    plan: {
      version: KERF_VERSION,
      sizeMm: Math.max(8, sizeMm),
      count: Math.max(8, sizeMm) * 3 + 20 > stock.sheetWidthMm ? 2 : 3,
      gapMm: 3,
      cut: {
        powerFraction: machine.powerCap,
        speedMmPerS,
        intervalMm: 0.1,
        passes,
        focusOffsetMm: middle,
        air: machine.airAssist === 'none' ? 'off' : 'on',
        direction: 'horizontal',
        bothWays: true,
        ...PLAIN_EXTRAS,
      },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      'cut.powerFraction': `the machine’s cap of ${formatPower(machine.powerCap)}`,
      'cut.speedMmPerS': `${plainNumber(wanted, 2)} J/mm: 1.4 times what comes through ${formatLength(thickness, machine.likedUnits, 3)} of ${family.name.toLowerCase()}, ${cutEnergy(stock.family).origin}${fallen && fallen.stale.length === 0 ? `; lines of ${plainNumber(fallen.value.lineJPerMm, 2)} J/mm went through where they lay ${formatLength(fallen.value.intervalMm, machine.likedUnits, 2)} apart` : ''}`,
      'cut.passes':
        passes > 1
          ? `fewer would be slower than ${formatSpeed(LEAST_SPEED, machine.likedUnits)} and char`
          : 'one is enough by the table',
      'cut.focusOffsetMm':
        middle < 0 ? 'in the middle of the sheet: lowered by half its thickness' : 'on the face: thin sheet',
      'cut.air': 'on for every cut',
      size: 'three squares: their scatter is the kerf’s own',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}
