import { parabolaThrough } from '../stats/parabola';

/** How strongly the lines of a patch show in a photo: the amplitude of their ripple over the mean. */
export interface RippleAtOffset {
  readonly offsetMm: number;
  readonly visibility: number;
  readonly sigma: number;
}

export interface FocusFit {
  /** Where lines show most, with its standard uncertainty. */
  readonly waistMm: number;
  readonly waistSigmaMm: number;
  /** So far to either side lines still show by all but a fifth. */
  readonly depthMm: number;
  /** The raised one of the two offsets at which gaps close; the waist where they are never open. */
  readonly fillMm: number;
  readonly fillSigmaMm: number;
  /** How strongly lines show at an offset, with one standard uncertainty up and down. */
  at(offsetMm: number): { readonly visibility: number; readonly low: number; readonly high: number };
  /** Those that the fit goes by. */
  readonly used: readonly RippleAtOffset[];
}

/** A ripple of so many of its sigmas tells how strong it is. */
const CLEAR = 3;
/** A parabola whose bend is so many of its sigmas has a top. */
const BENT = 3;
/** No ripple is told better than to this share of itself: where the head stood is not known better. */
const LEAST_SHARE = 0.04;
/** Far out the head's height, the bed and the sheet differ most: the logarithm of a ripple is off by this share of how far it has fallen. */
const SHARE_OF_FALL = 0.08;
/** Ripples at which gaps just close when looked at closely: plain above the one, hardly there below the other. From memory, without a source. */
const CLOSING = { from: 0.17, to: 0.08 } as const;
/** What still shows at the depth of focus. */
const AT_DEPTH = 0.8;

/** Ripples that stand clear of what noise makes. */
export const clearRipples = <Ripple extends RippleAtOffset>(patches: readonly Ripple[]): Ripple[] =>
  patches.filter(({ visibility, sigma }) => visibility > CLEAR * sigma);

/** The logarithm of a ripple, which falls with the square of the offset, with its standard uncertainty; `strongest` of those at its place. */
export function logOfRipple(
  { visibility, sigma }: RippleAtOffset,
  strongest: number,
): { readonly y: number; readonly sigma: number } {
  return {
    y: Math.log(visibility),
    sigma: Math.hypot(sigma / visibility, LEAST_SHARE, SHARE_OF_FALL * Math.log(strongest / visibility)),
  };
}

/** So far to either side of the top lines still show by all but a fifth, for a parabola of that bend. */
export const depthOfBend = (bend: number): number => Math.sqrt(Math.log(1 / AT_DEPTH) / -bend);

/**
 * Focus by how strongly lines of a fill show over the offsets: a beam's lines are of normal profile, so that the logarithm of their ripple falls
 * with the square of the beam's width, and that with the square of the offset from the waist. The waist is the parabola's top; gaps close where
 * it has fallen so far that they are no longer plain. How far each patch's offset may be off (`scatterMm`, a standard deviation) makes a ripple as
 * unsure as the law is steep there, and all of it as unsure as what offsets count from. Null for fewer than three patches that show their lines, and where the top lies beyond them
 * or does not stand out. Source of the beam's law: Self, Applied Optics 22 (1983) 658.
 */
export function focusOf(patches: readonly RippleAtOffset[], scatterMm = 0): FocusFit | null {
  const used = clearRipples(patches);
  const strongest = Math.max(...used.map(({ visibility }) => visibility));
  const points = used.map((ripple) => ({ x: ripple.offsetMm, ...logOfRipple(ripple, strongest) }));
  const first = parabolaThrough(points);
  if (!first) return null;
  const steepAt = (x: number): number => 2 * first.bend * (x - first.x);
  const top = parabolaThrough(
    points.map((point) => ({ ...point, sigma: Math.hypot(point.sigma, scatterMm * steepAt(point.x)) })),
  );
  if (!top || !(top.bend < -BENT * top.bendSigma)) return null;
  const offsets = used.map(({ offsetMm }) => offsetMm);
  if (top.x < Math.min(...offsets) || top.x > Math.max(...offsets)) return null;
  const height = top.at(top.x).y;
  /** How far from the top a ripple has fallen to a level. */
  const awayMm = (level: number): number => Math.sqrt(Math.max(0, height - Math.log(level)) / -top.bend);
  const [from, to] = [awayMm(CLOSING.from), awayMm(CLOSING.to)];
  // Where the top itself has no plain gaps they are closed from there on.
  const away = from > 0 ? (from + to) / 2 : 0;
  const byBend = (away * top.bendSigma) / (2 * -top.bend);
  return {
    waistMm: top.x,
    waistSigmaMm: Math.hypot(top.sigma, scatterMm),
    depthMm: depthOfBend(top.bend),
    fillMm: top.x + away,
    // Uniform between where they begin to close and where they are gone.
    fillSigmaMm: Math.hypot(top.sigma, scatterMm, byBend, away === 0 ? to / Math.sqrt(3) : (to - from) / Math.sqrt(12)),
    at: (offsetMm) => {
      const { y, sigma } = top.at(offsetMm);
      return { visibility: Math.exp(y), low: Math.exp(y - sigma), high: Math.exp(y + sigma) };
    },
    used,
  };
}
