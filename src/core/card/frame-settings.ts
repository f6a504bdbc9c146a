import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { commandFor } from '../machine/command';
import { formatLength, formatSpeed, plainNumber } from '../quantities/format';
import { responseOf } from '../stock/response';
import { cutThroughJPerMm } from '../stock/cutting';
import type { PlanProblem, Pairing } from './contract';
import type { FrameSettings } from './layout';

/** Markers and lettering stay under this share of the line energy that cuts through. */
export const MARK_SHARE_OF_CUT = 1 / 3;
/** A solid mark takes this share of the energy past which the family gets no darker. */
const SOLID_SHARE = 0.85;
const MARKER_INTERVAL_MM = 0.12;
/** Faster than this, corners of small letters are rounded by most heads. */
const LETTERING_TOP_MM_PER_S = 120;

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/** The most delivered J/mm that a marking line may have here; Infinity where the stock is not cut. */
export function markingLimitJPerMm({ machine, stock }: Pairing): number {
  const cut = cutThroughJPerMm(machine, stock);
  return cut === null ? Infinity : cut * MARK_SHARE_OF_CUT;
}

interface Stroke {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
}

/** Power and speed for a line energy: the speed wanted, or faster where even the weakest that fires would be too strong. */
function strokeFor({ machine }: Pairing, jPerMm: number, wantedMmPerS: number, topMmPerS: number): Stroke {
  const weakest = Math.max(0.005, machine.lowestFiringCommand * 1.05);
  const capW = deliveredPowerW(machine, machine.powerCap);
  let speed = Math.min(wantedMmPerS, topMmPerS, capW / jPerMm);
  const weakestW = deliveredPowerW(machine, weakest);
  if (speed * jPerMm < weakestW) speed = Math.min(topMmPerS, weakestW / jPerMm);
  // Rounded so that the energy never grows: speed up, power down.
  speed = speed < 10 ? Math.ceil(speed * 10) / 10 : Math.min(topMmPerS, Math.ceil(speed));
  const powerFraction = Math.floor(commandFor(machine, speed * jPerMm) * 1000) / 1000;
  return { powerFraction: Math.min(machine.powerCap, Math.max(weakest, powerFraction)), speedMmPerS: speed };
}

/**
 * How markers and lettering are burned on a pairing: markers a solid mark by sweeps, lettering a solid mark's energy on the spot's
 * width, both at most a third of the line energy that cuts through. With the reasons.
 */
export function proposeFrame(on: Pairing): { settings: FrameSettings; reasons: { marker: string; lettering: string } } {
  const { machine, lens, stock } = on;
  const solid = responseOf(stock, machine).energies.deep * SOLID_SHARE;
  const limit = markingLimitJPerMm(on);
  const top = sweepLimits(machine, 'horizontal').topSpeedMmPerS;
  const intervalMm = Math.max(MARKER_INTERVAL_MM, round(Math.max(lens.spotXMm, lens.spotYMm) * 0.8, 3));
  const markerJ = Math.min(solid * intervalMm, limit * 0.95);
  const spotMm = Math.max(lens.spotXMm, lens.spotYMm);
  const letterJ = Math.min(solid * spotMm, limit * 0.95);
  const marker = strokeFor(on, markerJ, Math.min(top, 400), top);
  const lettering = strokeFor(on, letterJ, LETTERING_TOP_MM_PER_S, Math.min(top, machine.topSpeedYMmPerS));
  const capped = (line: number): string =>
    line >= limit * 0.94 ? `, held to a third of what cuts through (${plainNumber(limit * 3, 2)} J/mm)` : '';
  return {
    settings: { marker: { ...marker, intervalMm }, lettering },
    reasons: {
      marker: `a solid mark, ${plainNumber(markerJ / intervalMm, 2)} J/mm²${capped(markerJ)}: markers must show clearly in the photo`,
      lettering: `a solid mark on the spot’s ${formatLength(spotMm, machine.likedUnits)}, ${plainNumber(letterJ, 2)} J/mm${capped(letterJ)}`,
    },
  };
}

/** Every reason why markers or lettering cannot be burned like this, one for each field. */
export function checkFrame(settings: FrameSettings, on: Pairing): PlanProblem[] {
  const { machine } = on;
  const problems: PlanProblem[] = [];
  const limit = markingLimitJPerMm(on);
  const check = (part: 'marker' | 'lettering', word: string): void => {
    const { powerFraction, speedMmPerS } = settings[part];
    const power = `frame.${part}.powerFraction`;
    const speed = `frame.${part}.speedMmPerS`;
    if (!(powerFraction >= 0.005 && powerFraction <= machine.powerCap + 1e-9))
      problems.push({ field: power, message: `${word} power is 0.5 % to the machine’s cap.` });
    else if (!(speedMmPerS >= 0.1 && speedMmPerS <= machine.topSpeedXMmPerS + 1e-9))
      problems.push({
        field: speed,
        message: `${word} speed is ${formatSpeed(0.1, machine.likedUnits)} to the head’s top speed.`,
      });
    else {
      const line = deliveredPowerW(machine, powerFraction) / speedMmPerS;
      if (line > limit * 1.0001)
        problems.push({
          field: power,
          message: `${word} would take ${plainNumber(line, 2)} J/mm: over a third of what cuts through this sheet (${plainNumber(limit, 2)} J/mm are the most). Lower the power or go faster.`,
        });
    }
  };
  check('marker', 'Marker');
  check('lettering', 'Lettering');
  if (!(settings.marker.intervalMm >= 0.01 && settings.marker.intervalMm <= 0.5))
    problems.push({ field: 'frame.marker.intervalMm', message: 'Marker line interval is 0.01 to 0.5 mm.' });
  return problems;
}
