import type { LinesSeen } from '../../core/reading/lines/lines-of-fill';
import { vertexOf } from '../../core/stats/parabola';

/** A ripple of so many of its sigmas tells how strong it is. */
const CLEAR = 3;
/**
 * Patches whose lines show less than this part of the strongest ones’ lie far out, where the head’s height, the bed and the sheet differ most: they
 * would turn the parabola without telling its top.
 */
const PART_OF_STRONGEST = 0.25;
/** A parabola whose bend is so many of its sigmas has a top. */
const BENT = 3;

/**
 * Where lines show most over the offsets of focus: a beam's lines are of normal profile, so that the logarithm of their ripple falls with the
 * square of the beam's width, and that with the square of the offset from the waist. Null where too few patches show their lines, or the top lies
 * beyond them: then nothing bounds it.
 */
export function waistOfRipples(
  patches: readonly { readonly offsetMm: number; readonly lines: LinesSeen }[],
): { readonly waistMm: number; readonly sigmaMm: number } | null {
  const strongest = Math.max(...patches.map(({ lines }) => lines.visibility));
  const told = patches.filter(
    ({ lines: { visibility, visibilitySigma } }) =>
      visibility > CLEAR * visibilitySigma && visibility > PART_OF_STRONGEST * strongest,
  );
  const top = vertexOf(told.map(({ offsetMm, lines }) => ({ x: offsetMm, y: Math.log(lines.visibility) })));
  if (!top || top.bend >= 0 || top.clear < BENT) return null;
  const offsets = told.map(({ offsetMm }) => offsetMm);
  if (top.x < Math.min(...offsets) || top.x > Math.max(...offsets)) return null;
  return { waistMm: top.x, sigmaMm: top.sigma };
}
