import type { RgbImage } from '../../image/raster';
import type { SheetSide } from '../../sheet/frame-sheet';
import { rectify } from '../rectify';
import type { SheetPlace } from './locate-sheet';

/** One grey of a frame sheet as a photo shows it: shares of full scale, by channel, as `linear` has each stored byte. */
export interface SeenGrey {
  readonly side: SheetSide;
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

/** The mean of each grey patch of a sheet in a photo; those that are clipped or out of the picture are left out. */
export function seenGreys(photo: RgbImage, { sheet, toPhoto }: SheetPlace, linear: Float32Array): SeenGrey[] {
  const image = rectify(photo, toPhoto, sheet.widthMm, sheet.heightMm, PX_PER_MM, 2, linear);
  return sheet.patches.flatMap(({ side, step, box }) => {
    const rim = ((1 - INNER) / 2) * box.width;
    const sums = [0, 0, 0];
    let [count, clipped] = [0, 0];
    for (let row = Math.ceil((box.y + rim) * PX_PER_MM); row < (box.y + box.height - rim) * PX_PER_MM; row++)
      for (
        let column = Math.ceil((box.x + rim) * PX_PER_MM);
        column < (box.x + box.width - rim) * PX_PER_MM;
        column++
      ) {
        const at = row * image.width + column;
        count++;
        clipped += image.clipped[at]!;
        for (const channel of [0, 1, 2]) sums[channel]! += image.data[3 * at + channel]!;
      }
    if (clipped > MOST_CLIPPED * count) return [];
    const rgb = sums.map((sum) => sum / count) as unknown as [number, number, number];
    return [{ side, step, x: box.x + box.width / 2, y: box.y + box.height / 2, rgb }];
  });
}

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
