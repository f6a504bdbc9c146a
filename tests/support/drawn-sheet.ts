import type { Rect } from '../../src/core/geometry/point';
import type { RgbImage } from '../../src/core/image/raster';
import { GREY_STEPS, type FrameSheet } from '../../src/core/sheet/frame-sheet';
import { markerModules } from '../../src/core/card/markers';

/** A frame sheet as a test draws it, from straight above: no noise, no blur. */
export interface DrawnSheet {
  /** What each step sends back beside paper, by channel. */
  readonly shareOf?: (step: number) => readonly [number, number, number];
  /** Light on a place of the sheet, in mm, 1 being the most that is stored. */
  readonly light: (x: number, y: number) => number;
  /** What a reflection adds to a place, a share of the most that is stored. */
  readonly added?: (x: number, y: number) => number;
  /** Stored share of full scale of a light. */
  readonly stored: (light: number) => number;
  /** Gains of the channels. */
  readonly cast?: readonly [number, number, number];
  /** Markers by their place in the sheet's list that cannot be seen. */
  readonly without?: readonly number[];
}

const PX_PER_MM = 5;
const AROUND_MM = 6;

/** Reflectances that a test's printer makes of the steps, neutral: none is what was asked for. */
export const INK_SHARES: readonly number[] = GREY_STEPS.map((bare) => 0.04 + 0.96 * bare ** 1.4);
const usual = (step: number): [number, number, number] => [INK_SHARES[step]!, INK_SHARES[step]!, INK_SHARES[step]!];

export function drawSheet(
  sheet: FrameSheet,
  { shareOf = usual, light, added = () => 0, stored, cast = [1, 1, 1], without = [] }: DrawnSheet,
): RgbImage {
  const width = Math.round((sheet.widthMm + 2 * AROUND_MM) * PX_PER_MM);
  const height = Math.round((sheet.heightMm + 2 * AROUND_MM) * PX_PER_MM);
  const shares = new Float32Array(width * height * 3).fill(1);
  const paint = ({ x, y, width: wide, height: high }: Rect, share: readonly [number, number, number]): void => {
    const pixel = (mm: number): number => Math.round((mm + AROUND_MM) * PX_PER_MM);
    for (let row = pixel(y); row < pixel(y + high); row++)
      for (let column = pixel(x); column < pixel(x + wide); column++) shares.set(share, (row * width + column) * 3);
  };
  for (const { step, box } of sheet.patches) paint(box, shareOf(step));
  sheet.markers.forEach(({ id, x, y, sizeMm }, index) => {
    const side = sizeMm / 8;
    if (!without.includes(index))
      markerModules(id).forEach((burned, at) => {
        if (burned)
          paint(
            { x: x + (at % 8) * side, y: y + Math.floor(at / 8) * side, width: side, height: side },
            [0.04, 0.04, 0.04],
          );
      });
  });
  const STEPS = 8192;
  const bytes = Uint8Array.from({ length: 2 * STEPS }, (_, step) =>
    Math.round(255 * Math.max(0, Math.min(1, stored(Math.min(1, step / STEPS))))),
  );
  const data = new Uint8Array(shares.length);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const [x, y] = [(column + 0.5) / PX_PER_MM - AROUND_MM, (row + 0.5) / PX_PER_MM - AROUND_MM];
      const [lit, more] = [light(x, y), added(x, y)];
      for (const channel of [0, 1, 2] as const) {
        const at = (row * width + column) * 3 + channel;
        data[at] = bytes[Math.min(2 * STEPS - 1, Math.round((shares[at]! * lit + more) * cast[channel] * STEPS))]!;
      }
    }
  return { data, width, height };
}
