import { useEffect } from 'react';
import type { PhotoView } from '../../records/photo';
import { DragHandle } from '../../components/DragHandle';
import { Mat } from '../../components/Mat';
import { hasMarkers, type Layout } from '../../core/card/layout';
import type { Point } from '../../core/geometry/point';
import styles from './CornersMat.module.css';

export type Corners = readonly [Point, Point, Point, Point];

const NAMES = ['upper left', 'upper right', 'lower right', 'lower left'] as const;
const STEP_PX = 4;

/** Where the handles start: where they were last dragged, or the card's shape in the middle of the photo. */
function first(photo: PhotoView, layout: Layout): Corners {
  if (photo.corners?.length === 4) return photo.corners as unknown as Corners;
  const [width, height] = hasMarkers(layout)
    ? [layout.widthMm, layout.heightMm]
    : [layout.inner.width, layout.inner.height];
  const scale = Math.min((photo.widthPx * 0.6) / width, (photo.heightPx * 0.6) / height);
  const halfWidth = (width * scale) / 2;
  const halfHeight = (height * scale) / 2;
  const x = photo.widthPx / 2;
  const y = photo.heightPx / 2;
  return [
    { x: x - halfWidth, y: y - halfHeight },
    { x: x + halfWidth, y: y - halfHeight },
    { x: x + halfWidth, y: y + halfHeight },
    { x: x - halfWidth, y: y + halfHeight },
  ];
}

/** The photo with four handles for the card's corners, in photo pixels. */
export function CornersMat({
  photo,
  layout,
  corners,
  onCorners,
}: {
  photo: PhotoView;
  layout: Layout;
  corners: Corners | null;
  onCorners: (corners: Corners) => void;
}) {
  useEffect(() => {
    if (corners === null) onCorners(first(photo, layout));
  }, [corners, onCorners, photo, layout]);
  if (corners === null) return null;
  const put = (index: number, point: Point): void =>
    onCorners(corners.map((corner, at) => (at === index ? point : corner)) as unknown as Corners);
  return (
    <Mat
      label="The photo with four corner handles"
      ruled={false}
      extent={{ x: 0, y: 0, width: photo.widthPx, height: photo.heightPx }}
    >
      {(view) => (
        <g>
          <image href={`/api/photos/${photo.id}/images/preview`} width={photo.widthPx} height={photo.heightPx} />
          <polygon className={styles.frame} points={corners.map(({ x, y }) => `${x},${y}`).join(' ')} />
          {corners.map(({ x, y }) => {
            const arm = 7 / view.pxPerMm;
            return (
              <path
                key={`${x} ${y}`}
                className={styles.cross}
                d={`M${x - arm} ${y}h${2 * arm}M${x} ${y - arm}v${2 * arm}`}
              />
            );
          })}
          {corners.map((corner, index) => (
            <DragHandle
              key={NAMES[index]}
              className={styles.handle}
              at={corner}
              radius={20 / view.pxPerMm}
              step={STEP_PX}
              label={`${NAMES[index]} corner of the card`}
              onMove={(to) => put(index, to)}
            />
          ))}
        </g>
      )}
    </Mat>
  );
}
