import type { Layout } from '../core/card/layout';
import { areasOf } from '../core/card/station';
import type { ShownPhoto } from '../records/photo';

/** Straightened photos where they lie on a card, in card millimetres: of the whole, or of each station that has one. */
export function CardPhotos({ layout, shown }: { layout: Layout; shown: readonly ShownPhoto[] }) {
  return shown.map(({ photoId, station }) => {
    const box = (station === null ? undefined : layout.stations?.[station]?.box) ?? {
      x: 0,
      y: 0,
      width: layout.widthMm,
      height: layout.heightMm,
    };
    return (
      <image key={photoId} href={`/api/photos/${photoId}/images/straightened`} {...box} preserveAspectRatio="none" />
    );
  });
}

/** What there is of a card's piece to draw its photos on: all of it, or the pieces under its stations. */
export function CardPiece({ layout, colour }: { layout: Layout; colour: string }) {
  return areasOf(layout).map((area) => <rect key={`${area.x} ${area.y}`} {...area} fill={colour} />);
}
