/** One channel of bytes, row by row. */
export interface GrayImage {
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** Three interleaved channels of sRGB bytes, row by row. */
export interface RgbImage {
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** Three interleaved channels of linear light, row by row. */
export interface LinearImage {
  readonly data: Float32Array;
  readonly width: number;
  readonly height: number;
}

/** Throws RangeError unless the data is as long as width x height x channels, with both at least 1. */
export function checkRaster(
  image: { data: { length: number }; width: number; height: number },
  channels: number,
): void {
  const { data, width, height } = image;
  if (!Number.isInteger(width) || !Number.isInteger(height) || !(width >= 1) || !(height >= 1)) {
    throw new RangeError(`invalid image size: ${width} x ${height}`);
  }
  if (data.length !== width * height * channels) {
    throw new RangeError(`invalid image data: ${data.length} values for ${width} x ${height} x ${channels}`);
  }
}
