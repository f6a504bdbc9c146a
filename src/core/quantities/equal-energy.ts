/** What decides how much energy a place gets: as a share of full power, by the speed, the passes and how far apart lines lie. */
export interface EnergySettings {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  /** Null for cuts and single lines: their energy is counted along the line alone. */
  readonly intervalMm: number | null;
}

/**
 * The speed at which other power, passes and line interval lay down as much energy: along the line, or over the area where both have an interval. As if the
 * source gave what its percentages say. Equal energy cuts and engraves about alike (common practice): a first guess to be tested. Throws RangeError for
 * values that are not above zero, and for an interval on one side only.
 *
 * 100 % at 500 mm/min, now 80 %: 400 mm/min
 */
export function speedForEqualEnergy(from: EnergySettings, to: Omit<EnergySettings, 'speedMmPerS'>): number {
  const all = [
    from.powerFraction,
    from.speedMmPerS,
    from.passes,
    to.powerFraction,
    to.passes,
    from.intervalMm ?? 1,
    to.intervalMm ?? 1,
  ];
  if (all.some((value) => !(value > 0)))
    throw new RangeError('invalid settings: power, speed, passes and intervals are above zero');
  if ((from.intervalMm === null) !== (to.intervalMm === null))
    throw new RangeError('invalid settings: a line and an area have no energy in common');
  return (
    (from.speedMmPerS * to.powerFraction * to.passes * (from.intervalMm ?? 1)) /
    (from.powerFraction * from.passes * (to.intervalMm ?? 1))
  );
}
