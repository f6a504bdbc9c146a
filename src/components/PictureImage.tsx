import { useMemo } from 'react';
import { burnedOf } from '../core/card/picture-shape';
import type { PictureShape } from '../core/card/shape';
import { parseHexColour } from '../core/color/srgb';
import { unpackGreys } from '../core/picture/greys';
import { pictureUrl } from './picture-url';

/**
 * What a picture is to look like where it is burned, laid over the stock: dots as they are burned, or tones as they are wanted of power that follows
 * grey.
 */
export function PictureImage({ shape, markColour }: { shape: PictureShape; markColour: string }) {
  const url = useMemo(() => {
    const { columns, rows } = shape.wanted;
    const [red, green, blue] = parseHexColour(markColour);
    const shown =
      shape.mode === 'power' ? unpackGreys(shape.wanted) : burnedOf(shape).map((isBurned) => 255 * isBurned);
    return pictureUrl(columns, rows, (place) => [red, green, blue, shown[place]!]);
  }, [shape, markColour]);
  return url && <image href={url} {...shape.box} preserveAspectRatio="none" />;
}
