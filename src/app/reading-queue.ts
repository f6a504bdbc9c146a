import { hasMarkers } from '../core/card/layout';
import { isDatabaseAway, type Db } from '../db/client';
import { cardById, neighboursOf } from '../db/cards';
import {
  imageOfPhoto,
  insertPhotoToo,
  isAtRevision,
  newestReadPhoto,
  photoById,
  photosOfCard,
  putImage,
  requeuePhoto,
  setPhotoStatus,
  unreadPhotoIds,
} from '../db/photos';
import { bentByOfCamera, noteCamera } from '../db/cameras';
import { sheetsInUse } from '../db/frame-sheets';
import { insertReading, readByThemselves } from '../db/readings';
import { insertThrough } from '../db/through';
import { isSeeThrough } from '../core/stock/see-through';
import { secondExposureOf } from '../core/reading/tone/exposure';
import { TRUE_TO_LIGHT } from '../core/reading/tone/undone-tones';
import type { PhotoRecord } from '../records/photo';
import type { ReadAnswer, ReadJob } from '../workers/protocol';
import { tellAnew, tellThroughAnew } from './card-reading';
import type { HeavyWork } from './heavy-work';
import type { Log } from './log';

/** Photos in which the card itself may be seen. */
const SHOWS_CARD: ReadonlySet<PhotoRecord['status']> = new Set(['waiting', 'reading', 'read', 'needs-corners']);

/** Photos that are read at once: one for each core of a small machine. */
const AT_ONCE = 2;
/** Photos that may wait. Each is a second or two: who comes after these would wait for minutes, and is told so at the door. */
const MOST_WAITING = 60;

/**
 * Reads waiting photos in the order they came, two at once, off the request thread. The database holds the line (photos whose status is waiting
 * or reading), so that a server that died finds it again; here is only what goes on now.
 */
export class ReadingQueue {
  private readonly line: number[] = [];
  private readonly steps = new Map<number, string>();
  /** Photos of which something else was asked while they were read. */
  private readonly again = new Set<number>();
  /** Photos that are read now, each with the end of its reading. */
  private readonly reading = new Map<number, Promise<void>>();
  private stopped = false;

  constructor(
    private readonly db: Db,
    private readonly work: HeavyWork,
    private readonly log: Log,
  ) {}

  /** Puts photos in line that an earlier run of the server did not get to. */
  async resume(): Promise<number> {
    const ids = await unreadPhotoIds(this.db);
    ids.forEach((id) => this.add(id));
    return ids.length;
  }

  /**
   * Reads the newest photo that was read once more in every thread, and keeps nothing of it: the runtime makes fast code only of what has run, and the
   * first photo after a start would take half as long again as later ones. Nothing is done where photos wait, or where none was read before.
   */
  async warmUp(): Promise<void> {
    const photo = await newestReadPhoto(this.db);
    if (!photo || this.reading.size > 0) return;
    const { work } = await this.workOf(photo);
    await Promise.all(Array.from({ length: AT_ONCE }, () => this.work.do('read', { ...work, second: null })));
  }

  add(photoId: number): void {
    if (this.stopped || this.line.includes(photoId)) return;
    // Never twice at once: what was begun ends first.
    if (this.reading.has(photoId)) {
      this.again.add(photoId);
      return;
    }
    this.line.push(photoId);
    this.steps.set(photoId, 'waiting');
    this.goOn();
  }

  /** Whether no more photos are taken in for now. */
  get isFull(): boolean {
    return this.line.length >= MOST_WAITING;
  }

  /** The place of a photo among those that wait, from 1; null when it does not wait. */
  placeOf(photoId: number): number | null {
    const place = this.line.indexOf(photoId);
    return place < 0 ? null : place + 1;
  }

  /** What is being done with a photo right now; null when nothing is. */
  stepOf(photoId: number): string | null {
    return this.steps.get(photoId) ?? null;
  }

  /** Resolves when nothing is in line. */
  async idle(): Promise<void> {
    while (this.reading.size > 0) await Promise.all(this.reading.values());
  }

  stop(): void {
    this.stopped = true;
    this.line.length = 0;
  }

  private goOn(): void {
    while (this.reading.size < AT_ONCE) {
      const id = this.line.shift();
      if (id === undefined) return;
      this.reading.set(id, this.take(id));
    }
  }

  private async take(id: number): Promise<void> {
    try {
      await this.readOne(id);
    } catch (error) {
      if (this.stopped) return;
      this.log.error({ photoId: id, error: String(error) }, 'reading a photo failed');
      await this.giveUpOrRetry(id, error);
    } finally {
      // Here and not in a later turn: what is added from now on must start anew.
      this.reading.delete(id);
      this.steps.delete(id);
      if (this.again.delete(id)) this.add(id);
      this.goOn();
    }
  }

  private async giveUpOrRetry(id: number, error: unknown): Promise<void> {
    if (isDatabaseAway(error)) {
      // The photo is safe in the database; it is tried again when the server comes back.
      setTimeout(() => this.add(id), 2000).unref();
      return;
    }
    await setPhotoStatus(this.db, id, 'unreadable', { reason: 'fault' }).catch(() => undefined);
  }

  private async readOne(id: number): Promise<void> {
    const photo = await photoById(this.db, id);
    if (!photo || (photo.status !== 'waiting' && photo.status !== 'reading')) return;
    const { work, sheetIds } = await this.workOf(photo);
    await setPhotoStatus(this.db, id, 'reading');
    // A second photo is placed by markers.
    const byTwo = hasMarkers(work.layout) && !work.layout.stations && photo.litFrom === 'front';
    const second = byTwo ? await this.secondOf(photo) : null;
    const answer = await this.work.do('read', { ...work, second: second?.job ?? null }, ({ step }) =>
      this.steps.set(id, step),
    );
    if (!(await this.store(photo, second?.id ?? null, answer, sheetIds))) this.again.add(id);
    else if (answer.outcome === 'read') {
      await this.handOn(photo, answer.alsoSeen, work.bytes);
      if (byTwo) await this.readBrighterAgain(photo);
    }
  }

  /** What a photo is read with, but for a second one; and the sheets whose greys are in it. */
  private async workOf(photo: PhotoRecord) {
    const [card, image] = await Promise.all([
      cardById(this.db, photo.cardId),
      imageOfPhoto(this.db, photo.id, 'original'),
    ]);
    if (!card || !image) throw new Error(`photo ${photo.id} has no card or no bytes`);
    const { layout, madeFor } = card;
    const cameraIsTrue = await this.isTrueCamera(photo);
    const { greys, ids } = await sheetsInUse(this.db);
    const work = {
      bytes: image.bytes,
      layout,
      stock: madeFor.stock,
      corners: photo.corners,
      litFrom: photo.litFrom,
      seeThrough: isSeeThrough(madeFor.stock),
      cameraIsTrue,
      spot: { xMm: madeFor.lens.spotXMm, yMm: madeFor.lens.spotYMm },
      sheets: greys,
    };
    return { work, sheetIds: ids };
  }

  /** Reads a photo for the cards beside the one it was taken of, where they were burned in one go. */
  private async handOn(photo: PhotoRecord, alsoSeen: readonly number[], bytes: Buffer): Promise<void> {
    for (const cardId of await neighboursOf(this.db, photo.cardId, alsoSeen)) {
      const id = await this.db.transaction().execute((tx) => insertPhotoToo(tx, photo, cardId, bytes));
      if (id !== null) this.add(id);
    }
  }

  /** Whether a photo's camera was found to store light as it is, when it was checked last. */
  private async isTrueCamera({ exposure }: PhotoRecord): Promise<boolean> {
    const bentBy = exposure && (await bentByOfCamera(this.db, exposure.camera));
    return bentBy !== null && bentBy < TRUE_TO_LIGHT;
  }

  /** Another photo of the card that tells what the camera makes of tones. */
  private async secondOf(photo: PhotoRecord): Promise<{ id: number; job: ReadJob['second'] } | null> {
    const others = (await photosOfCard(this.db, photo.cardId)).filter(
      ({ id, status, leftOut, litFrom }) =>
        id !== photo.id && !leftOut && litFrom === 'front' && SHOWS_CARD.has(status),
    );
    const second = secondExposureOf(photo, others);
    const image = second && (await imageOfPhoto(this.db, second.photo.id, 'original'));
    return image ? { id: second.photo.id, job: { ...second.ratio, bytes: image.bytes } } : null;
  }

  /** The brighter photo that came right before this newest one, and was read by itself, is read again with it: it has less noise. */
  private async readBrighterAgain(photo: PhotoRecord): Promise<void> {
    // Newest first. What an older photo shows must not come before what a newer one does.
    const [newest, before] = (await photosOfCard(this.db, photo.cardId)).filter(({ litFrom }) => litFrom === 'front');
    if (newest?.id !== photo.id || before?.status !== 'read' || before.leftOut) return;
    if ((secondExposureOf(before, [photo])?.ratio.logRatio ?? 0) <= 0) return;
    for (const id of await readByThemselves(this.db, [before.id])) {
      await requeuePhoto(this.db, id, {});
      this.add(id);
    }
  }

  /** Stores what was read, unless something else was asked of the photo meanwhile: then nothing is stored, and false returned. */
  private async store(
    { id: photoId, cardId, revision, exposure }: PhotoRecord,
    secondPhotoId: number | null,
    answer: ReadAnswer,
    sheetIds: Awaited<ReturnType<typeof sheetsInUse>>['ids'],
  ): Promise<boolean> {
    const stored = await this.db.transaction().execute(async (tx) => {
      if (!(await isAtRevision(tx, photoId, revision))) return false;
      if (answer.previewJpeg) await putImage(tx, photoId, 'preview', 'image/jpeg', Buffer.from(answer.previewJpeg));
      switch (answer.outcome) {
        case 'read': {
          const { cells, toPhoto, markers, frameErrorMm, photoPxPerMm, alsoSeen, tones, faults, tookS, station } =
            answer;
          await putImage(tx, photoId, 'straightened', 'image/jpeg', Buffer.from(answer.straightenedJpeg));
          const readingId = await insertReading(tx, {
            photoId,
            cardId,
            toPhoto,
            markers,
            frameErrorMm,
            photoPxPerMm,
            alsoSeen,
            tones,
            faults,
            secondPhotoId: tones.told === 'by-sheet' ? null : secondPhotoId,
            frameSheetId: tones.told === 'by-sheet' ? sheetIds[tones.format]! : null,
            tookS,
            mergedFrom: null,
            cells,
            station,
          });
          if (exposure && 'bentBy' in tones)
            await noteCamera(tx, { name: exposure.camera, bentBy: tones.bentBy, readingId });
          await setPhotoStatus(tx, photoId, 'read');
          await tellAnew(tx, cardId);
          return true;
        }
        case 'read-through': {
          const { outcome, previewJpeg, straightenedJpeg, ...told } = answer;
          await putImage(tx, photoId, 'straightened', 'image/jpeg', Buffer.from(straightenedJpeg));
          await insertThrough(tx, { photoId, cardId, mergedFrom: null, ...told });
          await setPhotoStatus(tx, photoId, 'read');
          await tellThroughAnew(tx, cardId);
          return true;
        }
        case 'other-card':
          await setPhotoStatus(tx, photoId, 'other-card', { cardNumbers: [answer.cardNumber] });
          return true;
        case 'several-cards':
          await setPhotoStatus(tx, photoId, 'several-cards', { cardNumbers: [...answer.cardNumbers] });
          return true;
        case 'needs-corners':
          await setPhotoStatus(tx, photoId, 'needs-corners', { markers: answer.markers });
          return true;
        case 'unreadable':
          await setPhotoStatus(tx, photoId, 'unreadable', { reason: answer.reason });
          return true;
      }
    });
    this.log.info({ photoId, outcome: answer.outcome, tookS: answer.tookS, stored }, 'photo read');
    return stored;
  }
}
