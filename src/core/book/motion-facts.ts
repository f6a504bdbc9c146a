import type { LineDirection } from '../card/settings';
import { holdsAt, scanOffsetAt } from '../motion/lag';
import { shorterAt } from '../motion/dot-length';
import { UNTIMED, type Pace } from '../motion/pace';
import { factOf, type FactNow } from './facts';

const alongAxis = (facts: readonly FactNow[], direction: LineDirection): FactNow[] =>
  facts.filter(({ at }) => at['direction'] === direction);

/** The scan offset that was found to make lines of both ways meet, along an axis at a speed; null where nothing tells it there. */
export function knownScanOffset(
  facts: readonly FactNow[],
  direction: LineDirection,
  speedMmPerS: number,
): number | null {
  const law = factOf(alongAxis(facts, direction), 'lag');
  if (!law || law.stale.length > 0 || !holdsAt(law.value, speedMmPerS)) return null;
  // No head is placed to less than a thousandth of a millimetre.
  return Math.round(scanOffsetAt(law.value, speedMmPerS) * 1000) / 1000 + 0;
}

/** A dot that came out shorter by less than so many of its sigmas may be as long as it was drawn. */
const SHOWS = 2;

/** By how much shorter a dot was found to come out than at rest, along an axis at a speed; null where nothing tells it there, or it is none that shows. */
export function knownShorter(facts: readonly FactNow[], direction: LineDirection, speedMmPerS: number): number | null {
  const law = factOf(alongAxis(facts, direction), 'dotLength');
  if (!law || law.stale.length > 0 || !holdsAt(law.value, speedMmPerS)) return null;
  if (law.sigma !== null && Math.abs(shorterAt(law.value, law.value.toMmPerS)) <= SHOWS * law.sigma) return null;
  return Math.round(shorterAt(law.value, speedMmPerS) * 1000) / 1000 + 0;
}

/** Faster than a run-up was found at, it is asked no further than by this factor. */
const RUN_UP_REACH = 1.5;

/**
 * The run-up on each side that was found to be enough along an axis, for a speed: by its square, as a ramp of one acceleration grows, rounded up
 * to a tenth of a millimetre. Null where nothing tells it there. 6 mm at 200 mm/s: 1.5 mm at 100.
 */
export function knownRunUp(facts: readonly FactNow[], direction: LineDirection, speedMmPerS: number): number | null {
  const found = factOf(alongAxis(facts, direction), 'runUp');
  if (!found || found.stale.length > 0 || speedMmPerS > RUN_UP_REACH * found.value.speedMmPerS) return null;
  const { runUpMm, speedMmPerS: foundAt } = found.value;
  return Math.ceil(runUpMm * (speedMmPerS / foundAt) ** 2 * 10 - 1e-9) / 10 + 0;
}

/** How estimates are made on a machine: as its timed burns told, or as its record says. */
export const paceOf = (facts: readonly FactNow[]): Pace => factOf(facts, 'pace')?.value ?? UNTIMED;
