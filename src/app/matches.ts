import { createHash } from 'node:crypto';
import type { PhotoPlace, PlaceFault, ToneOfPlace } from '../core/reading/sheet/tone-of-place';
import { cardKind } from '../cards/registry';
import { fittingSheet } from '../core/sheet/frame-sheet';
import { newestOnBench } from '../db/burns';
import { sheetsInUse } from '../db/frame-sheets';
import * as photos from '../db/match-photos';
import type { MatchPhoto } from '../records/match-photo';
import type { MatchView } from '../views/views';
import { PHOTO_LIMITS } from '../workers/open-photo';
import type { PlaceToneAnswer } from '../workers/protocol';
import { benchBurnOf } from './bench-pieces';
import { getCard } from './cards';
import type { AppContext } from './context';
import { headerOf, photoTypeOf } from './photos';
import { printOrder } from './print-order';
import { notFound, Problem } from './problems';

/** Photos that a page offers to go on with. */
const NEWEST = 12;

/** Why a photo tells no tone of a place, in words. */
const FAULTS: Readonly<Record<PlaceFault | 'damaged', string>> = {
  'no-sheet': 'The photo shows no frame sheet: at least three of its four corner markers must be seen.',
  'sheet-not-measured': 'The greys of the frame sheet in the photo were never measured.',
  'sheet-not-flat': 'The frame sheet in the photo is folded, or its edges curl.',
  'greys-disagree':
    'The greys in the photo are not those that were measured, or a shadow or a reflection lies over a part of them.',
  'no-greys': 'Too few greys of the frame sheet can be told: the photo is too bright or too dark.',
  'beyond-sheet': 'The place lies beyond the frame sheet: how light falls there is not known.',
  'too-small': 'The place is a few pixels large: choose a larger one, or take the photo from closer by.',
  'blown-out': 'The place is as bright as the camera can tell: take the photo darker.',
  damaged: 'The photo cannot be opened.',
};

type Told = Exclude<PlaceToneAnswer, { fault: unknown }>;

async function tell(
  ctx: AppContext,
  bytes: Uint8Array,
  place: PhotoPlace | null,
  bare: PhotoPlace | null,
): Promise<Told> {
  const { greys } = await sheetsInUse(ctx.db);
  const answer = await ctx.work.do('place-tone', { bytes, sheets: greys, place, bare });
  if ('fault' in answer) throw new Problem('no-tone', FAULTS[answer.fault]);
  return answer;
}

/** Takes in a photo of a piece beside a frame sheet, once the sheet in it tells its tones. The same photo twice is one photo. */
export async function receiveMatchPhoto(ctx: AppContext, bytes: Buffer, name: string): Promise<MatchPhoto> {
  if (bytes.length > PHOTO_LIMITS.bytes) throw new Problem('photo-too-large', 'The photo is over 25 MB.');
  const mediaType = await photoTypeOf(bytes);
  await headerOf(bytes);
  const { widthPx, heightPx, pxPerMm, previewJpeg } = await tell(ctx, bytes, null, null);
  const id = await photos.insertMatchPhoto(ctx.db, {
    fileName: name.replace(/[^\p{L}\p{N} ._-]/gu, '_').slice(0, 120) || 'photo',
    mediaType,
    bytes,
    preview: Buffer.from(previewJpeg),
    widthPx,
    heightPx,
    pxPerMm,
    sha256: createHash('sha256').update(bytes).digest('hex'),
  });
  return (await photos.matchPhotoById(ctx.db, id))!;
}

/** Lets the bench's camera take a card that the bench burned, lying on a frame sheet: a piece whose settings nobody needs to know. */
export async function photographForMatch(ctx: AppContext, cardId: number): Promise<MatchPhoto> {
  const card = await getCard(ctx, cardId);
  const { jpeg } = await ctx.work.do('photograph', {
    burn: await benchBurnOf(ctx, card),
    shotSeed: `${card.layout.code} to match`,
    scale: ctx.cameraScale,
    stopsLess: 0,
    onSheet: printOrder(fittingSheet(card.layout)),
    litFrom: 'front',
    turned: false,
    cutOut: [],
  });
  return receiveMatchPhoto(ctx, Buffer.from(jpeg), `piece-${card.layout.code}.jpg`);
}

/** What the page of a piece to match starts from. */
export async function matchView(ctx: AppContext): Promise<MatchView> {
  const [newest, cards] = await Promise.all([matchPhotos(ctx), newestOnBench(ctx.db, NEWEST)]);
  const pieces = cards.map(({ id, code, kind, stock }) => ({ id, words: `${cardKind(kind).name} ${code}, ${stock}` }));
  return { photos: newest, pieces };
}

/** Photos that were taken in last, newest first. */
export const matchPhotos = ({ db }: AppContext): Promise<MatchPhoto[]> => photos.newestMatchPhotos(db, NEWEST);

async function imagesOf({ db }: AppContext, id: number): Promise<{ bytes: Buffer; preview: Buffer }> {
  const images = await photos.imagesOfMatchPhoto(db, id);
  if (!images) throw notFound('photo to match', id);
  return images;
}

export const matchPreview = async (ctx: AppContext, id: number): Promise<Buffer> => (await imagesOf(ctx, id)).preview;

/** The tone of a place of the piece, and of it beside its own bare stock where a place of that is named. */
export async function toneInPhoto(
  ctx: AppContext,
  id: number,
  { place, bare }: { readonly place: PhotoPlace; readonly bare: PhotoPlace | null },
): Promise<ToneOfPlace> {
  return (await tell(ctx, (await imagesOf(ctx, id)).bytes, place, bare)).tone!;
}
