import type { CardStage } from '../core/book/ladder';
import type { BedPlace } from '../core/card/check';
import type { BasePlan, Pairing } from '../core/card/contract';
import type { Layout } from '../core/card/layout';

export interface CardRecord {
  readonly id: number;
  readonly number: number;
  readonly kind: string;
  readonly pairingId: number;
  readonly plan: BasePlan;
  /** With the cells that a search added since it was made. */
  readonly layout: Layout;
  /** Machine, lens and stock as they were when the card was made. */
  readonly madeFor: Pairing;
  /** Which sheet or blank of its stock it lies on, counted from 1. */
  readonly piece: number;
  /** Upper left corner on the sheet, and on the bed. */
  readonly sheetXMm: number;
  readonly sheetYMm: number;
  readonly bed: BedPlace;
  readonly estimatedS: number;
  /** The cards it was made with, to be burned in one go; null for a card by itself. */
  readonly roundId: number | null;
  readonly createdAt: string;
}

/** A card of a round, and how far it has come. */
export interface RoundCard {
  readonly id: number;
  readonly code: string;
  readonly kind: string;
  readonly stage: CardStage;
  readonly estimatedS: number;
}

export interface CardSummary {
  readonly id: number;
  readonly code: string;
  readonly kind: string;
  readonly createdAt: string;
  readonly estimatedS: number;
  readonly stage: CardStage;
  /** How many versions of facts were kept from it. */
  readonly kept: number;
  /** Its newest photo that was read. */
  readonly photoId: number | null;
}

export interface UsedArea {
  readonly cardId: number;
  readonly code: string;
  readonly piece: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where a sheet's rear left corner lies, from the bed's rear left corner. */
export interface SheetOnBed {
  readonly leftMm: number;
  readonly rearMm: number;
}
