import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { commandFor } from '../machine/command';
import { formatLength, formatSpeed, plainNumber } from '../quantities/format';
import { responseOf } from '../stock/response';
import { cutThroughJPerMm } from '../stock/cutting';
import type { PlanProblem, Pairing } from './contract';
import { fastestFillSpeedMmPerS, runUpMm } from '../motion/move';
import { straightTimeS } from '../motion/head-motion';
import { LEAST_MARKER_MM, type FrameSettings } from './layout';
import { MARKER_MODULES } from './markers';

/** Markers and lettering stay under this share of the line energy that cuts through. */
export const MARK_SHARE_OF_CUT = 1 / 3;
/** Shares of the energy past which the family gets no darker: lettering plain to read, markers to stand out in a poor photo. */
const PLAIN_SHARE = 0.5;
const MARKER_SHARE = 0.6;
/** All four markers take no longer than this where the machine can do it. */
const MARKERS_S = 6;
/** Lines across one module of a marker: fewer than two and its bits cannot be told apart. */
const LEAST_LINES_A_MODULE = 2;
/** More than this adds nothing to a photo. */
const MOST_LINES_A_MODULE = 10;
/** A beam may come on later than it goes out by as much as this, and no more of a marker's square may be lost by that. From memory, without a source. */
const BEAM_LATE_S = 1e-4;
const LOST_OF_MODULE = 1 / 5;
/** Faster than this, corners of small letters are rounded by most heads. */
const LETTERING_TOP_MM_PER_S = 120;

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
 * How markers and lettering are burned on a pairing: by lines as wide as the spot, each with the energy of a plain mark and at most a
 * third of the line energy that cuts through. Markers are hatched: as close as the spot fills where that is quick, and else as few lines
 * as keep the four of them near six seconds, never fewer than two for each module. With the reasons.
 */
export function proposeFrame(on: Pairing): { settings: FrameSettings; reasons: { marker: string; lettering: string } } {
  const { machine, lens, stock } = on;
  const { deep } = responseOf(stock, machine).energies;
  const limit = markingLimitJPerMm(on);
  const top = sweepLimits(machine, 'horizontal');
  const spotMm = Math.max(lens.spotXMm, lens.spotYMm);
  const letterJ = Math.min(deep * PLAIN_SHARE * spotMm, limit * 0.95);
  const markerJ = Math.min(deep * MARKER_SHARE * spotMm, limit * 0.95);
  const moduleMm = LEAST_MARKER_MM / MARKER_MODULES;
  // On lines as short as a marker a faster head only spends its time on ramps; mirrors have none, but a beam that is late all the same.
  const pays =
    machine.head === 'galvo'
      ? Math.round((LOST_OF_MODULE * moduleMm) / BEAM_LATE_S)
      : fastestFillSpeedMmPerS(LEAST_MARKER_MM, top.accelerationMmPerS2);
  const marker = strokeFor(on, markerJ, Math.min(pays, top.topSpeedMmPerS), top.topSpeedMmPerS);
  const ramps =
    machine.head === 'galvo' || machine.rampPower === 'follows-speed'
      ? 0
      : 2 * runUpMm(marker.speedMmPerS, top.accelerationMmPerS2);
  const lineS =
    straightTimeS(LEAST_MARKER_MM + ramps, 0, marker.speedMmPerS, machine) +
    straightTimeS(ramps, spotMm * 2, null, machine);
  const filled = Math.floor(moduleMm / (spotMm * 0.9));
  const quick = Math.floor(MARKERS_S / (4 * MARKER_MODULES * lineS));
  const linesAModule = Math.max(LEAST_LINES_A_MODULE, Math.min(filled, quick, MOST_LINES_A_MODULE));
  const intervalMm = Math.floor((moduleMm / linesAModule) * 1e4) / 1e4;
  const lettering = strokeFor(
    on,
    letterJ,
    LETTERING_TOP_MM_PER_S,
    Math.min(top.topSpeedMmPerS, machine.topSpeedYMmPerS),
  );
  const energy = (lineJ: number): string =>
    `${plainNumber(lineJ, 2)} J/mm${lineJ >= limit * 0.94 ? `, held to a third of what cuts through (${plainNumber(limit * 3, 2)} J/mm)` : ''}`;
  return {
    settings: { marker: { ...marker, intervalMm }, lettering, words: 'short', markers: 'burned' },
    reasons: {
      marker: `${linesAModule} lines for each square of a marker, ${energy(markerJ)}: enough for the photo, and no longer than that takes`,
      lettering: `a plain mark on the spot’s ${formatLength(spotMm, machine.likedUnits)}, ${energy(letterJ)}`,
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
  if (
    !(
      settings.marker.intervalMm >= 0.01 &&
      settings.marker.intervalMm <= LEAST_MARKER_MM / MARKER_MODULES / LEAST_LINES_A_MODULE + 1e-9
    )
  )
    problems.push({
      field: 'frame.marker.intervalMm',
      message: 'Markers need two lines for each of their squares: 0.01 to 0.2 mm apart.',
    });
  return problems;
}
