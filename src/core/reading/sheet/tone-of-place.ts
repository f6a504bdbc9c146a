import { lightnessOfLuminance } from '../../color/lab';
import { luminance } from '../../color/srgb';
import { invertHomography, project } from '../../geometry/homography';
import type { Point } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import { PAPER_LUMINANCE } from '../../sheet/paper';
import type { FoundMarker } from '../find-markers';
import { addedByGreys } from '../light/added-over-sheet';
import { locateSheet, type SheetPlace } from './locate-sheet';
import { sheetAround } from './sheet-around';
import { tonesBySheet, type MeasuredSheets, type SheetFault, type TonesBySheet } from './sheet-tones';

/** A round place of a photo, in its pixels. */
export interface PhotoPlace extends Point {
  readonly radiusPx: number;
}

/** What a place of a piece sends back, as a photo of it beside a frame sheet has it. */
export interface ToneOfPlace {
  /** L* by the sheet's paper. */
  readonly lightness: number;
  readonly sigma: number;
  /** Luminance over that of the piece's bare stock, where a place of that was named; its standard uncertainty as a share. */
  readonly overBare: { readonly ratio: number; readonly sigmaShare: number } | null;
}

export type PlaceFault = SheetFault | 'no-sheet' | 'beyond-sheet' | 'too-small' | 'blown-out';

/** What lies beside paper is told against it: by which share paper differs. */
const PAPER_SIGMA = 0.035;
/** Bare stock differs from place to place by about this, as a share (from memory, without a source): one place does not tell what is usual. */
const PLACE_TO_PLACE = 0.04;
/** Fewer pixels than this are noise; more of them than this share at the bright end are no tone. */
const LEAST_PIXELS = 30;
const MOST_CLIPPED = 0.02;
const CLIPPED = 250;
/** Grain and lines of a fill lie as close as this: what a place scatters by is as sure as so many of them. */
const INDEPENDENT_PX = 12;

interface Seen {
  readonly rgb: readonly [number, number, number];
  /** Standard uncertainty of its luminance's logarithm by what it scatters by. */
  readonly sigma: number;
}

function meanOf(photo: RgbImage, { x, y, radiusPx }: PhotoPlace, linearOfByte: Float32Array): Seen | PlaceFault {
  const sums: [number, number, number] = [0, 0, 0];
  let [count, clipped, sum, squares] = [0, 0, 0, 0];
  for (let v = Math.max(0, Math.ceil(y - radiusPx)); v <= Math.min(photo.height - 1, y + radiusPx); v++) {
    for (let u = Math.max(0, Math.ceil(x - radiusPx)); u <= Math.min(photo.width - 1, x + radiusPx); u++) {
      if ((u - x) ** 2 + (v - y) ** 2 > radiusPx ** 2) continue;
      const at = (v * photo.width + u) * 3;
      const [red, green, blue] = [0, 1, 2].map((channel) => photo.data[at + channel]!) as [number, number, number];
      if (Math.max(red, green, blue) >= CLIPPED) clipped++;
      const linear = [linearOfByte[red]!, linearOfByte[green]!, linearOfByte[blue]!] as const;
      linear.forEach((value, channel) => (sums[channel]! += value));
      const light = luminance(...linear);
      count++;
      sum += light;
      squares += light * light;
    }
  }
  if (count < LEAST_PIXELS) return 'too-small';
  if (clipped > MOST_CLIPPED * count) return 'blown-out';
  const mean = sum / count;
  const spread = Math.sqrt(Math.max(0, squares / count - mean * mean));
  const independent = Math.max(1, count / INDEPENDENT_PX);
  return {
    rgb: sums.map((one) => one / count) as unknown as Seen['rgb'],
    sigma: spread / mean / Math.sqrt(independent),
  };
}

/** Light of a place over that of paper there, without what was added to it, and how sure that is by what was added: a share of it. */
interface OverPaper {
  readonly ratio: number;
  readonly addedSigma: number;
}

/** No piece sends back less than this share of what paper does: what is left of darker ones was added. */
const DARKEST = 0.002;

/** How places of a photo are told by the sheet in it: channel by channel, as luminance. */
function againstPaper(by: TonesBySheet, { sheet, toPhoto }: SheetPlace): (seen: Seen, place: Point) => OverPaper {
  const toSheet = invertHomography(toPhoto);
  const { greys } = sheetAround(by, toPhoto);
  const added = addedByGreys(greys, { x: sheet.widthMm / 2, y: sheet.heightMm / 2 });
  return ({ rgb }, place) => {
    const paper = by.paperLightAt(place);
    const here = added?.at(project(toSheet, place.x, place.y)) ?? { value: 0, sigma: 0 };
    const shown = luminance(rgb[0] / paper[0], rgb[1] / paper[1], rgb[2] / paper[2]);
    const ratio = Math.max(DARKEST, shown - here.value / PAPER_LUMINANCE);
    return { ratio, addedSigma: here.sigma / PAPER_LUMINANCE / ratio };
  };
}

/**
 * The tone of a place of a piece that lies on a frame sheet or is framed by it, from one photo: its light over that of the paper around it, with the
 * camera's tones undone by the greys and a wall's reflection taken out that they tell. With a place of the piece's own bare stock also by how much that is darker or brighter, which asks nothing of
 * the paper. Says why not where the photo shows no measured sheet, a place lies beyond it, is a few pixels large, or is blown out. Pure.
 */
export function toneOfPlace(
  photo: RgbImage,
  markers: readonly FoundMarker[],
  sheets: MeasuredSheets,
  place: PhotoPlace,
  bare: PhotoPlace | null = null,
): ToneOfPlace | { readonly fault: PlaceFault } {
  const by = tonesBySheet(photo, markers, sheets);
  const sheetPlace = locateSheet(markers);
  if (!by || !sheetPlace) return { fault: 'no-sheet' };
  if (!('undone' in by)) return { fault: by.fault };
  const toSheet = invertHomography(sheetPlace.toPhoto);
  const { widthMm, heightMm } = sheetPlace.sheet;
  for (const { x, y } of [place, ...(bare ? [bare] : [])]) {
    const at = project(toSheet, x, y);
    // Light is told between the greys: beyond them it is anybody's guess.
    if (!(at.x >= 0 && at.y >= 0 && at.x <= widthMm && at.y <= heightMm)) return { fault: 'beyond-sheet' };
  }
  const seen = meanOf(photo, place, by.undone.linearOfByte);
  if (typeof seen === 'string') return { fault: seen };
  const overPaper = againstPaper(by, sheetPlace);
  const { ratio, addedSigma } = overPaper(seen, place);
  const light = luminance(...seen.rgb);
  const sigmaShare = Math.hypot(
    by.undone.sigmaOfRatio(light, luminance(...by.paperLightAt(place))),
    PAPER_SIGMA,
    seen.sigma,
    addedSigma,
  );
  const lightness = lightnessOfLuminance(ratio * PAPER_LUMINANCE);
  const sigma =
    (lightnessOfLuminance(ratio * PAPER_LUMINANCE * (1 + sigmaShare)) -
      lightnessOfLuminance(ratio * PAPER_LUMINANCE * (1 - sigmaShare))) /
    2;
  if (!bare) return { lightness, sigma, overBare: null };
  const beside = meanOf(photo, bare, by.undone.linearOfByte);
  if (typeof beside === 'string') return { fault: beside };
  const bareOverPaper = overPaper(beside, bare);
  return {
    lightness,
    sigma,
    overBare: {
      ratio: ratio / bareOverPaper.ratio,
      sigmaShare: Math.hypot(
        by.undone.sigmaOfRatio(light, luminance(...beside.rgb)),
        seen.sigma,
        beside.sigma,
        PLACE_TO_PLACE,
        // As if what was added to one told nothing of the other: two places may lie on two sides of a reflection.
        addedSigma,
        bareOverPaper.addedSigma,
      ),
    },
  };
}
