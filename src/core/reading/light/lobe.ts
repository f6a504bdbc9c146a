import type { Point } from '../../geometry/point';
import { BesideTerms, type PatternFound } from '../../stats/beside-terms';
import { likelyBoxes, type Likelihood, type Range } from '../../stats/likely-boxes';

/** Light that was added as one place tells it: on a grey of which is known what it sends back, or on stock of which that is known roughly. */
export interface AddedHere extends Point {
  readonly added: number;
  readonly sigma: number;
  readonly onStock: boolean;
}

/** What may look like added light, as standard deviations. */
export interface Unlike {
  /** What bare stock sends back more or less than its record: all of it, and one blotch on it beside another. */
  readonly all: number;
  readonly blotch: number;
  /** What greys are told to have more from side to side, over one reach. */
  readonly greySlope: number;
}

/** A broad reflection over a card and the sheet around it. */
export interface Lobe {
  /** Light that was added at a place beside what was added to the greys on the average; where less was, this is below 0. */
  at(place: Point): { readonly value: number; readonly sigma: number };
  /** How likely it is that there is one at all. */
  readonly chance: number;
}

/** Places are told in so many mm from the middle: about how far a wall's or a window's reflection reaches. */
const REACH_MM = 40;
/**
 * What a lobe may be before it is seen: its middle lies anywhere within so many reaches, it falls to 1/e within a distance of this range, and adds so
 * much at its middle, a standard deviation. From memory, without a source.
 */
const MIDDLE: Range = [-1.5, 1.5];
const LOG_WIDTH: Range = [Math.log(0.5), Math.log(2)];
const HEIGHT = 0.01;
/** What was added everywhere, and is not seen for that: a standard deviation. */
const EVERYWHERE = 0.03;
/** Blotches on stock, and what is paler or darker from side to side, in reaches. */
const BLOTCH_REACH = 0.3;
/** No wall's reflection is quite a normal law: of what that makes of a place this share is unsure. By trials, in which less left more cells wrong and unmarked. */
const LIKENESS = 0.35;
/** Some wall or window shines on most photos of a workshop: so many times as likely as none. From memory, without a source. */
const ODDS = 5;
/** Of so many lobes the best is looked for, beside which places are found that are off. */
const FEW = 24;
/** What lies further off than this many sigmas weighs less, as its distance grows. Source: P. J. Huber, Ann. Math. Statist. 35 (1964) 73. */
const HUBER = 2.5;

/** A lobe's middle and the logarithms of its widths, in reaches. */
type Shape = readonly number[];

const alongAxis = (place: number, middle: number, logWidth: number): number =>
  Math.exp(-(((place - middle) / Math.exp(logWidth)) ** 2));

/** What a lobe adds at a place for each of its height. */
const lobeAt = ([x, y, logWidth, logHeight]: Shape, place: Point): number =>
  alongAxis(place.x, x!, logWidth!) * alongAxis(place.y, y!, logHeight!);

/** Lobes of many shapes at the same places: each axis by itself is the same for many of them. */
class LobesAt {
  private readonly parts = new Map<string, Float64Array>();
  constructor(private readonly places: readonly Point[]) {}

  private along(axis: 'x' | 'y', middle: number, logWidth: number): Float64Array {
    const key = `${axis} ${middle} ${logWidth}`;
    const part =
      this.parts.get(key) ?? Float64Array.from(this.places, (place) => alongAxis(place[axis], middle, logWidth));
    this.parts.set(key, part);
    return part;
  }

  of([x, y, logWidth, logHeight]: Shape): Float64Array {
    const [across, down] = [this.along('x', x!, logWidth!), this.along('y', y!, logHeight!)];
    const out = new Float64Array(across.length);
    for (let k = 0; k < out.length; k++) out[k] = across[k]! * down[k]!;
    return out;
  }
}

/** Middles of blotches that cover all stock that is told of. */
function blotchesOn(places: readonly AddedHere[]): Point[] {
  const stock = places.filter(({ onStock }) => onStock);
  const along = (axis: 'x' | 'y'): number[] => {
    const [low, high] = [Math.min(...stock.map((at) => at[axis])), Math.max(...stock.map((at) => at[axis]))];
    const count = Math.max(1, Math.round((high - low) / BLOTCH_REACH));
    return Array.from({ length: count }, (_, k) => low + ((k + 0.5) / count) * (high - low));
  };
  const downs = stock.length > 0 ? along('y') : [];
  return downs.flatMap((y) => along('x').map((x) => ({ x, y })));
}

/** What places tell but for a lobe: what was added everywhere, and what stock and greys are paler or darker by than they are told. */
function toldBeside(places: readonly AddedHere[], sigmas: readonly number[], unlike: Unlike): BesideTerms {
  const onStock =
    (of: (place: Point) => number) =>
    (place: AddedHere): number =>
      place.onStock ? of(place) : 0;
  const terms: readonly (readonly [of: (place: AddedHere) => number, prior: number])[] = [
    [() => -1, EVERYWHERE],
    [onStock(() => 1), unlike.all],
    [({ x, onStock: stock }) => (stock ? 0 : x), unlike.greySlope],
    [({ y, onStock: stock }) => (stock ? 0 : y), unlike.greySlope],
    [onStock(({ x }) => x), unlike.blotch],
    [onStock(({ y }) => y), unlike.blotch],
    ...blotchesOn(places).map((blotch) => {
      const logWidth = Math.log(BLOTCH_REACH);
      return [onStock((place) => lobeAt([blotch.x, blotch.y, logWidth, logWidth], place)), unlike.blotch] as const;
    }),
  ];
  return new BesideTerms(
    Float64Array.from(places, ({ added }) => added),
    Float64Array.from(sigmas),
    terms.map(([of]) => Float64Array.from(places, of)),
    terms.map(([, prior]) => prior),
  );
}

interface FoundLobe extends PatternFound {
  readonly logLikelihood: number;
}

/** All lobes that may be. Light is never taken away. */
function lobesIn(told: BesideTerms, lobes: LobesAt, most?: number): Likelihood<FoundLobe> {
  const find = (shape: Shape): FoundLobe => {
    const found = told.find(lobes.of(shape), HEIGHT);
    return { ...found, logLikelihood: found.height > 0 ? found.logFactor : -Infinity };
  };
  return likelyBoxes([MIDDLE, MIDDLE, LOG_WIDTH, LOG_WIDTH], find, most);
}

/**
 * The broad reflection that places on greys around a card and on its bare stock tell together: one lobe that falls off as a normal law does from where
 * it is brightest. Greys tell how much it differs from side to side, stock how much over the card, and its shape what lies between. All
 * lobes that may be are weighed by their likelihood, and none at all beside them, so that what places do not tell makes it unsure.
 * Source: J. A. Hoeting, D. Madigan, A. E. Raftery, C. T. Volinsky, Statistical Science 14 (1999) 382.
 */
export function lobeOf(places: readonly AddedHere[], middle: Point, unlike: Unlike): Lobe {
  const scaled = ({ x, y }: Point): Point => ({ x: (x - middle.x) / REACH_MM, y: (y - middle.y) / REACH_MM });
  const here = places.map((place) => ({ ...place, ...scaled(place) }));
  const sigmas = here.map(({ sigma }) => sigma);
  const lobes = new LobesAt(here);
  const first = toldBeside(here, sigmas, unlike);
  const best = lobesIn(first, lobes, FEW).boxes[0];
  const off = first
    .off(best ? lobes.of(best.at) : new Float64Array(here.length), best?.found.height ?? 0)
    .map(Math.abs);
  const weights = off.map((by) => Math.min(1, HUBER / by));
  // Where even the best lobe leaves more than noise, noise is taken to be larger.
  const noise = off.reduce((sum, by, k) => sum + weights[k]! * by ** 2, 0) / off.length;
  const held = sigmas.map((sigma, k) => sigma * Math.sqrt(Math.max(1, noise) / weights[k]!));
  const { boxes, logMean } = lobesIn(toldBeside(here, held, unlike), lobes);
  const chance = 1 / (1 + Math.exp(-logMean) / ODDS);
  return {
    chance,
    at: (place) => {
      const spot = scaled(place);
      let [value, square, likeness] = [0, 0, 0];
      for (const { at, share, found } of boxes) {
        const shown = lobeAt(at, spot);
        // Of what was added everywhere some is the lobe's own, and the greys are told without that.
        const beside = shown + found.taken[0]!;
        const weight = chance * share;
        value += weight * found.height * beside;
        square += weight * (found.height ** 2 + found.variance) * beside ** 2;
        likeness += weight * LIKENESS * found.height * shown;
      }
      return { value, sigma: Math.hypot(Math.sqrt(Math.max(0, square - value ** 2)), likeness) };
    },
  };
}
