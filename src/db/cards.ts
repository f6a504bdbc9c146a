import { sql } from 'kysely';
import type { Pairing } from '../core/card/contract';
import type { Layout } from '../core/card/layout';
import type { BedPlace } from '../core/card/check';
import type { Db } from './client';

export interface CardRecord {
  readonly id: number;
  readonly number: number;
  readonly kind: string;
  readonly pairingId: number;
  readonly plan: object;
  readonly layout: Layout;
  readonly madeFor: Pairing;
  /** Upper left corner on the sheet, and on the bed. */
  readonly sheetXMm: number;
  readonly sheetYMm: number;
  readonly bed: BedPlace;
  readonly estimatedS: number;
  readonly createdAt: string;
}

export type NewCard = Omit<CardRecord, 'id' | 'createdAt'>;

export async function nextCardNumber(db: Db): Promise<number> {
  const { rows } = await sql<{ number: string }>`select nextval('card_number') as number`.execute(db);
  return Number(rows[0]!.number);
}

export async function insertCard(db: Db, card: NewCard): Promise<number> {
  const row = {
    number: card.number,
    kind: card.kind,
    pairing_id: card.pairingId,
    plan: JSON.stringify(card.plan),
    layout: JSON.stringify(card.layout),
    made_for: JSON.stringify(card.madeFor),
    sheet_x_mm: card.sheetXMm,
    sheet_y_mm: card.sheetYMm,
    bed_left_mm: card.bed.leftMm,
    bed_rear_mm: card.bed.rearMm,
    estimated_s: card.estimatedS,
  };
  return (await db.insertInto('card').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

const cards = (db: Db) => db.selectFrom('card').selectAll('card');

type CardRow = Awaited<ReturnType<ReturnType<typeof cards>['execute']>>[number];

const cardOf = (row: CardRow): CardRecord => ({
  id: row.id,
  number: row.number,
  kind: row.kind,
  pairingId: row.pairing_id,
  plan: row.plan,
  layout: row.layout,
  madeFor: row.made_for,
  sheetXMm: row.sheet_x_mm,
  sheetYMm: row.sheet_y_mm,
  bed: { leftMm: row.bed_left_mm, rearMm: row.bed_rear_mm },
  estimatedS: row.estimated_s,
  createdAt: row.created_at.toISOString(),
});

export async function cardById(db: Db, id: number): Promise<CardRecord | undefined> {
  const row = await cards(db).where('id', '=', id).executeTakeFirst();
  return row && cardOf(row);
}

export async function cardByNumber(db: Db, number: number): Promise<CardRecord | undefined> {
  const row = await cards(db).where('number', '=', number).executeTakeFirst();
  return row && cardOf(row);
}

export async function cardsOfPairing(db: Db, pairingId: number): Promise<CardRecord[]> {
  return (await cards(db).where('pairing_id', '=', pairingId).orderBy('id', 'desc').execute()).map(cardOf);
}

/** Areas that cards of any pairing take on a stock's sheet, in sheet millimetres. */
export async function usedAreasOfStock(
  db: Db,
  stockId: number,
): Promise<{ cardId: number; code: string; x: number; y: number; width: number; height: number }[]> {
  const rows = await db
    .selectFrom('card')
    .innerJoin('pairing', 'pairing.id', 'card.pairing_id')
    .select(['card.id', 'card.sheet_x_mm', 'card.sheet_y_mm', 'card.layout'])
    .where('pairing.stock_id', '=', stockId)
    .orderBy('card.id')
    .execute();
  return rows.map((row) => ({
    cardId: row.id,
    code: row.layout.code,
    x: row.sheet_x_mm,
    y: row.sheet_y_mm,
    width: row.layout.widthMm,
    height: row.layout.heightMm,
  }));
}
