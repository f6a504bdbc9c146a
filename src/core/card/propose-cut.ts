import { deliveredPowerW, type Machine } from '../machine/machine';
import { formatLength, formatPower, formatSpeed } from '../quantities/format';
import { familyOf } from '../stock/families';
import { thicknessOf } from '../stock/stock';
import type { Pairing } from './contract';
import { PLAIN_EXTRAS, type BurnSettings } from './settings';

/** Slower than this a cut chars; more passes are taken instead (common practice). */
export const LEAST_CUT_SPEED = 4;
const MOST_PASSES = 8;
/** Sheets thicker than this are cut with the focus in their middle (common practice). */
const MIDDLE_FROM_MM = 3;
/** Lowered further than this, many heads come near the work. */
const LOWEST_MM = 3;

/** The fastest that is proposed for cuts: corners are taken at a full stop. */
export const fastestCutMmPerS = ({ topSpeedXMmPerS, topSpeedYMmPerS }: Machine): number =>
  Math.min(topSpeedXMmPerS, topSpeedYMmPerS) * 0.5;

/** Cutting speeds are told to a whole mm/s, below ten to a tenth, and never faster than asked for. */
export const roundedCutSpeed = (mmPerS: number): number =>
  mmPerS < 10 ? Math.floor(mmPerS * 10) / 10 : Math.floor(mmPerS);

/** As few passes at the cap as lay down so much line energy and are not so slow that they char. Throws RangeError `invalid pairing: …` for more than eight. */
export function cutPasses({ machine, stock }: Pairing, lineJPerMm: number): number {
  const passes = Math.max(1, Math.ceil((lineJPerMm * LEAST_CUT_SPEED) / deliveredPowerW(machine, machine.powerCap)));
  if (passes > MOST_PASSES)
    throw new RangeError(
      `invalid pairing: ${formatLength(thicknessOf(stock).meanMm, machine.likedUnits, 3)} ${familyOf(stock.family).name.toLowerCase()} would take ${passes} passes; not with this machine`,
    );
  return passes;
}

/** What every cut starts from: the cap, air, and the focus by the sheet's thickness; with reasons under `path`. */
export function cutConstants(
  { machine, stock }: Pairing,
  path: string,
): { readonly settings: Omit<BurnSettings, 'speedMmPerS' | 'passes'>; readonly reasons: Record<string, string> } {
  const thickness = thicknessOf(stock).meanMm;
  const middle = thickness > MIDDLE_FROM_MM ? -Math.min(LOWEST_MM, Math.round((thickness / 2) * 10) / 10) : 0;
  return {
    settings: {
      powerFraction: machine.powerCap,
      intervalMm: 0.1,
      focusOffsetMm: middle,
      air: machine.airAssist === 'none' ? 'off' : 'on',
      direction: 'horizontal',
      bothWays: true,
      ...PLAIN_EXTRAS,
    },
    reasons: {
      [`${path}.powerFraction`]: `the machine’s cap of ${formatPower(machine.powerCap)}`,
      [`${path}.focusOffsetMm`]:
        middle < 0 ? 'in the middle of the sheet: lowered by half its thickness' : 'on the face: thin sheet',
      [`${path}.air`]: 'on for every cut',
    },
  };
}

/** Why so many passes are proposed. */
export const passesReason = (passes: number, { machine }: Pairing): string =>
  passes > 1
    ? `fewer would be slower than ${formatSpeed(LEAST_CUT_SPEED, machine.likedUnits)} and char`
    : 'one is enough by the table';
