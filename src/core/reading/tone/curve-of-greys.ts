import type { SeenGrey, SheetGreys } from '../sheet/sheet-greys';
import { placeTerms } from './place-terms';
import { asStored, curveOfEquations, Splines, type ToneCurve, type ToneEquation } from './tone-spline';

/** Fewer greys than half of a sheet's leave too much open. */
const FEWEST_GREYS = 18;
/** Patches are large and even: of a bend less is left than between two photos of a card. */
const UNDONE_SHARE = 0.02;
/** Tones that greys must span, as shares of full scale, to tell a curve. */
const LEAST_SPAN = 0.35;

/**
 * The tone curve of a camera from one photo with greys in it of which is known what light they send back: each has as much light as its grey
 * sends, as falls on its place, and as the channel is given. `greys` are told by stored tones, shares of full scale. Null where they are too
 * few or too alike, or tell no curve that rises.
 */
export function curveOfGreys(greys: readonly SeenGrey[], { reflectances, contrastSigma }: SheetGreys): ToneCurve | null {
  if (greys.length < FEWEST_GREYS) return null;
  const tones = greys.flatMap(({ rgb }) => rgb);
  const [least, most] = [Math.min(...tones), Math.max(...tones)];
  if (!(least > 0) || most - least < LEAST_SPAN) return null;
  const splines = new Splines(least, most);
  const byPlace = placeTerms(greys);
  const equations = greys.flatMap(({ step, rgb }, index): ToneEquation[] =>
    rgb.map((tone, channel) => ({
      tones: splines.of(tone),
      others: [...[0, 1, 2].map((other) => (other === channel ? 1 : 0)), ...byPlace[index]!],
      wanted: Math.log(reflectances[step]![channel]!) - asStored(tone),
      clear: 1,
    })),
  );
  return curveOfEquations(splines, equations, { contrastSigma, undoneShare: UNDONE_SHARE, firstRange: [least, most] });
} // prettier-ignore
