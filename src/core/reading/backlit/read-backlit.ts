import { hasMarkers } from '../../card/layout';
import { luminanceOfLightness } from '../../color/lab';
import type { Homography } from '../../geometry/homography';
import { median } from '../../stats/robust';
import { findMarkersOfCard } from '../find-markers-of-card';
import { bareTiles } from '../light/bare-tiles';
import { placeByCorners, placeByMarkers, type NotPlaced } from '../place-card';
import { DRAGGED_ERROR_MM, LEAST_SIDE_PX, type ReadRequest } from '../read-card';
import type { Rectified } from '../rectify';
import { scaleAtCentre, straightened } from '../straighten';
import { tonesOfPhoto } from '../tones-of-photo';
import type { Tones } from '../tone/tones';
import { measureThrough, type BacklitContext } from './measure-through';
import type { Backlit } from './observations';
import { openLight, type OpenLight } from './open-light';
import { pinholesIn } from './pinholes';

export type BacklitRequest = Pick<
  ReadRequest,
  'photo' | 'layout' | 'stock' | 'corners' | 'cameraIsTrue' | 'onProgress'
>;

export type BacklitResult =
  | (Backlit & {
      readonly outcome: 'read';
      readonly toPhoto: Homography;
      readonly markers: number;
      readonly frameErrorMm: number;
      readonly photoPxPerMm: number;
      readonly alsoSeen: readonly number[];
      readonly rectified: Rectified;
      readonly open: OpenLight;
      readonly tones: Tones;
    })
  | NotPlaced
  | { readonly outcome: 'unreadable'; readonly reason: 'too-small' | 'no-open-light' | 'table-blown-out' | 'no-holes' };

/** Bare stock that sends more than this of the open light lets it through by itself, or the table is not lit: nothing can be told against it. */
const MOST_BARE = 0.5;

/**
 * Reads a photo of a card on a light table: places it as any photo (marks of a coat shine, and its markers with them), tells the open light beside
 * the piece, and how much of it comes through each burned cell. What the room's light adds is bounded by what bare stock sends: a photo of a lit
 * piece on a bright ground is full of doubt. A photo that cannot be read is a result with its reason, never an exception; RangeError only for image
 * data that do not fit their size. Pure and deterministic.
 */
export function readBacklit({
  photo,
  layout,
  stock,
  corners,
  cameraIsTrue,
  onProgress,
}: BacklitRequest): BacklitResult {
  if (Math.min(photo.width, photo.height) < LEAST_SIDE_PX) return { outcome: 'unreadable', reason: 'too-small' };
  onProgress?.('finding markers');
  const placed = corners
    ? placeByCorners(photo, layout, corners, () => onProgress?.('finding the cells'))
    : hasMarkers(layout)
      ? placeByMarkers(photo, layout, findMarkersOfCard(photo, layout))
      : ({ outcome: 'needs-corners', markers: 0 } as const);
  if ('outcome' in placed) return placed;
  const { toPhoto, rmsPx, markers, alsoSeen } = placed;

  onProgress?.('straightening');
  const rectified = straightened(photo, toPhoto, layout);
  const { tones, sigmaOfRatio } = tonesOfPhoto(rectified, layout, cameraIsTrue, null, null);

  onProgress?.('levelling the light');
  const open = openLight(photo, toPhoto, layout);
  if (open === 'blown-out') return { outcome: 'unreadable', reason: 'table-blown-out' };
  if (open === 'no-open-light') return { outcome: 'unreadable', reason: open };
  const bare = bareTiles({ ...rectified, clipped: new Uint8Array(rectified.clipped.length) }, layout).tiles;
  const bareThrough =
    bare.length === 0 ? 0 : median(bare.map((tile) => Math.exp(tile.logLuminance) / open.at(tile.x, tile.y)));
  if (bareThrough > MOST_BARE) return { outcome: 'unreadable', reason: 'no-open-light' };

  onProgress?.('reading cells');
  const photoPxPerMm = scaleAtCentre(toPhoto, layout);
  const frameErrorMm = corners ? DRAGGED_ERROR_MM : rmsPx / photoPxPerMm;
  const context: BacklitContext = {
    rectified,
    open,
    photoPxPerMm,
    frameErrorMm,
    bareThrough,
    // All that bare stock sends may be the room's light that it sends back.
    mostRoomLight: bareThrough / luminanceOfLightness(stock.bareLightness),
    toneSigma: sigmaOfRatio,
  };
  const cells = layout.order.map((index) => measureThrough(context, layout.cells[index]!));
  cells.sort((a, b) => a.cellIndex - b.cellIndex);
  const pinholes = pinholesIn(rectified, layout, open);
  return {
    outcome: 'read',
    cells,
    bareThrough,
    pinholes,
    toPhoto,
    markers,
    frameErrorMm,
    photoPxPerMm,
    alsoSeen,
    rectified,
    open,
    tones,
  };
}
