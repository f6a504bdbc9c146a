import { sweepLimits, type Machine } from '../machine/machine';
import { plainNumber, formatDuration } from '../quantities/format';
import { burnRunUpMm } from './path';
import { boxOfShape, type Burn } from './shape';

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
/** Frame of any card: four markers of fifty lines each, lettering of some hundred strokes. */
const FRAME: Bound = { lines: 4000, seconds: 180, bytes: 4000 * BYTES_A_LINE };

const sum = (bounds: readonly Bound[]): Bound =>
  bounds.reduce(
    (total, bound) => ({
      lines: total.lines + bound.lines,
      seconds: total.seconds + bound.seconds,
      bytes: total.bytes + bound.bytes,
    }),
    { lines: 0, seconds: 0, bytes: 0 },
  );

/** Upper bound of one burn: its area over the interval, or its length, times passes; ramps and travel generously. */
function boundOfBurn(burn: Burn, machine: Machine): Bound {
  const { shape, settings } = burn;
  const { speedMmPerS, intervalMm, direction, passes } = settings;
  const box = boxOfShape(shape);
  const travelS =
    2 *
    Math.sqrt((box.width + box.height + 200) / Math.min(machine.accelerationXMmPerS2, machine.accelerationYMmPerS2));
  if (shape.do === 'follow') {
    const corners = shape.lines.reduce((count, line) => count + line.length + 2, 0);
    const slowest = Math.min(machine.accelerationXMmPerS2, machine.accelerationYMmPerS2);
    let lengthMm = 0;
    for (const line of shape.lines)
      for (let k = 1; k < line.length; k++)
        lengthMm += Math.hypot(line[k]!.x - line[k - 1]!.x, line[k]!.y - line[k - 1]!.y);
    const speed = Math.min(speedMmPerS, machine.topSpeedXMmPerS, machine.topSpeedYMmPerS);
    return {
      lines: corners * passes + 6,
      seconds: passes * (lengthMm / speed + (corners * speed) / slowest + shape.lines.length * travelS) + travelS,
      bytes: (corners * passes + 6) * BYTES_A_LINE,
    };
  }
  const horizontal = direction === 'horizontal';
  const across = horizontal ? box.height : box.width;
  const along = horizontal ? box.width : box.height;
  const sweeps = Math.max(1, Math.floor(across / intervalMm + 1e-9)) * passes;
  const limits = sweepLimits(machine, direction);
  const speed = Math.min(speedMmPerS, limits.topSpeedMmPerS);
  // Half of a region's outlines, at the most, begin a lit stretch on one line.
  const stretches = Math.max(1, Math.ceil(shape.area.reduce((count, ring) => count + ring.length, 0) / 4));
  const perSweep = 1 + 2 * stretches + 1;
  const runUp = burnRunUpMm(burn, machine);
  const stepS =
    2 * Math.sqrt((intervalMm + 2 * runUp) / Math.min(machine.accelerationXMmPerS2, machine.accelerationYMmPerS2));
  return {
    lines: sweeps * perSweep + 6,
    seconds: sweeps * ((along + 2 * runUp) / speed + (2 * speed) / limits.accelerationMmPerS2 + stepS) + travelS,
    bytes: (sweeps * perSweep + 6) * BYTES_A_LINE,
  };
}

/** Upper bound of a card of these burns, its frame included. */
export function boundOfBurns(burns: readonly Burn[], machine: Machine): Bound {
  return sum([FRAME, ...burns.map((burn) => boundOfBurn(burn, machine))]);
}

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
