import { sweepLimits, type Machine } from '../machine/machine';
import { plainNumber, formatDuration } from '../quantities/format';
import { sweepRunUpMm } from './path';
import type { BurnSettings } from './settings';
import { countIn } from './shape';

/** How large a card's work is at the most: by arithmetic, before a line of it is drawn. */
export interface Bound {
  /** Lines of its G-code. */
  readonly lines: number;
  readonly seconds: number;
  /** Bytes of its G-code. */
  readonly bytes: number;
}

/** A card past one of these is refused. */
export const BOUND_LIMITS: Bound = { lines: 250_000, seconds: 6 * 3600, bytes: 12_000_000 };

/** Longest usual line of a program. */
const BYTES_A_LINE = 44;
/** Longest usual line of a program that says where a run of dots ends. */
const BYTES_A_DOT = 28;
/** Frame of any card: four markers of fifty lines each, lettering of some hundred strokes. */
const FRAME: Bound = { lines: 4000, seconds: 180, bytes: 4000 * BYTES_A_LINE };

/** Sum of the work of a card's parts. */
export const sumOfBounds = (bounds: readonly Bound[]): Bound =>
  bounds.reduce(
    (total, bound) => ({
      lines: total.lines + bound.lines,
      seconds: total.seconds + bound.seconds,
      bytes: total.bytes + bound.bytes,
    }),
    { lines: 0, seconds: 0, bytes: 0 },
  );

const timesOver = (count: number, lines: number, seconds: number): Bound => ({
  lines: count * lines,
  seconds: count * seconds,
  bytes: count * lines * BYTES_A_LINE,
});

/** Lines that name a part of the card and set its air and focus. */
const PART_LINES = 6;

const slowestAxis = ({ accelerationXMmPerS2, accelerationYMmPerS2 }: Machine): number =>
  Math.min(accelerationXMmPerS2, accelerationYMmPerS2);

/** Travel to a part of the card: generously, from far away. */
const travelS = (widthMm: number, heightMm: number, machine: Machine): number =>
  2 * Math.sqrt((widthMm + heightMm + 200) / slowestAxis(machine));

/**
 * Upper bound of `count` rectangles filled alike: height over interval, times passes, with a generous ramp and step for each line.
 *
 * 10 squares of 5 mm at 0.1 mm and 2 passes: 10 * (50 * 2 * 4 + 6) = 4060 lines
 */
export function boundOfFills(
  count: number,
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
  settings: BurnSettings,
  machine: Machine,
): Bound {
  const { speedMmPerS, intervalMm, direction, lineAngleDeg } = settings;
  const angle = ((direction === 'horizontal' ? 0 : 90) + lineAngleDeg) * (Math.PI / 180);
  const [cos, sin] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const across = widthMm * sin + heightMm * cos;
  const along = widthMm * cos + heightMm * sin;
  const linesOf = (mm: number): number => Math.max(1, Math.floor(mm / intervalMm + 1e-9));
  const sweeps = (linesOf(across) + (settings.crossHatch ? linesOf(along) : 0)) * settings.passes;
  const limits = sweepLimits(machine, direction);
  const speed = Math.min(speedMmPerS, limits.topSpeedMmPerS);
  const runUp = sweepRunUpMm(settings, machine);
  const delaysS = machine.galvo ? 3 * (machine.galvo.jumpDelayS + machine.galvo.markDelayS) : 0;
  const rampS = machine.galvo ? 0 : (2 * speed) / limits.accelerationMmPerS2;
  const jumpS = machine.galvo ? (along + across) / machine.galvo.jumpSpeedMmPerS : 0;
  const stepS = 2 * Math.sqrt((intervalMm + 2 * runUp) / slowestAxis(machine)) + delaysS + jumpS;
  const longest = settings.crossHatch ? Math.max(along, across) : along;
  const sweepS = (longest + 2 * runUp) / speed + rampS + stepS;
  // A sweep is a rapid to its start, a run-up, the mark and a run-out.
  return timesOver(count, 4 * sweeps + PART_LINES, sweeps * sweepS + travelS(widthMm, heightMm, machine));
}

/**
 * Upper bound of `count` rectangles of dots alike: as a fill, and in each line a stretch and a gap for every two dots at the most, which is what a
 * checkerboard has.
 */
export function boundOfDots(
  count: number,
  size: { readonly widthMm: number; readonly heightMm: number },
  settings: BurnSettings,
  machine: Machine,
): Bound {
  const fills = boundOfFills(count, size, settings, machine);
  const lies = settings.direction === 'horizontal';
  const along = countIn(lies ? size.widthMm : size.heightMm, settings.intervalMm);
  const across = countIn(lies ? size.heightMm : size.widthMm, settings.intervalMm);
  const more = count * across * settings.passes * along;
  return { ...fills, lines: fills.lines + more, bytes: fills.bytes + more * BYTES_A_DOT };
}

/**
 * Upper bound of a rectangle of which each line is burned in so many stretches at the most: as a fill, and a stretch and a gap for each of them.
 */
export function boundOfRuns(
  size: { readonly widthMm: number; readonly heightMm: number },
  runsALine: number,
  settings: BurnSettings,
  machine: Machine,
): Bound {
  const fills = boundOfFills(1, size, settings, machine);
  const across = countIn(settings.direction === 'horizontal' ? size.heightMm : size.widthMm, settings.intervalMm);
  const more = 2 * across * settings.passes * runsALine;
  return { ...fills, lines: fills.lines + more, bytes: fills.bytes + more * BYTES_A_DOT };
}

/** Followed lines that are alike: how many, how long each, in how many corners, within what square. */
export interface AlikeLines {
  readonly count: number;
  readonly lengthMm: number;
  readonly corners: number;
  readonly reachMm: number;
}

/** Upper bound of lines that are followed alike: their length, a full stop at every corner, and travel to each. */
export function boundOfLines(
  { count, lengthMm, corners, reachMm }: AlikeLines,
  { speedMmPerS, passes }: Pick<BurnSettings, 'speedMmPerS' | 'passes'>,
  machine: Machine,
): Bound {
  const speed = Math.min(speedMmPerS, machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
  const comeS = travelS(reachMm, reachMm, machine);
  const passS = lengthMm / speed + ((corners + 2) * speed) / slowestAxis(machine) + comeS;
  return timesOver(count, (corners + 2) * passes + PART_LINES, passes * passS + comeS);
}

/** A card's work with its frame around what its kind draws. */
export const withFrame = (drawn: Bound): Bound => sumOfBounds([FRAME, drawn]);

/** The frame of a station, which is small. */
const STATION_FRAME: Bound = { lines: 2200, seconds: 60, bytes: 2200 * BYTES_A_LINE };

/** A card's work where it stands in several places: what its kind draws, and the frames of all places but the first, which every card has. */
export const withStationFrames = (drawn: Bound, stations: number): Bound =>
  sumOfBounds([drawn, ...Array.from({ length: stations - 1 }, () => STATION_FRAME)]);

/** By how much a bound goes past the limits: 1 when it keeps them all. */
export function excessOf(bound: Bound): number {
  return Math.max(
    1,
    bound.lines / BOUND_LIMITS.lines,
    bound.seconds / BOUND_LIMITS.seconds,
    bound.bytes / BOUND_LIMITS.bytes,
  );
}

/** What is too much about a bound, in words. */
export function excessWords(bound: Bound): string {
  const over: string[] = [];
  if (bound.lines > BOUND_LIMITS.lines)
    over.push(
      `about ${plainNumber(bound.lines, 2)} lines of program (${plainNumber(BOUND_LIMITS.lines, 3)} are the most)`,
    );
  if (bound.seconds > BOUND_LIMITS.seconds)
    over.push(
      `up to ${formatDuration(bound.seconds)} of burning (${formatDuration(BOUND_LIMITS.seconds)} are the most)`,
    );
  if (over.length === 0 && bound.bytes > BOUND_LIMITS.bytes)
    over.push(
      `${plainNumber(bound.bytes / 1e6, 2)} MB of program (${plainNumber(BOUND_LIMITS.bytes / 1e6, 2)} are the most)`,
    );
  return over.join(' and ');
}
