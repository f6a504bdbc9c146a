import { plainNumber } from '../quantities/format';
import type { SourceKind } from './machine';

/** Hours that a source burned on a day. */
export interface BurnedOn {
  /** The day, ISO. */
  readonly at: string;
  readonly hours: number;
}

/**
 * Hours of burning after which a source of a kind may be weaker than it was by a few per cent: what was found before is looked at again. Tubes age
 * soonest (common practice: retest with an old tube), a diode is said to last 8000 to 9000 hours at full power. From memory, without a source.
 */
export const AGES_AFTER_H: Readonly<Record<SourceKind, number>> = {
  'co2-glass': 200,
  'co2-rf': 1500,
  'blue-diode': 800,
  fibre: 4000,
  uv: 1000,
};

/** Hours burned on days that began after a moment. */
export const hoursSince = (burned: readonly BurnedOn[], since: string): number =>
  burned.filter(({ at }) => at > since).reduce((sum, { hours }) => sum + hours, 0);

/** Why something that was found at a moment may hold no longer, by what its source burned since; empty where that is little. */
export function ageReasons(kind: SourceKind, burned: readonly BurnedOn[], since: string): string[] {
  const hours = hoursSince(burned, since);
  return hours >= AGES_AFTER_H[kind] ? [`its source has burned ${plainNumber(hours, 2)} h since`] : [];
}
