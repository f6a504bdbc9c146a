import type { Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import { hasMarkers, type Layout } from '../card/layout';
import { lumaAt } from '../image/gray';
import { checkRaster, type RgbImage } from '../image/raster';
import type { FoundMarker } from './find-markers';
import { findMarkersOfCard } from './find-markers-of-card';
import { blurAcross } from './lines/blur';
import { fineLight } from './lines/fine-light';
import { lightOfCard } from './light/light-of-card';
import type { LightOnBare } from './light/light-on-bare';
import { measureCell } from './measure-cell';
import type { CellReading } from './observations';
import type { PhotoContext } from './photo-context';
import { photoFaults, type PhotoFault } from './photo-faults';
import { isOnScreen, isToScale, type PictureOfCard } from './picture-of-card';
import { placeByCorners, placeByMarkers, placeBySheet, type NotPlaced } from './place-card';
import type { Rectified } from './rectify';
import { locateSheet } from './sheet/locate-sheet';
import { sheetAround } from './sheet/sheet-around';
import { tonesBySheet, type MeasuredSheets } from './sheet/sheet-tones';
import { doubtingUneven } from './uneven-cells';
import { stockLinearColour, type StockLook } from './stock-colour';
import { scaleAtCentre, straightened } from './straighten';
import type { SecondExposure } from './tone/second-exposure';
import type { Tones } from './tone/tones';
import { tonesOfPhoto } from './tones-of-photo';

export interface ReadRequest {
  readonly photo: RgbImage;
  readonly layout: Layout;
  readonly stock: StockLook;
  /** The card's corners in photo pixels as dragged by the operator, from the upper left, clockwise; null to find the markers. */
  readonly corners: readonly Point[] | null;
  /** Whether the camera was found to store light as sRGB has it. One of which nothing is known may bend tones: the further a cell is from bare stock, the less is known of it. */
  readonly cameraIsTrue: boolean;
  /** One more photo in the same light, brighter or darker: with it what the camera makes of tones is undone. Its markers must be seen. */
  readonly second?: SecondExposure | null;
  /** What the greys of frame sheets send back, by their format: with one around the card a single photo tells what the camera makes of tones. */
  readonly sheets?: MeasuredSheets;
  /** The beam's 1/e² width at its focus: edges that it burned are softer by no more than it makes them. Null where that is not known. */
  readonly spot?: { readonly xMm: number; readonly yMm: number } | null;
  /** Whether ripples of its cells are to be compared with each other. */
  readonly comparesRipples?: boolean;
  /** Whether the burned face is seen through its sheet: marks then stand out less. */
  readonly throughSheet?: boolean;
  /** Markers in the photo, where they were looked for already. */
  readonly found?: readonly FoundMarker[];
  readonly onProgress?: (step: ReadStep) => void;
}

export type ReadStep =
  | 'finding markers'
  | 'finding the cells'
  | 'straightening'
  | 'levelling the light'
  | 'reading cells';

export type ReadResult =
  | {
      readonly outcome: 'read';
      readonly cells: readonly CellReading[];
      readonly toPhoto: Homography;
      readonly markers: number;
      readonly frameErrorMm: number;
      readonly photoPxPerMm: number;
      readonly alsoSeen: readonly number[];
      readonly rectified: Rectified;
      readonly field: LightOnBare;
      readonly stockLinear: readonly [number, number, number];
      readonly tones: Tones;
      readonly faults: readonly PhotoFault[];
    }
  | NotPlaced
  | {
      readonly outcome: 'unreadable';
      readonly reason: 'too-dark' | 'too-small' | 'no-bare-stock' | 'overexposed' | PictureOfCard;
    };

export const LEAST_SIDE_PX = 200;
/** Corners dragged by hand are good to a few screen pixels. */
export const DRAGGED_ERROR_MM = 0.25;

/**
 * Reads a photo of a card: finds its markers (or takes dragged corners), straightens it, divides out the light that bare stock
 * between the cells shows, and measures each burned cell. A photo that cannot be read is a result with its reason, never an
 * exception; RangeError only for image data that do not fit their size. Pure and deterministic.
 */
export function readCard({
  photo,
  layout,
  stock,
  corners,
  cameraIsTrue,
  second = null,
  sheets = {},
  spot = null,
  found: known,
  comparesRipples = false,
  throughSheet = false,
  onProgress,
}: ReadRequest): ReadResult {
  checkRaster(photo, 3);
  if (Math.min(photo.width, photo.height) < LEAST_SIDE_PX) return { outcome: 'unreadable', reason: 'too-small' };

  onProgress?.('finding markers');
  if (looksBlack(photo)) return { outcome: 'unreadable', reason: 'too-dark' };
  // Corners set by hand need no markers, but a measured sheet's.
  const found = known ?? (corners && Object.keys(sheets).length === 0 ? [] : findMarkersOfCard(photo, layout));
  const fitting = (): void => onProgress?.('finding the cells');
  const placed = corners
    ? placeByCorners(photo, layout, corners, fitting)
    : hasMarkers(layout)
      ? placeByMarkers(photo, layout, found)
      : placeBySheet(photo, layout, found, fitting);
  if ('outcome' in placed) return placed;
  const { toPhoto, rmsPx, markers, alsoSeen } = placed;

  onProgress?.('straightening');
  const asStored = straightened(photo, toPhoto, layout);
  if (!isToScale(toPhoto, layout, locateSheet(found))) return { outcome: 'unreadable', reason: 'not-to-scale' };
  if (isOnScreen(asStored, layout)) return { outcome: 'unreadable', reason: 'screen' };
  const bySheet = tonesBySheet(photo, found, sheets);
  const { tones, undone, sigmaOfRatio } = tonesOfPhoto(asStored, layout, cameraIsTrue, second, bySheet);
  const linear = undone ? straightened(photo, toPhoto, layout, undone.linearOfByte) : asStored;

  onProgress?.('levelling the light');
  const stockLinear = stockLinearColour(stock);
  const sheet = tones.told === 'by-sheet' && bySheet && 'undone' in bySheet ? bySheet : null;
  const light = lightOfCard(linear, layout, {
    stockLinear,
    sheet: sheet && sheetAround(sheet, toPhoto),
    sigmaOfRatio: undone && sigmaOfRatio,
  });
  if (typeof light === 'string') return { outcome: 'unreadable', reason: light };

  onProgress?.('reading cells');
  const photoPxPerMm = scaleAtCentre(toPhoto, layout);
  const frameErrorMm = corners ? DRAGGED_ERROR_MM : rmsPx / photoPxPerMm;
  const { rectified, field } = light;
  const fine = fineLight(photo, toPhoto, light, stockLinear, photoPxPerMm, undone?.linearOfByte);
  const context: PhotoContext = {
    rectified,
    field,
    finePhoto: {
      fine,
      blur: once((run) => blurAcross(fine, layout, run, spot && (run === 'horizontal' ? spot.yMm : spot.xMm))),
    },
    photoPxPerMm,
    stockLinear,
    uncertainFrame: markers < 4,
    frameErrorMm,
    addedSigma: (x, y) => light.addedSigma(x, y),
    toneSigma: sigmaOfRatio,
    tonesUnknown: !undone && !cameraIsTrue,
    lightIsTold: light.isTold,
    comparesRipples,
    throughSheet,
  };
  const measured = layout.order.map((index) => measureCell(context, layout.cells[index]!));
  measured.sort((a, b) => a.cellIndex - b.cellIndex);
  const cells = doubtingUneven(measured, layout.cells);
  const faults = photoFaults(context, light.taken, layout, cells);
  return {
    outcome: 'read',
    cells,
    toPhoto,
    markers,
    frameErrorMm,
    photoPxPerMm,
    alsoSeen,
    rectified,
    field,
    stockLinear,
    tones,
    faults,
  };
}

/** Pixels are looked at this far from each other: a prime, so that they do not stand in columns. */
const EVERY = 599;

function looksBlack(photo: RgbImage): boolean {
  const looked = (photo.width * photo.height) / EVERY;
  let bright = 0;
  for (let k = 0; k < looked; k++) if (lumaAt(photo, k * EVERY) > 24) bright++;
  return bright < looked * 0.005;
}

/** A function that works out each answer once. */
function once<Key, Value>(of: (key: Key) => Value): (key: Key) => Value {
  const known = new Map<Key, Value>();
  return (key) => {
    if (!known.has(key)) known.set(key, of(key));
    return known.get(key)!;
  };
}
