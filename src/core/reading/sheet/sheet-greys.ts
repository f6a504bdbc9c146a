import { MARKER_MODULES } from '../../card/markers';
import { grown, type Rect } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import type { FrameSheet, SheetMarker } from '../../sheet/frame-sheet';
import { rectify, type Rectified } from '../rectify';
import type { SheetPlace } from './locate-sheet';

/** One grey of a frame sheet as a photo shows it: shares of full scale, by channel, as `linear` has each stored byte. */
export interface SeenGrey {
  /** Index in `GREY_STEPS`. */
  readonly step: number;
  /** Its middle, in mm of the sheet. */
  readonly x: number;
  readonly y: number;
  readonly rgb: readonly [number, number, number];
}

const PX_PER_MM = 8;
/** Part of a patch that is looked at: ink runs at its edges, and the photo is not quite sharp. */
const INNER = 0.6;
/** A patch that lost more than this to an end of the camera's range, or to the photo's border, tells nothing. */
const MOST_CLIPPED = 0.05;

/** The black rim of a marker is a module wide; so much of that about its middle is looked at. */
const RIM = 0.4;

/** The four sides of a marker's rim, which all ink lies on. */
function rimOf({ x, y, sizeMm }: SheetMarker): Rect[] {
  const module = sizeMm / MARKER_MODULES;
  const inset = ((1 - RIM) / 2) * module;
  const thin = RIM * module;
  const long = sizeMm - 2 * inset;
  const far = sizeMm - inset - thin;
  return [
    { x: x + inset, y: y + inset, width: long, height: thin },
    { x: x + inset, y: y + far, width: long, height: thin },
    { x: x + inset, y: y + inset, width: thin, height: long },
    { x: x + far, y: y + inset, width: thin, height: long },
  ];
}

/** The mean of some boxes of a straightened sheet; null where too much of them is clipped or out of the picture. */
function meanOf({ data, clipped, width }: Rectified, boxes: readonly Rect[]): SeenGrey['rgb'] | null {
  const sums: [number, number, number] = [0, 0, 0];
  let [count, ends] = [0, 0];
  for (const box of boxes)
    for (let row = Math.ceil(box.y * PX_PER_MM); row < (box.y + box.height) * PX_PER_MM; row++)
      for (let column = Math.ceil(box.x * PX_PER_MM); column < (box.x + box.width) * PX_PER_MM; column++) {
        const at = row * width + column;
        count++;
        ends += clipped[at]!;
        for (const channel of [0, 1, 2] as const) sums[channel] += data[3 * at + channel]!;
      }
  return ends > MOST_CLIPPED * count ? null : [sums[0] / count, sums[1] / count, sums[2] / count];
}

interface Grey extends Pick<SeenGrey, 'step' | 'x' | 'y'> {
  readonly boxes: readonly Rect[];
}

function seen(
  photo: RgbImage,
  { sheet, toPhoto }: SheetPlace,
  linear: Float32Array,
  greys: readonly Grey[],
): SeenGrey[] {
  const image = rectify(photo, toPhoto, sheet.widthMm, sheet.heightMm, PX_PER_MM, 2, linear);
  return greys.flatMap(({ boxes, ...grey }) => {
    const rgb = meanOf(image, boxes);
    return rgb ? [{ ...grey, rgb }] : [];
  });
}

const patchesOf = ({ patches }: FrameSheet): Grey[] =>
  patches.map(({ step, box }) => {
    const rim = ((1 - INNER) / 2) * box.width;
    return { step, boxes: [grown(box, -rim)], x: box.x + box.width / 2, y: box.y + box.height / 2 };
  });

const rimsOf = ({ markers }: FrameSheet): Grey[] =>
  markers.map((marker) => ({
    step: 0,
    boxes: rimOf(marker),
    x: marker.x + marker.sizeMm / 2,
    y: marker.y + marker.sizeMm / 2,
  }));

/** The mean of each grey patch of a sheet in a photo; those that are clipped or out of the picture are left out. */
export const seenGreys = (photo: RgbImage, place: SheetPlace, linear: Float32Array): SeenGrey[] =>
  seen(photo, place, linear, patchesOf(place.sheet));

/** The same with the black rims of its markers: all ink lies on them as on the darkest step, and they lie where few dark patches do. */
export const seenGreysAndRims = (photo: RgbImage, place: SheetPlace, linear: Float32Array): SeenGrey[] =>
  seen(photo, place, linear, [...patchesOf(place.sheet), ...rimsOf(place.sheet)]);

/** What light each printed grey sends back, as shares of what the paper does, by channel: measured once for each print. */
export interface SheetGreys {
  /** One for each of `GREY_STEPS`; the paper's is 1. */
  readonly reflectances: readonly (readonly [number, number, number])[];
  /** By which share all steps between them may be told too large: a standard deviation. */
  readonly contrastSigma: number;
}

/** All ink sends back less than this of what paper does; more is a print too pale to tell a tone curve by. */
const DARK_ENOUGH = 0.2;

/** What is wrong with a print's greys: they must grow lighter as they were printed, from well below paper. Null where nothing is. */
export function faultOfGreys({ reflectances }: SheetGreys): 'greys-out-of-order' | 'too-pale' | null {
  const green = reflectances.map((rgb) => rgb[1]);
  if (!green.slice(1).every((value, k) => value > green[k]!)) return 'greys-out-of-order';
  return green[0]! < DARK_ENOUGH ? null : 'too-pale';
}
