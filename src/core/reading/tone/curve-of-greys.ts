import type { Point } from '../../geometry/point';
import { meanAndSpread } from '../../stats/robust';
import type { SeenGrey, SheetGreys } from '../sheet/sheet-greys';
import { placeBasis } from './place-terms';
import { TRUE_TO_LIGHT } from './undone-tones';
import { asStored, curveOfEquations, Splines, type ToneCurve, type ToneEquation } from './tone-spline';

/** Fewer greys than half of a sheet's leave too much open. */
const FEWEST_GREYS = 18;
/** Patches are large and even: of a bend less is left than between two photos of a card. */
const UNDONE_SHARE = 0.02;
/** No print is evener than this share, nor is what a reflection adds told to less by the second order of its place. */
const PRINT_SIGMA = 0.008;
/** Tones that greys must span, as shares of full scale, to tell a curve. */
const LEAST_SPAN = 0.35;

/**
 * A bent curve is steeper or flatter at its dark end than it is told by this share of its bend: all ink under less light then looks lit by something
 * else. By trials with phones' curves. What a camera that is true to light seems to bend is light that was added to all greys alike.
 */
const BENT_SHARE = 0.06;
/** Light that was added is told by turns, as it is no term of a logarithm's sum; so many settle it. */
const TURNS = 4;
/** A grey is taken to send back this share of itself at the least, however much less than elsewhere was added to it. */
const LEAST_LEFT = 0.3;
/** Light by channel comes first among a curve's other unknowns, then light by place, then added light by place. */
const CHANNELS = 3;
const PLACE_TERMS = 5;

/** A grey that lies further off in any channel, as a logarithm, is hidden or blinded. */
const MOST_OFF = 0.5;

/** What a curve leaves of the three channels of one of its greys. */
const ofGrey = (residuals: Float64Array, k: number): Float64Array =>
  residuals.subarray(CHANNELS * k, CHANNELS * (k + 1));

/** What one grey tells of a curve, by channel: with what was added to it by the turn before, or with no added light at all. */
function equationsOf(
  { rgb }: SeenGrey,
  reflectance: readonly [number, number, number],
  terms: readonly number[],
  added: number | null,
  splines: Splines,
): ToneEquation[] {
  return rgb.map((tone, channel) => {
    const grey = reflectance[channel]!;
    const before = added ?? 0;
    const sent = Math.max(LEAST_LEFT * grey, grey + before);
    const ofChannel = [0, 1, 2].map((other) => (other === channel ? 1 : 0));
    // ln(grey + added), straight about what was added by the turn before.
    const ofAdded = added === null ? [] : terms.map((term) => -term / sent);
    return {
      tones: splines.of(tone),
      others: [...ofChannel, ...terms, ...ofAdded],
      wanted: Math.log(sent) - before / sent - asStored(tone),
      clear: 1,
    };
  });
}

/** A tone curve, and the light that it tells the paper to send back. */
export interface GreysCurve {
  readonly curve: ToneCurve;
  /** By how much each channel of each grey lies off it, as a logarithm, in no order; of those that lie far from it, off the curve with no added light. */
  readonly residuals: readonly number[];
  /** Natural logarithms by channel, at a place of the sheet in mm, up to the curve's own constant; without what was added. */
  paperLightAt(place: Point): readonly [number, number, number];
  /** What was added to each grey that lies near the curve. */
  readonly added: readonly AddedToGrey[];
}

/** Light that was added to a grey beside what was added to all of them alike, which the curve takes for none; shares of what paper sends there. */
interface AddedToGrey extends Point {
  readonly added: number;
  /** What the grey itself sends back; by which share that is unsure, and by which it may grow over the sheet because the curve is bent. */
  readonly grey: number;
  readonly sigmaShare: number;
  readonly bentShare: number;
}

/**
 * The tone curve of a camera from one photo with greys in it of which is known what light they send back: each has as much light as its grey
 * sends, as falls on its place, and as the channel is given, and what a reflection adds to that on its place, up to the second order. `greys`
 * are told by stored tones, shares of full scale. Null where they are too few or too alike, or tell no curve that rises. What was added is told of those greys alone that lie near the curve.
 */
export function curveOfGreys(
  greys: readonly SeenGrey[],
  { reflectances, contrastSigma }: SheetGreys,
): GreysCurve | null {
  if (greys.length < FEWEST_GREYS) return null;
  const tones = greys.flatMap(({ rgb }) => rgb);
  const [least, most] = [Math.min(...tones), Math.max(...tones)];
  if (!(least > 0) || most - least < LEAST_SPAN) return null;
  const splines = new Splines(least, most);
  const termsAt = placeBasis(greys);
  const curveFor = (some: readonly SeenGrey[], added: readonly number[] | null): ToneCurve | null =>
    curveOfEquations(
      splines,
      some.flatMap((grey, k) =>
        equationsOf(grey, reflectances[grey.step]!, termsAt(grey), added && added[k]!, splines),
      ),
      { contrastSigma, undoneShare: UNDONE_SHARE, firstRange: [least, most], leastSigma: PRINT_SIGMA / 2 },
    );
  const plain = curveFor(greys, null);
  if (!plain) return null;
  // A scrap on a grey, or a lamp's reflection, is not to be taken for a broad one's end.
  const isNear = greys.map((_, k) => ofGrey(plain.residuals, k).every((residual) => Math.abs(residual) < MOST_OFF));
  const some = greys.filter((_, k) => isNear[k]);
  if (some.length < FEWEST_GREYS) return null;
  let added: readonly number[] = some.map(() => 0);
  let told: ToneCurve | null = null;
  for (let turn = 0; turn < TURNS; turn++) {
    told = curveFor(some, added);
    if (!told) return null;
    const terms = told.others.slice(CHANNELS + PLACE_TERMS);
    added = some.map((grey) => termsAt(grey).reduce((sum, term, k) => sum + term * terms[k]!, 0));
  }
  const curve = told!;
  // The equations have light on the other side: less of it.
  const light = curve.others.map((value) => -value);
  const paperLightAt = (place: Point): [number, number, number] => {
    const falls = termsAt(place).reduce((sum, term, k) => sum + term * light[CHANNELS + k]!, 0);
    return [light[0]! + falls, light[1]! + falls, light[2]! + falls];
  };
  const far = isNear.flatMap((near, k) => (near ? [] : [...ofGrey(plain.residuals, k)]));
  return {
    curve,
    residuals: [...curve.residuals, ...far],
    paperLightAt,
    added: some.map(({ step, rgb, x, y }) => {
      const [paper, grey] = [paperLightAt({ x, y }), reflectances[step]!];
      const values = rgb.map((tone, channel) => Math.exp(curve.lightAt(tone) - paper[channel]!) - grey[channel]!);
      const bend = bendAt(curve, Math.min(...rgb)) - bendAt(curve, most);
      const sigmas = {
        sigmaShare: Math.max(PRINT_SIGMA, curve.sigma),
        bentShare: BENT_SHARE * Math.max(0, Math.abs(bend) - TRUE_TO_LIGHT),
      };
      return { x, y, added: meanAndSpread(values).mean, grey: grey[1], ...sigmas };
    }),
  };
}

/** By how much more light, as a logarithm, a curve has at a tone than sRGB. */
const bendAt = (curve: ToneCurve, tone: number): number => curve.lightAt(tone) - asStored(tone);
