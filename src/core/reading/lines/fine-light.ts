import { LINEAR_OF_BYTE, LUMINANCE_BLUE, LUMINANCE_GREEN, LUMINANCE_RED } from '../../color/srgb';
import { invertHomography, project, type Homography } from '../../geometry/homography';
import type { Rect } from '../../geometry/point';
import type { RgbImage } from '../../image/raster';
import { rectRing } from '../../card/shape';
import type { LightOfCard } from '../light/light-of-card';

/**
 * The photo's own pixels on a card, for what is finer than the straightened card shows. Nothing is interpolated: each pixel is told with the place
 * it looks at, so that rows that lie askew to the card's lines sample them at every phase.
 */
export interface FineLight {
  /** Photo pixels for each card mm, at the card's middle. */
  readonly pxPerMm: number;
  /**
   * Every pixel whose centre looks at an area of the card, in card mm, with its luminance as a share of what bare stock sends back there.
   * Pixels outside the photo are left out.
   */
  each(area: Rect, visit: (xMm: number, yMm: number, share: number) => void): void;
}

/** The pixels of a photo under the light that was told of its card; `linear` is the light of each stored byte. */
export function fineLight(
  photo: RgbImage,
  toPhoto: Homography,
  light: Pick<LightOfCard, 'field' | 'cleared'>,
  stockLinear: readonly [number, number, number],
  pxPerMm: number,
  linear: Float32Array = LINEAR_OF_BYTE,
): FineLight {
  const [i0, i1, i2, i3, i4, i5, i6, i7, i8] = invertHomography(toPhoto);
  const weights = [LUMINANCE_RED * stockLinear[0], LUMINANCE_GREEN * stockLinear[1], LUMINANCE_BLUE * stockLinear[2]];
  const total = weights[0]! + weights[1]! + weights[2]!;
  return {
    pxPerMm,
    each(area, visit) {
      const corners = rectRing(area).map(({ x, y }) => project(toPhoto, x, y));
      const [us, vs] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
      const left = Math.max(0, Math.ceil(Math.min(...us)));
      const right = Math.min(photo.width - 1, Math.floor(Math.max(...us)));
      const top = Math.max(0, Math.ceil(Math.min(...vs)));
      const bottom = Math.min(photo.height - 1, Math.floor(Math.max(...vs)));
      const [endX, endY] = [area.x + area.width, area.y + area.height];
      for (let v = top; v <= bottom; v++) {
        for (let u = left; u <= right; u++) {
          const w = i6 * u + i7 * v + i8;
          const x = (i0 * u + i1 * v + i2) / w;
          const y = (i3 * u + i4 * v + i5) / w;
          if (x < area.x || x >= endX || y < area.y || y >= endY) continue;
          const bare = light.field.at(x, y);
          const at = (v * photo.width + u) * 3;
          let sum = 0;
          for (const channel of [0, 1, 2] as const)
            sum +=
              (weights[channel]! * light.cleared(linear[photo.data[at + channel]!]!, channel, x, y)) / bare[channel];
          visit(x, y, sum / total);
        }
      }
    },
  };
}
