import { cellPlaces } from '../../core/card/cell-places';
import { hasMarkers, type Layout } from '../../core/card/layout';
import type { FinishMoment, WorkSetup } from '../../core/card/work-setup';
import { isSeeThrough } from '../../core/stock/see-through';
import { plainNumber } from '../../core/quantities/format';
import { lightnessUnderVeil } from '../../core/reading/light/under-veil';
import type { CellReading, Doubt } from '../../core/reading/observations';
import { TRUE_TO_LIGHT } from '../../core/reading/tone/undone-tones';
import { oneMorePhoto, type NextPhoto } from '../../core/reading/one-more-photo';
import { areKnown, type Tones } from '../../core/reading/tone/tones';
import type { PhotoView, ShownPhoto } from '../../records/photo';

const REASONS: Readonly<Record<string, string>> = {
  'too-dark': 'It is black: nothing can be seen. Take it again with light on the card.',
  'too-small': 'It is too small to show the cells. Send the photo straight from the camera.',
  'no-bare-stock':
    'Too little bare stock can be seen between the cells. Take it again with the whole card in view and less glare.',
  overexposed:
    'It is overexposed: the bare stock is as bright as the camera can tell. Take it again with the exposure set darker, or with less light.',
  'no-holes':
    'No light comes through anywhere: the table is off, nothing is cut through, or the sheet lets light through by itself. Tap it, and say what drops.',
  'no-open-light':
    'No open light is seen beside the piece that is much brighter than bare stock. Take it on a light table that is on, with its light in the picture on all sides.',
  'table-blown-out':
    'The light table is as bright as the camera can tell. Set the exposure on the open light, or make it darker, and take it again.',
  screen: 'It shows a screen: its coloured pixels lie over the card. Take a photo of the piece itself.',
  'not-to-scale':
    'The card in it is not as large as the frame sheet beside it says: it is a picture of the card, or a print of one. Take a photo of the piece itself, flat on the sheet.',
  'no-cells':
    'No rows and columns of cells stand out near the corners you set. Drag the handles onto the outer corners of the four corner cells.',
  'other-cells':
    'The cells look narrower or wider than was typed. Measure one with a ruler and adopt the card again with that.',
  'more-cells':
    'More cells follow beyond the corners you set. Drag the handles onto the outermost cells, faint ones too, and tell the values of all of them.',
  'bad-corners': 'The four corners do not make a card. Drag them again.',
  'no-station':
    'Too few of a place’s markers can be seen to tell which place it shows: three of its four at the least. Take it again with all four in view.',
  'several-stations':
    'It shows several places at once. Take them one after another, each filling the picture: lines are told from close by only.',
  damaged: 'The file is damaged or cut off. Send it again from the camera.',
  'too-many-pixels': 'It has more than 40 megapixels.',
  fault: 'Reading it failed inside. The photo is kept; try again.',
};

/** What other corners may mend. */
const CORNER_REASONS: ReadonlySet<string> = new Set(['bad-corners', 'no-cells', 'other-cells', 'more-cells']);

type Judged = Pick<PhotoView, 'status' | 'step' | 'placeInLine' | 'detail' | 'otherCards'>;

/** By what a card is placed in its photo: its markers, a frame sheet under it, the corners of its cells that a hand set, or the markers of one of its stations. */
export type PlacedBy = 'markers' | 'sheet' | 'cells' | 'station';

export function placedBy({ adopted, frame, stations }: Pick<Layout, 'adopted' | 'frame' | 'stations'>): PlacedBy {
  // What is cut out has no markers: its photo is taken of holes.
  if (adopted || (!stations && !hasMarkers({ frame }) && frame.settings.markers !== 'on-sheet')) return 'cells';
  if (stations) return 'station';
  return hasMarkers({ frame }) ? 'markers' : 'sheet';
}

/** By what a photo that was read was placed, in a few words. */
export function placeWords(markers: number, corners: boolean): string {
  if (corners) return 'corners by hand';
  return markers === 0 ? 'the frame sheet' : `${markers} of 4 markers`;
}

/** What must be seen in a card's photo. */
export const IN_VIEW: Readonly<Record<PlacedBy, string>> = {
  markers: 'All four corner markers in view',
  sheet: 'On a frame sheet, with its four markers in view',
  cells: 'All cells in view',
  station: 'One place at a time, its four markers in view; as many photos at once as you like',
};

/** How a photo is taken on a light table. */
export const ON_LIGHT_TABLE =
  'the table’s open light to be seen on all sides of the piece, the room dark, the exposure set on the open light';

/** Which stations of a card photos that count show, and which ones are left; null for a card of one piece. */
export function stationWords({ stations }: Pick<Layout, 'stations'>, shown: readonly ShownPhoto[]): string | null {
  if (!stations) return null;
  const left = stations.filter((_, index) => !shown.some(({ station }) => station === index)).map(({ name }) => name);
  if (left.length === 0) return `All ${stations.length} places are read.`;
  const read = stations.length - left.length;
  return `${read === 0 ? 'No place is' : read === 1 ? 'One place is' : `${read} places are`} read. Still to be photographed: ${left.join(', ')}.`;
}

/** What the bench's camera would do with a card of so many stations: it goes to those that are not read, or to all of them again. */
export function cameraWords(stations: number, shown: readonly ShownPhoto[]): string {
  const left = stations - shown.length;
  if (shown.length === 0 || left === 0)
    return `Photograph all ${stations} places with the simulated camera${left === 0 ? ' again' : ''}`;
  return `Photograph the ${left === 1 ? 'place' : `${left} places`} left with the simulated camera`;
}

/** What became of a photo, in words, and what to do about it. */
export function stateOf(photo: Judged, placed: PlacedBy): string {
  switch (photo.status) {
    case 'waiting':
      return photo.placeInLine !== null && photo.placeInLine > 1
        ? `waiting: number ${photo.placeInLine} in line …`
        : 'waiting its turn …';
    case 'reading':
      return `${photo.step ?? 'reading'} …`;
    case 'read':
      return 'read';
    case 'needs-corners':
      return {
        cells: 'drag the corners of its cells',
        sheet: 'the card was not found on a frame sheet: drag the corners of its cells',
        markers: `${photo.detail.markers ?? 0} of 4 markers found: drag the four corners`,
        // A place is told by its markers alone, and never asked for by its corners.
        station: 'its markers were not found',
      }[placed];
    case 'other-card':
      return `shows card ${photo.otherCards[0]?.code ?? 'of another book'}`;
    case 'several-cards':
      return 'shows several cards';
    case 'unreadable':
      return REASONS[photo.detail.reason ?? 'fault'] ?? 'cannot be read';
  }
}

/** What a photo shows that was read as a mirror image. */
export const mirroredWords = (stock: Parameters<typeof isSeeThrough>[0]): string =>
  isSeeThrough(stock) ? 'seen through its back' : 'mirrored by its camera';

/** What is known of the camera's tones, in a few words. */
export function tonesWords(tones: Tones): string {
  if (tones.told === 'by-two' || tones.told === 'by-sheet') {
    const by = tones.told === 'by-two' ? 'two photos' : 'the frame sheet';
    return tones.bentBy < TRUE_TO_LIGHT
      ? `true to light, by ${by}`
      : `bent by up to ${plainNumber(100 * tones.bentBy, 2)} % of light, and put right by ${by}`;
  }
  if (tones.cameraIsTrue) return 'true to light: camera checked';
  return tones.told === 'by-one-photo' ? 'not known, from one photo' : `not known: ${NOT_TOLD[tones.why]}`;
}

const NOT_TOLD: Readonly<Record<Extract<Tones, { told: 'not-told' }>['why'], string>> = {
  'not-found': 'the second photo shows too few markers',
  'no-curve': 'the two photos do not tell one curve. Was the light alike?',
  'sheet-not-measured': 'the greys of this frame sheet were never measured',
  'sheet-not-flat': 'the frame sheet around it is not flat',
  'greys-disagree': 'the frame sheet is not the print that was measured, or lies in a shadow or a reflection',
  'no-greys': 'too few of the frame sheet’s greys can be seen',
};

const DOUBTS: Readonly<Record<Doubt, string>> = {
  clipped: 'the photo is blown out or black there',
  'stock-clipped':
    'the photo is overexposed: most of the bare stock is as bright as the camera can tell. Take it darker',
  blurred: 'the photo shows too few pixels of it',
  uneven: 'it is uneven within itself',
  'stock-varies': 'the bare stock around it varies',
  'off-frame': 'the card is not quite where the markers say',
  'few-markers': 'the frame was set by hand or by three markers',
  'far-from-bare-stock': 'too little bare stock can be seen near it',
  reflection: 'how much light a reflection adds there is not sure',
  'tones-unsure': 'the two photos do not agree well on tones like its own',
  'tones-unknown': 'what this camera makes of tones so far from bare stock is not known',
  'through-sheet': 'it is seen through its sheet, and how much of its contrast that takes is not known so well',
  'photos-disagree': 'the photos do not show it alike',
};

/** Why a cell is in doubt, each reason in words. */
export const doubtWords = ({ doubts }: Pick<CellReading, 'doubts'>): string =>
  doubts.map((doubt) => DOUBTS[doubt]).join('; ');

/** Why cells are in doubt: each reason that stands first with some of them, with how many, most first. */
export function doubtReasons(
  cells: readonly Pick<CellReading, 'doubts'>[],
): { readonly count: number; readonly words: string }[] {
  const counts = new Map<Doubt, number>();
  for (const [first] of cells.map(({ doubts }) => doubts)) if (first) counts.set(first, (counts.get(first) ?? 0) + 1);
  return [...counts].map(([doubt, count]) => ({ count, words: DOUBTS[doubt] })).sort((a, b) => b.count - a.count);
}

const NEXT_PHOTO: Readonly<Record<NextPhoto, string>> = {
  turned: 'One more photo with the card turned a quarter: light then falls on it from another side',
  darker: 'One more photo with the exposure set darker',
  closer: 'One more photo from closer by, the card filling the picture',
  flat: 'One more photo of the card lying flat, all four markers in view',
  'to-decide':
    'The photos do not show it alike. Leave aside the one with a reflection, a shadow or another piece in it, or take one more',
  'same-light': 'Two more photos in one light, one of them darker',
};

/** Which photo more would help, and whom; null where none would. */
export function nextPhotoWords(readings: readonly CellReading[], layout: Pick<Layout, 'cells'>): string | null {
  const next = oneMorePhoto(readings);
  if (!next) return null;
  return `${NEXT_PHOTO[next.how]}. It may tell what is not sure of ${cellPlaces(layout, next.cells)}; photos of a card are merged.`;
}

const SHEET_ADVICE: Readonly<Partial<Record<Extract<Tones, { told: 'not-told' }>['why'], string>>> = {
  'sheet-not-measured':
    'A frame sheet lies around the card, and its greys were never measured. Measure them once; photos taken from then on are put right by it.',
  'sheet-not-flat':
    'The frame sheet around the card is folded or bent, and told nothing. Lay it flat and take the photo again.',
  'greys-disagree':
    'The frame sheet around the card told nothing: it is not the print that was measured, or a shadow or a reflection lies over a part of it.',
  'no-greys':
    'The frame sheet around the card told nothing: too few of its greys are in the photo, or they are overexposed.',
};

/** What would tell more of a photo's tones, for somebody who can do something about it; null where they are told. */
export function tonesAdvice(tones: Tones, placed: PlacedBy): string | null {
  if (areKnown(tones)) return null;
  if (tones.told === 'not-told' && tones.why in SHEET_ADVICE) return SHEET_ADVICE[tones.why]!;
  if (placed !== 'markers')
    return 'Cameras bend tones, and dark cells suffer most. A frame sheet around the card shows how; or two photos of any card with markers, by this camera and one of them a stop or two darker.';
  return 'Cameras bend tones, and dark cells suffer most. One more photo by the same camera in the same light, with its exposure set one to two stops darker, shows how, and it is put right; so does a frame sheet around the card. A camera that is found true to light is trusted from then on.';
}

/** Stock darker than this is lifted by what it mirrors by more than its marks, and no photo tells it by itself. */
const DARK_STOCK = 45;
/** A light mark, and what a bright wall adds to it and its stock. */
const LIGHT_MARK = { lightness: 70, added: 0.01 };

/** What to keep out of a dark stock's mirror before a photo is taken, and why; null for stock that tells of it, or is harmed by it less. */
export function veilAdvice({ bareLightness }: { readonly bareLightness: number }): string | null {
  if (bareLightness >= DARK_STOCK) return null;
  const read = lightnessUnderVeil(LIGHT_MARK.lightness, bareLightness, LIGHT_MARK.added);
  return `This stock is dark: a hundredth of white from a bright wall or window in its mirror makes a light mark read ${plainNumber(LIGHT_MARK.lightness - read, 1)} L* too dark, and no single photo tells. Hold something dark behind the camera; a second photo from another side shows where that failed, and a frame sheet around the card takes most of it out.`;
}

/** Whether a photo that was read counts in what its card is told by; '' where it is the only one. */
export function countWords({ id, leftOut }: Pick<PhotoView, 'id' | 'leftOut'>, counting: readonly number[]): string {
  if (leftOut) return 'left aside';
  if (counting.includes(id)) return counting.length > 1 ? `one of ${counting.length} that count` : '';
  return 'does not count: others show the card as it is now, or by a camera whose tones are known';
}

/** Whether a photo waits for its corners to be set by hand, or may be read better with others. */
export function asksForCorners(
  { status, detail }: Pick<PhotoView, 'status' | 'detail'>,
  wantedByHand: boolean,
): boolean {
  if (status === 'needs-corners') return true;
  if (status === 'unreadable') return CORNER_REASONS.has(detail.reason ?? '');
  return status === 'read' && wantedByHand;
}

/** Whether the piece is to be shown as the simulated bench cannot make it: it takes soot off, and nothing more. */
export function isBeyondBench({ finish }: Pick<WorkSetup, 'finish'>, shows: FinishMoment | null): boolean {
  return shows === 'after' && ['sanded', 'stained'].includes(finish);
}
