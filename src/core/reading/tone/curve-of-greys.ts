import type { Point } from '../../geometry/point';
import type { SeenGrey, SheetGreys } from '../sheet/sheet-greys';
import { placeBasis } from './place-terms';
import { asStored, curveOfEquations, Splines, type ToneCurve, type ToneEquation } from './tone-spline';

/** Fewer greys than half of a sheet's leave too much open. */
const FEWEST_GREYS = 18;
/** Patches are large and even: of a bend less is left than between two photos of a card. */
const UNDONE_SHARE = 0.02;
/** Tones that greys must span, as shares of full scale, to tell a curve. */
const LEAST_SPAN = 0.35;

/** A tone curve, and the light that it tells the paper to send back. */
export interface GreysCurve {
  readonly curve: ToneCurve;
  /** Natural logarithms by channel, at a place of the sheet in mm, up to the curve's own constant. */
  paperLightAt(place: Point): readonly [number, number, number];
}

/**
 * The tone curve of a camera from one photo with greys in it of which is known what light they send back: each has as much light as its grey
 * sends, as falls on its place, and as the channel is given. `greys` are told by stored tones, shares of full scale. Null where they are too
 * few or too alike, or tell no curve that rises.
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
  const equations = greys.flatMap(({ step, rgb }, index): ToneEquation[] =>
    rgb.map((tone, channel) => ({
      tones: splines.of(tone),
      others: [...[0, 1, 2].map((other) => (other === channel ? 1 : 0)), ...termsAt(greys[index]!)],
      wanted: Math.log(reflectances[step]![channel]!) - asStored(tone),
      clear: 1,
    })),
  );
  const curve = curveOfEquations(splines, equations, {
    contrastSigma,
    undoneShare: UNDONE_SHARE,
    firstRange: [least, most],
  });
  if (!curve) return null;
  // The equations have light on the other side: less of it.
  const [red, green, blue, ...byPlace] = curve.others.map((value) => -value);
  return {
    curve,
    paperLightAt: (place) => {
      const falls = termsAt(place).reduce((sum, term, k) => sum + term * byPlace[k]!, 0);
      return [red! + falls, green! + falls, blue! + falls];
    },
  };
}
