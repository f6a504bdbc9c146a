import { invertHomography, project } from '../../geometry/homography';
import type { Point } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import type { SheetFormat } from '../../sheet/frame-sheet';
import type { FoundMarker } from '../find-markers';
import type { AddedAtGrey } from '../light/added-over-sheet';
import { curveOfGreys } from '../tone/curve-of-greys';
import { tonesOf, type UndoneTones } from '../tone/undone-tones';
import { isFlat, locateSheet } from './locate-sheet';
import { seenGreysAndRims, type SheetGreys } from './sheet-greys';

/** Why a frame sheet in a photo tells nothing of its tones. */
export type SheetFault = 'sheet-not-measured' | 'sheet-not-flat' | 'greys-disagree' | 'no-greys';

/** What a frame sheet in a photo tells. */
export interface TonesBySheet {
  readonly undone: UndoneTones;
  readonly format: SheetFormat;
  /** Light that the paper sends back around a place of the photo, in pixels: linear red, green and blue as the undone tones have them. */
  paperLightAt(place: Point): readonly [number, number, number];
  /** Light that was added at each grey beside what was added at all of them, by its place in the photo. */
  readonly added: readonly AddedAtGrey[];
}

/** Greys of the sheets that were measured, by their format. */
export type MeasuredSheets = Readonly<Partial<Record<SheetFormat, SheetGreys>>>;

/** Greys that lie further from one curve than this, as a share of light, are not the print that was measured, or lie in a hard shadow. */
const MOST_SCATTER = 0.05;
/** A grey is off by this much of a logarithm. A reflection may lie over some of them; where more are off, nothing is sure. */
const OFF = 0.08;
const MOST_OFF = 0.12;
/** Stored tones as they are, as shares of full scale. */
const AS_STORED = Float32Array.from({ length: 256 }, (_, byte) => byte / 255);
/** How unsure contrast is beyond the darkest grey, where nothing tells it: as for a camera of which nothing is known. */
const BEYOND = 0.3;

/**
 * The tones of a photo undone by the frame sheet in it; why not where its greys were never measured, the sheet is bent, its greys are not those
 * that were measured, or they tell no curve. Null where the photo shows no frame sheet.
 */
export function tonesBySheet(
  photo: RgbImage,
  markers: readonly FoundMarker[],
  sheets: MeasuredSheets,
): TonesBySheet | { readonly fault: SheetFault } | null {
  const place = locateSheet(markers);
  if (!place) return null;
  const greys = sheets[place.sheet.format];
  if (!greys) return { fault: 'sheet-not-measured' };
  if (!isFlat(place)) return { fault: 'sheet-not-flat' };
  const seen = seenGreysAndRims(photo, place, AS_STORED);
  const told = curveOfGreys(seen, greys);
  if (!told) return { fault: 'no-greys' };
  const { curve, paperLightAt } = told;
  const off = told.residuals.filter((residual) => Math.abs(residual) > OFF).length / told.residuals.length;
  if (curve.sigma > MOST_SCATTER || off > MOST_OFF) return { fault: 'greys-disagree' };
  const undone = tonesOf(curve);
  const toSheet = invertHomography(place.toPhoto);
  const darkest = undone.linearOfByte[Math.ceil(255 * curve.range[0])]!;
  const beyond = (light: number): number => Math.log(darkest / Math.max(1e-4, Math.min(darkest, light)));
  return {
    format: place.sheet.format,
    added: told.added.map((grey) => ({ ...grey, ...project(place.toPhoto, grey.x, grey.y) })),
    paperLightAt: ({ x, y }) =>
      paperLightAt(project(toSheet, x, y)).map((log) => Math.exp(log + undone.white)) as unknown as readonly [
        number,
        number,
        number,
      ],
    undone: {
      ...undone,
      sigmaOfRatio: (light, other) =>
        Math.hypot(undone.sigmaOfRatio(light, other), BEYOND * (beyond(light) - beyond(other))),
    },
  };
}
