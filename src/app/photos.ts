import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import sharp from 'sharp';
import { cardKind } from '../cards/registry';
import type { PhotoFault } from '../core/reading/photo-faults';
import type { Exposure } from '../core/reading/tone/exposure';
import { asksForHoles, asksOn, asksThrough } from '../core/card/usual-asks';
import type { FinishMoment } from '../core/card/work-setup';
import type { Point } from '../core/geometry/point';
import { cardsByNumber } from '../db/cards';
import * as photos from '../db/photos';
import { newestReading, toldOfPhotos } from '../db/readings';
import { mirroredThrough } from '../db/through';
import type { ImageRole, LitFrom, PhotoRecord, PhotoView } from '../records/photo';
import { PHOTO_LIMITS } from '../workers/open-photo';
import { lightOverPhotos, tellAnew, tellThroughAnew } from './card-reading';
import { getCard } from './cards';
import type { AppContext } from './context';
import { exposureOf } from './exif';
import { notFound, Problem } from './problems';

export interface IncomingPhoto {
  readonly bytes: Buffer;
  readonly fileName: string;
  readonly origin: 'upload' | 'bench-camera';
  readonly finish: FinishMoment | null;
  readonly litFrom: LitFrom;
}

const OPENED = new Set(['image/jpeg', 'image/png', 'image/webp']);
const PHONES_OWN = new Set(['image/heic', 'image/heif', 'image/heic-sequence', 'image/heif-sequence', 'image/avif']);

/** The media type of a photo that can be opened, by the file's own bytes. Names and declared types are not believed. */
export async function photoTypeOf(bytes: Uint8Array): Promise<string> {
  const { mime } = (await fileTypeFromBuffer(bytes)) ?? { mime: 'application/octet-stream' };
  if (PHONES_OWN.has(mime)) throw new Problem('photo-heic', 'This is a HEIC photo, the format of some phones.');
  if (!OPENED.has(mime)) throw new Problem('photo-not-readable', 'The file is not a JPEG, PNG or WebP picture.');
  return mime;
}

/** Size and exposure of a picture, by its header alone. */
export async function headerOf(bytes: Buffer): Promise<{ width: number; height: number; exposure: Exposure | null }> {
  let header: { width: number; height: number; exposure: Exposure | null };
  try {
    // Reads the header only: a picture that unpacks to gigabytes is refused before it is unpacked.
    const { width, height, pages, exif } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if ((pages ?? 1) > 1) throw new Error('animated');
    header = { width, height, exposure: exposureOf(exif) };
  } catch {
    throw new Problem(
      'photo-not-readable',
      'The file starts like a picture but cannot be opened.',
      'The card and its other photos are untouched.',
    );
  }
  if (header.width * header.height > PHOTO_LIMITS.pixels) {
    throw new Problem(
      'photo-too-large',
      `The photo has ${Math.round((header.width * header.height) / 1e6)} megapixels; 40 are the most.`,
    );
  }
  if (Math.min(header.width, header.height) < 200) {
    throw new Problem(
      'photo-not-readable',
      `The picture is ${header.width} × ${header.height} pixels: too small to show a card.`,
    );
  }
  return header;
}

/** Throws a Problem where nothing is asked of a card in such light, or there is no such card. */
export async function refuseUnlessAsked(ctx: AppContext, cardId: number, litFrom: LitFrom): Promise<void> {
  const { kind, madeFor, layout } = await getCard(ctx, cardId);
  const asks = asksOn(cardKind(kind).asks, madeFor.stock);
  if (litFrom === 'front' && asksForHoles(asks))
    throw new Problem(
      'invalid-input',
      `Card ${layout.code} is cut out: a photo tells what has dropped by the light of a table under it.`,
      'Nothing was taken in.',
      [{ field: 'lit', message: 'Lay it on a light table.' }],
    );
  if (litFrom === 'front' || asksThrough(asks)) return;
  const title =
    'A light table shows how much of a coat on a clear sheet is gone, and what has dropped out of a cut one.';
  throw new Problem(
    'invalid-input',
    `Card ${layout.code} is not asked about the light that comes through it.`,
    'Nothing was taken in.',
    [{ field: 'lit', message: title }],
  );
}

/** Takes a photo of a card in: checks it at the door, keeps its bytes, and puts it in line. The same photo twice is one photo. */
export async function receivePhoto(
  ctx: AppContext,
  cardId: number,
  incoming: IncomingPhoto,
): Promise<{ id: number; again: boolean }> {
  const { bytes, origin, finish, litFrom } = incoming;
  await refuseUnlessAsked(ctx, cardId, litFrom);
  if (ctx.readings.isFull)
    throw new Problem(
      'too-many-photos',
      'As many photos wait as can be read in a minute or two.',
      'The photo was not taken in; those that wait are kept.',
    );
  if (bytes.length > PHOTO_LIMITS.bytes) throw new Problem('photo-too-large', 'The photo is over 25 MB.');
  const mediaType = await photoTypeOf(bytes);
  const header = await headerOf(bytes);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const photo = {
    cardId,
    origin,
    fileName: incoming.fileName.replace(/[^\p{L}\p{N} ._-]/gu, '_').slice(0, 120) || 'photo',
    mediaType,
    byteCount: bytes.length,
    widthPx: header.width,
    heightPx: header.height,
    sha256,
    exposure: header.exposure,
    finish,
    litFrom,
  };
  const id = await ctx.db.transaction().execute((tx) => photos.insertPhoto(tx, photo, bytes));
  if (id === null) {
    const earlier = await photos.photoOfCardByHash(ctx.db, cardId, sha256);
    return { id: earlier!.id, again: true };
  }
  ctx.readings.add(id);
  return { id, again: false };
}

/** Other cards that a photo shows: of one that was read those that it is not read for. */
async function otherCards({ db }: AppContext, photo: PhotoRecord, alsoSeen: readonly number[]) {
  if (photo.status !== 'read') return cardsByNumber(db, photo.detail.cardNumbers ?? []);
  const shown = (await cardsByNumber(db, alsoSeen)).filter(({ id }) => id !== photo.cardId);
  const has = await Promise.all(shown.map(({ id }) => photos.photoOfCardByHash(db, id, photo.sha256)));
  return shown.filter((_, index) => has[index] === undefined);
}

/** Photos with what is done with them just now and what came of them. */
export async function viewPhotos(ctx: AppContext, records: readonly PhotoRecord[]): Promise<PhotoView[]> {
  const read = records.filter(({ status }) => status === 'read').map(({ id }) => id);
  const cards = [...new Set(records.filter(({ status }) => status === 'read').map(({ cardId }) => cardId))];
  const [told, fromBehind, ...light] = await Promise.all([
    toldOfPhotos(ctx.db, read),
    mirroredThrough(ctx.db, read),
    ...cards.map((cardId) => lightOverPhotos(ctx.db, cardId)),
  ]);
  const moreLight = (photoId: number): PhotoFault[] =>
    light.flatMap((over) => {
      const amount = over.get(photoId);
      return amount === undefined ? [] : [{ fault: 'more-light', amount, area: null, line: null, cells: [] }];
    });
  return Promise.all(
    records.map(async (photo) => ({
      ...photo,
      step: ctx.readings.stepOf(photo.id),
      placeInLine: ctx.readings.placeOf(photo.id),
      otherCards: await otherCards(ctx, photo, told.get(photo.id)?.alsoSeen ?? []),
      faults: [...moreLight(photo.id), ...(told.get(photo.id)?.faults ?? [])],
      mirrored: told.get(photo.id)?.mirrored ?? fromBehind.has(photo.id),
      station: told.get(photo.id)?.station ?? null,
    })),
  );
}

export async function getPhoto(ctx: AppContext, id: number): Promise<PhotoView> {
  const photo = await photos.photoById(ctx.db, id);
  if (!photo) throw notFound('photo', id);
  const [view] = await viewPhotos(ctx, [photo]);
  return view!;
}

/** Reads a photo again with the card's corners as the operator dragged them, in photo pixels. */
export async function setCorners(ctx: AppContext, id: number, corners: readonly Point[]): Promise<PhotoView> {
  const photo = await getPhoto(ctx, id);
  const outside = corners.some(
    ({ x, y }) => x < -photo.widthPx || y < -photo.heightPx || x > 2 * photo.widthPx || y > 2 * photo.heightPx,
  );
  if (outside)
    throw new Problem('invalid-input', 'A corner lies far outside the photo.', 'The photo is kept.', [
      { field: 'corners', message: 'Drag each handle to a corner of the card.' },
    ]);
  await photos.requeuePhoto(ctx.db, id, { corners });
  ctx.readings.add(id);
  return getPhoto(ctx, id);
}

/** Counts a photo that was read in what its card is told by, or leaves it aside. */
export async function setCounts(ctx: AppContext, id: number, counts: boolean): Promise<PhotoView> {
  const photo = await getPhoto(ctx, id);
  await ctx.db.transaction().execute(async (tx) => {
    const told = await newestReading(tx, photo.cardId);
    await photos.setLeftOut(tx, id, !counts);
    if (photo.litFrom === 'behind') return tellThroughAnew(tx, photo.cardId);
    if (!(await tellAnew(tx, photo.cardId)) && told?.photoIds.includes(id))
      throw new Problem(
        'only-photo',
        `Nothing else tells what ${photo.fileName} shows.`,
        'The photo counts as before.',
      );
  });
  return getPhoto(ctx, id);
}

/** Reads a photo for another card that it shows, too. */
export async function readForToo(ctx: AppContext, id: number, cardId: number): Promise<{ id: number; cardId: number }> {
  const photo = await getPhoto(ctx, id);
  await refuseUnlessAsked(ctx, cardId, photo.litFrom);
  const { bytes } = (await photos.imageOfPhoto(ctx.db, id, 'original'))!;
  const { step, placeInLine, otherCards, faults, mirrored, station, ...record } = photo;
  const added = await ctx.db.transaction().execute((tx) => photos.insertPhotoToo(tx, record, cardId, bytes));
  if (added === null) return { id: (await photos.photoOfCardByHash(ctx.db, cardId, photo.sha256))!.id, cardId };
  ctx.readings.add(added);
  return { id: added, cardId };
}

/** Moves a photo to the card that it shows and reads it there. */
export async function movePhoto(ctx: AppContext, id: number, cardId: number): Promise<{ id: number; cardId: number }> {
  const photo = await getPhoto(ctx, id);
  await getCard(ctx, cardId);
  const already = await photos.photoOfCardByHash(ctx.db, cardId, photo.sha256);
  if (already) return { id: already.id, cardId };
  await photos.requeuePhoto(ctx.db, id, { cardId });
  ctx.readings.add(id);
  return { id, cardId };
}

export async function getPhotoImage(
  ctx: AppContext,
  id: number,
  role: ImageRole,
): Promise<{ mediaType: string; bytes: Buffer }> {
  const image = await photos.imageOfPhoto(ctx.db, id, role);
  if (!image) throw notFound(`${role} picture of photo`, id);
  return image;
}
