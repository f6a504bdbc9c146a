import readExif from 'exif-reader';
import type { Exposure } from '../core/reading/tone/exposure';

const positive = (value: unknown): number | null =>
  typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : null;
const words = (value: unknown): string => (typeof value === 'string' ? value.replace(/\0/g, '').trim() : '');

/** How a photo was exposed, from its own EXIF block; null where it does not say, or says it in a way that cannot be read. */
export function exposureOf(exif: Buffer | undefined): Exposure | null {
  if (!exif) return null;
  let tags: ReturnType<typeof readExif>;
  try {
    tags = readExif(exif);
  } catch {
    // A damaged block is no reason to refuse a photo: it is read as one that says nothing.
    return null;
  }
  const timeS = positive(tags.Photo?.ExposureTime);
  const iso = positive([tags.Photo?.ISOSpeedRatings].flat()[0]);
  const camera = [words(tags.Image?.Make), words(tags.Image?.Model)].filter(Boolean).join(' ').slice(0, 120);
  const bias: unknown = tags.Photo?.ExposureBiasValue;
  const biasStops = typeof bias === 'number' && Number.isFinite(bias) ? bias : null;
  return timeS && iso && camera ? { camera, timeS, iso, fNumber: positive(tags.Photo?.FNumber), biasStops } : null;
}
