import { gaussianProcess, type GaussianProcess, type Kernel } from '../stats/gaussian-process';
import { leastSquares } from '../stats/least-squares';
import { weightedLine } from '../stats/weighted-line';

/** How the levels of an edge are counted: by ratio, evenly through zero (an offset, about whose best the mark is strongest), or in kinds without a size. */
export type Scale = 'ratio' | 'offset' | 'kinds';

/** What one pair of levels marked: the mean of its repeats. */
export interface SurfacePatch {
  readonly across: number;
  readonly down: number;
  /** L* by which it differs from bare stock, the way that marks go on this card. */
  readonly strength: number;
  /** Standard uncertainty of one reading. */
  readonly sigma: number;
}

/** How much of one edge's setting is worth how much of the other's at equal tone. */
export interface Exchange {
  /** What the setting across is multiplied by, to look the same, when the one down is halved. */
  readonly times: number;
  /** Standard uncertainty of its logarithm. */
  readonly logSigma: number;
}

export interface DarknessSurface {
  /** Strength of a pair of levels within the card's own, and how unsure it is; how much patches differ from one another is not in it. */
  at(across: number, down: number): { readonly strength: number; readonly sigma: number };
  /** Standard deviation, L*, by which patches of the same settings differ. */
  readonly scatter: number;
  /** Root mean square, L*, by which each patch is missed when it is foretold by all the others. */
  readonly offL: number;
  /** Whether patches are foretold well enough to take settings from the surface. */
  readonly trusted: boolean;
  /** At a strength; null where an edge has no ratio, and where too little of the card is as strong or it is not clear. */
  exchangeAt(strength: number): Exchange | null;
  /** Strengths of the weakest and the strongest level. */
  readonly range: { readonly weakest: number; readonly strongest: number };
}

/** Fewer levels than these make no surface. */
export const LEAST_LEVELS = 9;
/** A surface that misses its own patches by more than this, L*, or this share of the card's range, is not to be taken at its word. */
const MISSES = { lightness: 3, share: 0.12 } as const;
/** What one setting is worth of the other is told where a factor of two is known to within this factor, one sigma. */
const CLEAR_LOG = 0.2;
/** So many places along an edge are looked at for where a tone lies. */
const LOOKS = 60;
/** What hyperparameters are looked at, L* and shares of half an edge; by the likelihood of the patches under each. */
const AMPLITUDES = [0.3, 1, 2.5, 6];
const REACHES = [0.4, 0.8, 1.6];
const SCATTERS = [0.2, 0.4, 0.8, 1.5, 3];
/** The likelihood is asked of no more levels than this, evenly taken: it grows with their cube. */
const MOST_ASKED = 64;
/** How sure the shape's parameters are before anything was burned: wide. */
const PRIOR = { slope: 4, curve: 4, middle: 4, strongest: 1 } as const;

interface Level {
  readonly place: readonly [number, number];
  readonly strength: number;
  readonly count: number;
  readonly sigma: number;
  /** Sum of squares of its repeats about their mean. */
  readonly within: number;
}

interface Edge {
  readonly scale: Scale;
  /** Levels to -1 … 1. */
  readonly to: (level: number) => number;
  /** How far apart a factor of two lies; NaN where levels have no ratio. */
  readonly perOctave: number;
}

function edgeOf(levels: readonly number[], scale: Scale): Edge | null {
  const counted = (level: number): number => (scale === 'ratio' ? Math.log(level) : level);
  const ends = [Math.min(...levels), Math.max(...levels)].map(counted) as [number, number];
  const half = (ends[1] - ends[0]) / 2;
  if (!(half > 0)) return null;
  const middle = (ends[0] + ends[1]) / 2;
  return {
    scale,
    to: (level) => (counted(level) - middle) / half,
    perOctave: scale === 'ratio' ? Math.LN2 / half : NaN,
  };
}

function levelsOf(patches: readonly SurfacePatch[], across: Edge, down: Edge): Level[] {
  const groups = new Map<string, SurfacePatch[]>();
  for (const patch of patches) {
    const key = `${patch.across} ${patch.down}`;
    groups.set(key, [...(groups.get(key) ?? []), patch]);
  }
  return [...groups.values()].map((own) => {
    const strength = own.reduce((sum, patch) => sum + patch.strength, 0) / own.length;
    return {
      place: [across.to(own[0]!.across), down.to(own[0]!.down)],
      strength,
      count: own.length,
      sigma: Math.sqrt(own.reduce((sum, patch) => sum + patch.sigma ** 2, 0)) / own.length,
      within: own.reduce((sum, patch) => sum + (patch.strength - strength) ** 2, 0),
    };
  });
}

/** Terms of exposure at a place: what is constant, both edges, and the bend of edges about whose best the mark is strongest. */
function termsAt([x, y]: readonly [number, number], across: Edge, down: Edge): number[] {
  return [1, x, y, ...(across.scale === 'offset' ? [x * x] : []), ...(down.scale === 'offset' ? [y * y] : [])];
}

/** How far from none the weight of each term may lie. */
const priorsOf = (across: Edge, down: Edge): number[] =>
  termsAt([0, 0], across, down).map((_, at) => (at === 0 ? PRIOR.middle : at < 3 ? PRIOR.slope : PRIOR.curve));

/** The shape that marks follow: none, then growing with exposure, then as strong as they get. First parameter: how strong that is. */
const shapeOf = (strongest: number, exposure: number): number => strongest / (1 + Math.exp(-exposure));

interface Shape {
  readonly strongest: number;
  readonly weights: readonly number[];
}

function shapeThrough(levels: readonly Level[], across: Edge, down: Edge): Shape | null {
  const strongest = Math.max(...levels.map(({ strength }) => strength));
  if (!(strongest > 0)) return null;
  const terms = levels.map(({ place }) => termsAt(place, across, down));
  // So that a level counts by what a shape can be expected to get right, not by how sharply it was read.
  const sigmas = levels.map(({ sigma }) => Math.hypot(sigma, 1));
  const priors = priorsOf(across, down);
  const fit = leastSquares(
    (parameters) => {
      const [logStrongest, ...weights] = parameters as [number, ...number[]];
      const top = Math.exp(logStrongest);
      const residuals: number[] = [];
      const jacobian: number[][] = [];
      terms.forEach((own, at) => {
        const exposure = own.reduce((sum, term, place) => sum + term * weights[place]!, 0);
        const value = shapeOf(top, exposure);
        const slope = value * (1 - value / top);
        residuals.push((value - levels[at]!.strength) / sigmas[at]!);
        jacobian.push([value, ...own.map((term) => slope * term)].map((by) => by / sigmas[at]!));
      });
      residuals.push((logStrongest - Math.log(strongest)) / PRIOR.strongest);
      jacobian.push([1 / PRIOR.strongest, ...weights.map(() => 0)]);
      weights.forEach((weight, at) => {
        residuals.push(weight / priors[at]!);
        jacobian.push([0, ...weights.map((_, place) => (place === at ? 1 / priors[at]! : 0))]);
      });
      return { residuals, jacobian };
    },
    [Math.log(strongest), ...terms[0]!.map(() => 0)],
  );
  if (fit.stopped === 'too-many-steps') return null;
  const [logStrongest, ...weights] = fit.parameters as [number, ...number[]];
  return { strongest: Math.exp(logStrongest), weights };
}

/** Scatter by repeats alone, where there are enough of them to tell; what readings themselves scatter by is taken out. */
function scatterOfRepeats(levels: readonly Level[]): number | null {
  const degrees = levels.reduce((sum, { count }) => sum + count - 1, 0);
  if (degrees < 6) return null;
  const variance = levels.reduce((sum, { within }) => sum + within, 0) / degrees;
  const read = levels.reduce((sum, { sigma, count }) => sum + sigma ** 2 * count, 0) / levels.length;
  return Math.sqrt(Math.max(SCATTERS[0]! ** 2, variance - read));
}

/**
 * How strong marks are over two settings, as a surface with its doubt: they grow with exposure, a weighted sum of both settings' logarithms (an offset
 * bends about its best), and saturate; what patches show beside that shape is followed smoothly between them, as far as their own likelihood bears
 * out. Doubt grows where nothing was burned, and by what patches are missed when foretold by the others. Null for fewer than nine levels, fewer than two
 * along an edge, or no mark. Throws RangeError for a sigma of 0 or less and for a level by ratio that is not above 0.
 *
 * Source of the parts: P^p / v^q as exposure, common practice; kriging about a trend, Rasmussen & Williams (2006), 2.7 and 5.4.
 */
export function darknessSurface(
  patches: readonly SurfacePatch[],
  scales: { readonly across: Scale; readonly down: Scale },
): DarknessSurface | null {
  for (const { across, down, sigma } of patches) {
    if (!(sigma > 0)) throw new RangeError(`invalid sigma: ${sigma}`);
    if ((scales.across === 'ratio' && !(across > 0)) || (scales.down === 'ratio' && !(down > 0)))
      throw new RangeError(`invalid level: ${across}, ${down}`);
  }
  if (patches.length === 0) return null;
  const across = edgeOf(
    patches.map((patch) => patch.across),
    scales.across,
  );
  const down = edgeOf(
    patches.map((patch) => patch.down),
    scales.down,
  );
  if (!across || !down) return null;
  const levels = levelsOf(patches, across, down);
  if (levels.length < LEAST_LEVELS) return null;
  const shape = shapeThrough(levels, across, down);
  if (!shape) return null;

  const { strongest, weights } = shape;
  const exposureAt = (place: readonly [number, number]): number =>
    termsAt(place, across, down).reduce((sum, term, at) => sum + term * weights[at]!, 0);
  const shapeAt = (place: readonly [number, number]): number => shapeOf(strongest, exposureAt(place));
  // How the shape moves with each of its parameters is what kriging may add to it: their doubt is in every foretold value.
  const basisAt = (place: readonly [number, number]): number[] => {
    const value = shapeAt(place);
    const slope = value * (1 - value / strongest);
    return [value, ...termsAt(place, across, down).map((term) => slope * term)];
  };
  const fitted = (own: readonly Level[], kernel: Kernel, scatter: number): GaussianProcess =>
    gaussianProcess(
      own.map(({ place }) => place),
      own.map(({ strength, place }) => strength - shapeAt(place)),
      own.map(({ sigma, count }) => Math.hypot(sigma, scatter / Math.sqrt(count))),
      own.map(({ place }) => basisAt(place)),
      kernel,
      [PRIOR.strongest, ...priorsOf(across, down)],
    );
  const asked = levels.filter(
    (_, at) => levels.length <= MOST_ASKED || at % Math.ceil(levels.length / MOST_ASKED) === 0,
  );
  const told = scatterOfRepeats(levels);
  let best: { kernel: Kernel; scatter: number; logLikelihood: number } | null = null;
  for (const amplitude of AMPLITUDES)
    for (const reach of REACHES)
      for (const scatter of told === null ? SCATTERS : [told]) {
        const kernel = { amplitude, reach };
        const { logLikelihood } = fitted(asked, kernel, scatter);
        if (best === null || logLikelihood > best.logLikelihood) best = { kernel, scatter, logLikelihood };
      }
  const { kernel, scatter } = best!;
  const process = fitted(levels, kernel, scatter);

  const missed = process.withoutItself().map(({ value, sigma }, at) => {
    const { strength, place } = levels[at]!;
    const by = strength - shapeAt(place) - value;
    return { by, of: by / sigma };
  });
  const rms = (values: readonly number[]): number =>
    Math.sqrt(values.reduce((sum, value) => sum + value ** 2, 0) / values.length);
  const offL = rms(missed.map(({ by }) => by));
  const wider = Math.max(1, rms(missed.map(({ of }) => of)));
  const strengths = levels.map(({ strength }) => strength);
  const range = { weakest: Math.min(...strengths), strongest: Math.max(...strengths) };
  const at = (place: readonly [number, number]): { strength: number; sigma: number } => {
    const { value, sigma } = process.at(place, basisAt(place));
    return { strength: shapeAt(place) + value, sigma: wider * sigma };
  };
  const rows = [...new Set(levels.map(({ place }) => place[1]))];
  return {
    at: (side, low) => at([across.to(side), down.to(low)]),
    scatter,
    offL,
    trusted: offL <= Math.max(MISSES.lightness, MISSES.share * (range.strongest - range.weakest)),
    exchangeAt: (strength) => exchangeAt(strength, at, rows, across, down),
    range,
  };
}

/** By a straight line, in logarithms, through the places of one strength: one for each level of the edge down that has it. */
function exchangeAt(
  strength: number,
  at: (place: readonly [number, number]) => { strength: number; sigma: number },
  rows: readonly number[],
  across: Edge,
  down: Edge,
): Exchange | null {
  if (!(across.perOctave > 0 && down.perOctave > 0)) return null;
  const step = 2 / LOOKS;
  const places = rows.flatMap((y) => {
    let before = at([-1, y]).strength;
    for (let look = 1; look <= LOOKS; look++) {
      const x = -1 + look * step;
      const now = at([x, y]).strength;
      if (before < strength !== now < strength) {
        const slope = (now - before) / step;
        const off = (strength - now) / slope;
        return [
          {
            x: y / down.perOctave,
            y: (x + off) / across.perOctave,
            sigma: at([x, y]).sigma / Math.abs(slope) / across.perOctave,
          },
        ];
      }
      before = now;
    }
    return [];
  });
  if (places.length < 3) return null;
  const line = weightedLine(places)!;
  const logSigma = Math.LN2 * line.slopeSigma * Math.max(1, line.misfit);
  return logSigma <= CLEAR_LOG ? { times: 2 ** -line.slope, logSigma } : null;
}
