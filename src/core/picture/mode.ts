import { SCREENS } from './screen';

/** How a picture's greys are burned: by power that follows grey, or by dots of one power. */
export const PICTURE_MODES = ['power', ...SCREENS] as const;
export type PictureMode = (typeof PICTURE_MODES)[number];

export const PICTURE_MODE_NAMES: Readonly<Record<PictureMode, string>> = {
  power: 'power follows grey',
  'floyd-steinberg': 'dots by error diffusion',
  bayer: 'ordered dots',
};

export const isPictureMode = (word: unknown): word is PictureMode =>
  (PICTURE_MODES as readonly unknown[]).includes(word);

/**
 * Power for a grey where power follows grey: from the floor for next to nothing to the top for black, in proportion; nothing is burned for a grey of 0.
 *
 * powerOfGrey(0.5, 0.1, 0.5) -> 0.3
 */
export const powerOfGrey = (grey: number, floorFraction: number, topFraction: number): number =>
  grey <= 0 ? 0 : floorFraction + (topFraction - floorFraction) * grey;
