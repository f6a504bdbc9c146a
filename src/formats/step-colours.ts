/** A colour that drawing programs tell layers apart by. */
export interface StepColour {
  /** Index in the table of 255 colours that R12 files use. */
  readonly index: number;
  readonly hex: string;
}

const HUES = 24;
/** Brightness by the last digit of an index, from memory: odd ones are half as strong. */
const SHADES = [1, 0.65, 0.5, 0.3, 0.15] as const;

const byte = (share: number): string =>
  Math.round(255 * share)
    .toString(16)
    .padStart(2, '0');

/** Neighbours in burn order get hues far apart: 7 is prime to 24, so that every hue comes once before one comes again. */
const HUE_STEP = 7;

/** Colours there are before one comes again. */
export const STEP_COLOURS = HUES * SHADES.length * 2;

/**
 * The colour of the `place`th step, counted from 0: full colours first, then darker, then paler ones. After 240 steps they come again;
 * names stay apart.
 */
export function stepColour(place: number): StepColour {
  const at = place % STEP_COLOURS;
  const turn = Math.floor(at / HUES);
  const shade = turn % SHADES.length;
  const pale = turn >= SHADES.length;
  const hue = (at * HUE_STEP) % HUES;
  const value = SHADES[shade]!;
  const saturation = pale ? 0.5 : 1;
  const channel = (n: number): number => {
    const k = (n + (hue * 360) / HUES / 60) % 6;
    return value - value * saturation * Math.max(0, Math.min(k, 4 - k, 1));
  };
  return {
    index: 10 + hue * 10 + shade * 2 + (pale ? 1 : 0),
    hex: `#${byte(channel(5))}${byte(channel(3))}${byte(channel(1))}`,
  };
}
