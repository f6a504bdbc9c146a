import sharp from 'sharp';
import type { RgbImage } from '../core/image/raster';

export const PHOTO_LIMITS = { bytes: 25 * 1024 * 1024, pixels: 40_000_000 } as const;

/** Longest side of the copy that the page shows. */
const PREVIEW_PX = 1600;

export type OpenedPhoto =
  | { readonly opened: true; readonly photo: RgbImage }
  | { readonly opened: false; readonly reason: 'damaged' | 'too-many-pixels' };

/** Decodes a photo upright, as sRGB bytes without alpha. A file that cannot be decoded to its end is a result, not an exception. */
export async function openPhoto(bytes: Uint8Array): Promise<OpenedPhoto> {
  try {
    const image = sharp(bytes, { limitInputPixels: PHOTO_LIMITS.pixels, failOn: 'truncated', sequentialRead: true });
    const { data, info } = await image
      .autoOrient()
      .toColourspace('srgb')
      .flatten({ background: '#fff' })
      .raw()
      .toBuffer({ resolveWithObject: true });
    const pixels = new Uint8Array(data.buffer, data.byteOffset, data.length);
    const raw = { raw: { width: info.width, height: info.height, channels: info.channels as 1 | 3 } };
    const rgb =
      info.channels === 3 ? pixels : new Uint8Array(await sharp(pixels, raw).toColourspace('srgb').raw().toBuffer());
    return { opened: true, photo: { data: rgb, width: info.width, height: info.height } };
  } catch (error) {
    const text = error instanceof Error ? error.message : '';
    return { opened: false, reason: /pixel limit/.test(text) ? 'too-many-pixels' : 'damaged' };
  }
}

/** The smaller copy of a photo that pages show. */
export function previewOf({ data, width, height }: RgbImage): Promise<Buffer> {
  return sharp(data, { raw: { width, height, channels: 3 } })
    .resize({ width: PREVIEW_PX, height: PREVIEW_PX, fit: 'inside', kernel: 'linear', withoutEnlargement: true })
    .jpeg({ quality: 82 })
    .toBuffer();
}
