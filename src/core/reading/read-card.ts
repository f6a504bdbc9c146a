import { fitHomography, project, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import type { Layout } from '../card/layout';
import { rectRing } from '../card/shape';
import { grayOfRgb } from '../image/gray';
import type { GrayImage, RgbImage } from '../image/raster';
import { addedByMarkers } from './light/added-by-markers';
import { addedLight, withoutAdded } from './light/added-light';
import { markerDarkness } from './light/marker-darkness';
import { evened } from './light/evened';
import { fitLight, type LightOnBare } from './light/light-on-bare';
import { bareTiles } from './light/bare-tiles';
import { aroundCells, CLEAR_ENOUGH, cellsBeyond, fitCells } from './fit-cells';
import { findMarkers, type FoundMarker } from './find-markers';
import { locateCard } from './locate-card';
import { locateOnPiece } from './locate-on-piece';
import { measureCell } from './measure-cell';
import type { CellReading } from './observations';
import type { PhotoContext } from './photo-context';
import { photoFaults, type PhotoFault } from './photo-faults';
import { isClockwiseQuad } from './quad';
import { rectify, type Rectified } from './rectify';
import { isOfSheet } from './sheet/locate-sheet';
import { tonesBySheet, type MeasuredSheets } from './sheet/sheet-tones';
import { stockLinearColour, type StockLook } from './stock-colour';
import { undoneTones, type SecondExposure } from './tone/second-exposure';
import type { Tones } from './tone/tones';
import type { UndoneTones } from './tone/undone-tones';

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
  readonly onProgress?: (step: ReadStep) => void;
}

/**
 * How much the contrast of a camera of which nothing is known may differ from one: the standard deviation of the logarithm of a ratio of two
 * lights, for each power of e between them. From memory, without a source: phones steepen tones below white by a third to a half.
 */
export const UNKNOWN_CONTRAST = 0.3;

export type ReadStep =
  'finding markers' | 'finding the cells' | 'straightening' | 'levelling the light' | 'reading cells';

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
  | { readonly outcome: 'other-card'; readonly cardNumber: number }
  | { readonly outcome: 'several-cards'; readonly cardNumbers: readonly number[] }
  | { readonly outcome: 'needs-corners'; readonly markers: number }
  | {
      readonly outcome: 'unreadable';
      readonly reason:
        | 'too-dark'
        | 'too-small'
        | 'no-bare-stock'
        | 'overexposed'
        | 'bad-corners'
        | 'no-cells'
        | 'other-cells'
        | 'more-cells';
    };

/** How far the colour of a cell bleeds over its edge in a stored photo. */
const COLOUR_BLEED_MM = 0.15;

/** Bare stock of which more is clipped tells the light on itself by its darker part alone. */
const CLIPPED_BARE = 0.02;
/** Where more of bare stock is clipped and too little is left, it is not hidden but blown out. */
const BLOWN_OUT = 0.5;

/** Less light than this, as a share of full scale, is the same to every camera: black. */
const DARKEST = 0.001;

/** How far beside their fitted place the edges of an old card’s cells may lie. */
const UNSURE_EDGE_MM = 0.5;
/** So much of a gap between cells is left for bare stock to be seen in. */
const LEFT_OF_GAP_MM = 0.8;

/** How much further from an old card’s cells bare stock is looked for: half a millimetre, or what their gaps leave. */
function furtherFromCells({ cells }: Layout): number {
  const gapAlong = (starts: readonly number[], size: number): number => {
    const places = [...new Set(starts)].sort((a, b) => a - b);
    return Math.min(...places.slice(1).map((at, index) => at - places[index]! - size));
  };
  const gapMm = Math.min(
    gapAlong(
      cells.map(({ box }) => box.x),
      cells[0]!.box.width,
    ),
    gapAlong(
      cells.map(({ box }) => box.y),
      cells[0]!.box.height,
    ),
  );
  return Math.max(0, Math.min(UNSURE_EDGE_MM, (gapMm - LEFT_OF_GAP_MM) / 2));
}

/** Markers of a card and of a frame sheet around it. */
const CARD_AND_SHEET = 8;

/** Resolution of the straightened card. */
export const RECTIFIED_PX_PER_MM = 20;
const LEAST_SIDE_PX = 200;

function looksBlack(gray: GrayImage): boolean {
  let bright = 0;
  for (let index = 0; index < gray.data.length; index += 97) if (gray.data[index]! > 24) bright++;
  return bright < (gray.data.length / 97) * 0.005;
}

function scaleAtCentre(h: Homography, layout: Layout): number {
  const x = layout.widthMm / 2;
  const y = layout.heightMm / 2;
  const a = project(h, x - 0.5, y);
  const b = project(h, x + 0.5, y);
  const c = project(h, x, y - 0.5);
  const d = project(h, x, y + 0.5);
  return Math.min(Math.hypot(a.x - b.x, a.y - b.y), Math.hypot(c.x - d.x, c.y - d.y));
}

/** Cells this much narrower or wider than was told would be read at their borders. */
const WIDTH_SLACK = 0.2;

/** The map of an old card's photo with its cells fitted, from where dragged corners put them; why not where they are not found. */
function placedByCells(
  photo: RgbImage,
  layout: Layout,
  dragged: Homography,
): Homography | 'no-cells' | 'other-cells' | 'more-cells' {
  const samples = Math.min(3, Math.max(1, Math.round(scaleAtCentre(dragged, layout) / RECTIFIED_PX_PER_MM)));
  const straight = rectify(photo, dragged, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, samples);
  const { x, y } = fitCells(straight, layout);
  if (Math.min(x.clear, y.clear) < CLEAR_ENOUGH) return 'no-cells';
  if (Math.max(Math.abs(x.width - 1), Math.abs(y.width - 1)) > WIDTH_SLACK) return 'other-cells';
  const told = rectRing(layout.inner);
  const seen = told.map((corner) => project(dragged, x.startMm + x.scale * corner.x, y.startMm + y.scale * corner.y));
  const fitted = fitHomography(told, seen).homography;
  const around = aroundCells(layout);
  const wide = rectify(photo, movedOrigin(fitted, around), around.width, around.height, RECTIFIED_PX_PER_MM, samples);
  return cellsBeyond(wide, layout).length > 0 ? 'more-cells' : fitted;
}

/** The same map with coordinates counted from another place. */
function movedOrigin(h: Homography, { x, y }: Point): Homography {
  const [a, b, c, d, e, f, g, i, j] = h;
  return [a, b, a * x + b * y + c, d, e, d * x + e * y + f, g, i, g * x + i * y + j];
}

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
  second,
  sheets = {},
  onProgress,
}: ReadRequest): ReadResult {
  if (Math.min(photo.width, photo.height) < LEAST_SIDE_PX) return { outcome: 'unreadable', reason: 'too-small' };
  const gray = grayOfRgb(photo);
  if (looksBlack(gray)) return { outcome: 'unreadable', reason: 'too-dark' };
  onProgress?.('finding markers');

  let toPhoto: Homography;
  let rmsPx = 0;
  let markers = 0;
  let alsoSeen: readonly number[] = [];
  // Corners set by hand need no markers, but a measured sheet's.
  const found = corners && Object.keys(sheets).length === 0 ? [] : markersOf(gray);
  if (corners) {
    if (!isClockwiseQuad(corners)) return { outcome: 'unreadable', reason: 'bad-corners' };
    // An old card has no corners of its own: its corner cells have.
    const { x, y, width, height } = layout.adopted
      ? layout.inner
      : { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm };
    toPhoto = fitHomography(rectRing({ x, y, width, height }), corners).homography;
    if (layout.adopted) {
      onProgress?.('finding the cells');
      const fitted = placedByCells(photo, layout, toPhoto);
      if (typeof fitted === 'string') return { outcome: 'unreadable', reason: fitted };
      toPhoto = fitted;
    }
  } else {
    const location = locateCard(layout, found);
    if (location.found === 'other-card') return { outcome: 'other-card', cardNumber: location.cardNumber };
    if (location.found === 'several-cards') return { outcome: 'several-cards', cardNumbers: location.cardNumbers };
    if (location.found === 'too-few-markers') {
      const placed = locateOnPiece(gray, layout);
      if (!placed) return { outcome: 'needs-corners', markers: location.markers };
      ({ toPhoto, rmsPx, markers } = placed);
    } else ({ toPhoto, rmsPx, markers, alsoSeen } = location);
  }

  onProgress?.('straightening');
  const photoPxPerMm = scaleAtCentre(toPhoto, layout);
  const samples = Math.min(3, Math.max(1, Math.round(photoPxPerMm / RECTIFIED_PX_PER_MM)));
  const asStored = rectify(photo, toPhoto, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, samples);
  const bySheet = tonesBySheet(photo, found, sheets);
  const { tones, undone } = tonesBy(asStored, layout, cameraIsTrue, second ?? null, bySheet);
  const uneven = undone
    ? rectify(photo, toPhoto, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, samples, undone.linearOfByte)
    : asStored;
  onProgress?.('levelling the light');
  const stockLinear = stockLinearColour(stock);
  const bare = bareTiles(uneven, layout, COLOUR_BLEED_MM);
  // Where bare stock is blown out in places, what is left of it is the darker part: a sheet's paper tells the light there.
  const toldBySheet = tones.told === 'by-sheet' && bySheet && 'undone' in bySheet ? bySheet : null;
  const paperLight = toldBySheet && bare.clippedShare > CLIPPED_BARE ? toldBySheet.paperLightAt : null;
  const lightIsTold = paperLight !== null;
  const straight = paperLight ? evened(uneven, (x, y) => paperLight(project(toPhoto, x, y))) : uneven;
  const { tiles } = paperLight ? bareTiles(straight, layout, COLOUR_BLEED_MM) : bare;
  const added = addedLight(tiles, stockLinear, layout.widthMm, layout.heightMm, undone?.sigmaOfRatio);
  const byColour = added && added.range > 0;
  // What colour cannot tell, on grey stock or where it is little, the markers may.
  const byMarkers = byColour ? null : addedByMarkers(markerDarkness(straight, tiles, layout), tiles, stockLinear);
  const taken = byColour ? added : byMarkers && byMarkers.range > 0 ? byMarkers : null;
  const rectified = taken ? withoutAdded(straight, taken) : straight;
  const field = fitLight(rectified, layout, layout.adopted ? furtherFromCells(layout) : 0, lightIsTold);
  if (!field) {
    return { outcome: 'unreadable', reason: bare.clippedShare > BLOWN_OUT ? 'overexposed' : 'no-bare-stock' };
  }
  onProgress?.('reading cells');
  // Corners dragged by hand are good to a few screen pixels.
  const frameErrorMm = corners ? 0.25 : rmsPx / photoPxPerMm;
  const context: PhotoContext = {
    rectified,
    field,
    gray,
    toPhoto,
    photoPxPerMm,
    stockLinear,
    uncertainFrame: markers < 4,
    frameErrorMm,
    addedSigma: (x: number, y: number) => Math.hypot(added?.sigmaAt(x, y) ?? 0, byMarkers?.sigmaAt(x, y) ?? 0),
    toneSigma: (light: number, other: number) => {
      if (undone) return undone.sigmaOfRatio(light, other);
      return cameraIsTrue
        ? 0
        : UNKNOWN_CONTRAST * Math.abs(Math.log(Math.max(DARKEST, light) / Math.max(DARKEST, other)));
    },
    tonesUnknown: !undone && !cameraIsTrue,
    lightIsTold,
  };
  const cells = layout.order.map((index) => measureCell(context, layout.cells[index]!));
  cells.sort((a, b) => a.cellIndex - b.cellIndex);
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
    faults: photoFaults(context, taken, layout, cells),
  };
}

/** Markers in a photo of a card; where a frame sheet lies around it, its own and the card's. */
function markersOf(gray: GrayImage): FoundMarker[] {
  const found = findMarkers(gray);
  // A sheet's markers are large and found first: the card's must be looked for beside them.
  return found.length < CARD_AND_SHEET && found.some(isOfSheet) ? findMarkers(gray, CARD_AND_SHEET) : found;
}

/** What a second exposure of a card, or a frame sheet beside it, tells of the camera's tones; the second exposure where both do. */
function tonesBy(
  first: Rectified,
  layout: Layout,
  cameraIsTrue: boolean,
  second: SecondExposure | null,
  bySheet: ReturnType<typeof tonesBySheet>,
): { tones: Tones; undone: UndoneTones | null } {
  const byTwo = second && tonesByTwo(first, layout, second);
  if (byTwo && 'undone' in byTwo)
    return { tones: { told: 'by-two', bentBy: byTwo.undone.bentBy }, undone: byTwo.undone };
  if (bySheet && 'undone' in bySheet) {
    const { undone, format } = bySheet;
    return { tones: { told: 'by-sheet', bentBy: undone.bentBy, format }, undone };
  }
  const fault = byTwo ?? bySheet;
  if (fault) return { tones: { told: 'not-told', cameraIsTrue, why: fault.fault }, undone: null };
  return { tones: { told: 'by-one-photo', cameraIsTrue }, undone: null };
}

function tonesByTwo(
  first: Rectified,
  layout: Layout,
  second: SecondExposure,
): { readonly undone: UndoneTones } | { readonly fault: 'not-found' | 'no-curve' } {
  const location = locateCard(layout, findMarkers(grayOfRgb(second.photo)));
  if (location.found !== 'card') return { fault: 'not-found' };
  const { toPhoto } = location;
  const samples = Math.min(3, Math.max(1, Math.round(scaleAtCentre(toPhoto, layout) / RECTIFIED_PX_PER_MM)));
  const straight = rectify(second.photo, toPhoto, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, samples);
  const undone = undoneTones(first, straight, second);
  return undone ? { undone } : { fault: 'no-curve' };
}
