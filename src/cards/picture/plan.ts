import { placesOfPicture, type ChosenPicture, type SizedPicture } from '../../core/card/chosen-picture';
import type { BasePlan } from '../../core/card/contract';
import type { Tones } from '../../core/card/propose-tones';
import { packGreys, unpackGreys, type Greys } from '../../core/picture/greys';
import { resampled, type Crop } from '../../core/picture/sample';

export const PICTURE_VERSION = 1;

/** A picture, cropped and sized, burned through the tone table; beside it, where that is wanted, once more without. */
export interface PicturePlan extends BasePlan, Tones {
  readonly picture: ChosenPicture;
  readonly crop: Crop;
  readonly widthMm: number;
  /** Whether light parts are burned: on stock that a burn brightens. */
  readonly negative: boolean;
  /** Whether its darkest is burned as black and its lightest left bare, whatever they are. */
  readonly wholeRange: boolean;
  /** Whether it is burned uncorrected beside, to see what the table does. */
  readonly beside: boolean;
  readonly gapMm: number;
}

/** What of the picture is burned, and how large. */
export const sizedPicture = ({
  picture,
  crop,
  widthMm,
  constants,
}: Pick<PicturePlan, 'picture' | 'crop' | 'widthMm' | 'constants'>): SizedPicture => ({
  picture,
  crop,
  widthMm,
  intervalMm: constants.intervalMm,
});

/** So many of all places may be as light, or as dark, as the end of the range that is used. */
const AT_THE_ENDS = 0.01;

/** Bytes brought to the whole range from what all but a few of them lie in; an even picture stays as it is. */
function spread(bytes: Uint8Array): Uint8Array {
  const sorted = bytes.slice().sort();
  const [low, high] = [AT_THE_ENDS, 1 - AT_THE_ENDS].map(
    (share) => sorted[Math.floor(share * (sorted.length - 1))]!,
  ) as [number, number];
  return low === high
    ? bytes
    : bytes.map((byte) => Math.round(255 * Math.min(1, Math.max(0, (byte - low) / (high - low)))));
}

/** How much is to be burned of each place: 0 for bare, 255 for the strongest. */
export function wantedOf(plan: PicturePlan): Greys {
  const { columns, rows } = placesOfPicture(sizedPicture(plan));
  const dark = unpackGreys(resampled(plan.picture, plan.crop, columns, rows));
  const ranged = plan.wholeRange ? spread(dark) : dark;
  return packGreys(columns, rows, plan.negative ? ranged.map((byte) => 255 - byte) : ranged);
}

export function upgradePicturePlan(stored: object): PicturePlan {
  const { version } = stored as { version?: number };
  if (version !== PICTURE_VERSION) throw new RangeError(`unknown picture plan version: ${version}`);
  return stored as PicturePlan;
}
