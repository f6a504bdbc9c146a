/** A line of cuts with the sheet left standing between them. */
export interface Perforation {
  readonly dashMm: number;
  readonly skipMm: number;
  readonly kerfMm: number;
}

/**
 * Share of a perforated line that stands: a dash burns longer by a kerf, so that as much less is left of a skip. Throws RangeError where nothing stands:
 * dashes that run into each other are a cut.
 *
 * Dashes of 3 mm, skips of 0.8, a kerf of 0.2: 0.6 of 3.8, 0.158.
 */
export function standingShare({ dashMm, skipMm, kerfMm }: Perforation): number {
  const standsMm = skipMm - kerfMm;
  if (!(dashMm > 0 && standsMm > 0))
    throw new RangeError('The cut is as wide as what shall stand between two dashes: they run into each other.');
  return standsMm / (dashMm + skipMm);
}

/** Shorter ends of dashes burn a dot, and cut nothing. */
const SHORTEST_SHARE = 0.15;

/**
 * Dashes all along a line, a skip in its middle where as many whole ones fit as make an even number, and a dash where not: what reaches past its ends is
 * left out, so that these are cut as the rest is. Pairs of places along it.
 *
 * 10 mm, dashes of 3, skips of 1: two whole ones, from 1.5 to 4.5 and from 5.5 to 8.5, and half a millimetre at either end.
 */
export function dashesAlong(
  lengthMm: number,
  { dashMm, skipMm }: Omit<Perforation, 'kerfMm'>,
): [from: number, to: number][] {
  const pitch = dashMm + skipMm;
  const count = Math.max(0, Math.floor(lengthMm / pitch + 1e-9));
  const first = (lengthMm - count * pitch) / 2 + skipMm / 2;
  return Array.from({ length: count + 2 }, (_, k): [number, number] => {
    const from = first + (k - 1) * pitch;
    return [Math.max(0, from), Math.min(lengthMm, from + dashMm)];
  }).filter(([from, to]) => to - from >= SHORTEST_SHARE * dashMm);
}
