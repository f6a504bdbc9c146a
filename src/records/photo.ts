import type { FinishMoment } from '../core/card/work-setup';
import type { Point } from '../core/geometry/point';
import type { Backlit } from '../core/reading/backlit/observations';
import type { CellReading } from '../core/reading/observations';
import type { PhotoFault } from '../core/reading/photo-faults';
import type { Tones } from '../core/reading/tone/tones';
import type { Exposure } from '../core/reading/tone/exposure';

/** Where the light came from: a lamp that shone on the card, or a light table under it. */
export type LitFrom = 'front' | 'behind';

export type PhotoStatus =
  | 'waiting'
  | 'reading'
  | 'read'
  | 'needs-corners'
  | 'other-card'
  | 'several-cards'
  | 'unreadable';

/** Why a photo could not be read, which cards it shows. */
export interface PhotoDetail {
  readonly reason?: string;
  readonly cardNumbers?: readonly number[];
  readonly markers?: number;
}

export interface PhotoRecord {
  readonly id: number;
  readonly cardId: number;
  readonly origin: 'upload' | 'bench-camera';
  readonly fileName: string;
  readonly mediaType: string;
  readonly byteCount: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly sha256: string;
  readonly status: PhotoStatus;
  readonly detail: PhotoDetail;
  readonly corners: readonly Point[] | null;
  /** As its camera says; null where it does not. */
  readonly exposure: Exposure | null;
  /** Null when nobody said. */
  readonly finish: FinishMoment | null;
  readonly litFrom: LitFrom;
  /** Left aside by the operator: what its card is told by does not count it. */
  readonly leftOut: boolean;
  /** Counts what was asked of it: a reading belongs to the revision it was begun for. */
  readonly revision: number;
  readonly createdAt: string;
}

export type ImageRole = 'original' | 'preview' | 'straightened';

export interface PhotoView extends PhotoRecord {
  /** What is being done with it right now. */
  readonly step: string | null;
  /** Its place among photos that wait to be read, from 1; null when it does not wait. */
  readonly placeInLine: number | null;
  /** Cards of ours that it shows instead. */
  readonly otherCards: readonly { readonly id: number; readonly code: string }[];
  /** What is wrong with it, worst first; nothing for photos that were not read. */
  readonly faults: readonly PhotoFault[];
  /** Whether it was read as a mirror image: of the piece's back, or by a camera that mirrors. */
  readonly mirrored: boolean;
  /** Which station of its card it was found to show; null for cards of one piece, and where it was not read. */
  readonly station: number | null;
}

/** What one photo of a card shows, or several of them merged. */
export interface ReadingRecord {
  readonly id: number;
  /** The photo it is drawn on: of several the newest. */
  readonly photoId: number;
  /** All that count in it, newest first. */
  readonly photoIds: readonly number[];
  readonly cardId: number;
  readonly markers: number;
  readonly frameErrorMm: number;
  readonly photoPxPerMm: number;
  readonly alsoSeen: readonly number[];
  /** What is known of the camera's tones, and by which other photo it was asked. */
  readonly tones: Tones;
  readonly secondPhotoId: number | null;
  /** The frame sheet around the card that told the camera's tones. */
  readonly frameSheetId: number | null;
  /** What is wrong with the photo that it is drawn on, worst first. */
  readonly faults: readonly PhotoFault[];
  readonly tookS: number;
  readonly createdAt: string;
  readonly cells: readonly CellReading[];
  /** Which station of the card its photo shows; null for cards of one piece. */
  readonly station: number | null;
  /** Straightened photos that show the card: its newest, or the newest of each station. */
  readonly shown: readonly ShownPhoto[];
}

/** A straightened photo, and which station of the card it shows: null where it shows the whole. */
export interface ShownPhoto {
  readonly photoId: number;
  readonly station: number | null;
}

/** What a photo of a card on a light table shows. */
export interface ThroughRecord extends Backlit {
  readonly id: number;
  /** The newest of its photos. */
  readonly photoId: number;
  /** All photos it was made of, the newest first. */
  readonly photoIds: readonly number[];
  readonly cardId: number;
  readonly markers: number;
  readonly frameErrorMm: number;
  readonly photoPxPerMm: number;
  readonly alsoSeen: readonly number[];
  readonly tones: Tones;
  readonly tookS: number;
  readonly createdAt: string;
}
