import { mainBurn, type Cell } from '../card/layout';
import { project } from '../geometry/homography';
import type { Rect } from '../geometry/point';
import type { PhotoContext } from './photo-context';

/**
 * Relative amplitude of the ripple across a cell's lines at its line interval, over its inner part; null when the photo cannot resolve it
 * (Goertzel's sum on a detrended profile).
 */
export function lineVisibility(context: PhotoContext, cell: Cell, inner: Rect): number | null {
  const { intervalMm, direction } = mainBurn(cell).settings;
  if (intervalMm * context.photoPxPerMm < 3) return null;
  const acrossMm = direction === 'horizontal' ? inner.height : inner.width;
  const periods = Math.floor(acrossMm / intervalMm);
  if (periods < 4) return null;
  const perPeriod = 8;
  const count = periods * perPeriod;
  const alongSamples = 24;
  let cosine = 0;
  let sine = 0;
  let total = 0;
  const profile = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    let sum = 0;
    for (let j = 0; j < alongSamples; j++) {
      const across = ((k + 0.5) / perPeriod) * intervalMm;
      const along = ((j + 0.5) / alongSamples) * (direction === 'horizontal' ? inner.width : inner.height);
      const place =
        direction === 'horizontal'
          ? project(context.toPhoto, inner.x + along, inner.y + across)
          : project(context.toPhoto, inner.x + across, inner.y + along);
      const x = Math.round(place.x);
      const y = Math.round(place.y);
      if (x < 0 || y < 0 || x >= context.gray.width || y >= context.gray.height) return null;
      sum += context.gray.data[y * context.gray.width + x]!;
    }
    profile[k] = sum / alongSamples;
    total += profile[k]!;
  }
  const mean = total / count;
  const slope = (profile[count - 1]! - profile[0]!) / count;
  for (let k = 0; k < count; k++) {
    const angle = (2 * Math.PI * k) / perPeriod;
    const value = profile[k]! - mean - slope * (k - count / 2);
    cosine += value * Math.cos(angle);
    sine += value * Math.sin(angle);
  }
  return mean > 0 ? (2 * Math.hypot(cosine, sine)) / count / mean : null;
}
