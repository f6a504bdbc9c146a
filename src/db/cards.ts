import { sql, type RawBuilder } from 'kysely';
import type { CardStage } from '../core/book/ladder';
import type { BasePlan } from '../core/card/contract';
import type { Cell, Layout } from '../core/card/layout';
import { areasOf, numbersOf } from '../core/card/station';
import { upgradeLayout, upgradePairing, upgradeStoredCell } from '../core/card/stored';
import type { CardRecord, CardSummary, RoundCard, UsedArea } from '../records/card';
import type { Db } from './client';

export type NewCard = Omit<CardRecord, 'id' | 'createdAt'>;

/** The first of as many numbers in a row as a card has. Numbers of a card that comes to nothing are lost. */
export async function nextCardNumber(db: Db, count = 1): Promise<number> {
  return db.transaction().execute(async (tx) => {
    // Who takes several must not find that somebody took one between them.
    await sql`select pg_advisory_xact_lock(hashtext('card_number'))`.execute(tx);
    const { rows } = await sql<{ number: string }>`select nextval('card_number') as number`.execute(tx);
    const number = Number(rows[0]!.number);
    if (count > 1) await sql`select setval('card_number', ${number + count - 1})`.execute(tx);
    return number;
  });
}

export async function insertCard(db: Db, card: NewCard): Promise<number> {
  const row = {
    number: card.number,
    numbers: numbersOf(card.layout),
    kind: card.kind,
    pairingId: card.pairingId,
    plan: JSON.stringify(card.plan),
    layout: JSON.stringify(card.layout),
    madeFor: JSON.stringify(card.madeFor),
    piece: card.piece,
    sheetXMm: card.sheetXMm,
    sheetYMm: card.sheetYMm,
    bedLeftMm: card.bed.leftMm,
    bedRearMm: card.bed.rearMm,
    estimatedS: card.estimatedS,
    roundId: card.roundId,
  };
  return (await db.insertInto('card').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

const cards = (db: Db) => db.selectFrom('card').selectAll('card');

type CardRow = Awaited<ReturnType<ReturnType<typeof cards>['execute']>>[number];

/** Cells that a search added stand after those that were drawn, and burn after them. */
function grown(layout: Layout, added: readonly Cell[]): Layout {
  if (added.length === 0) return layout;
  return {
    ...layout,
    cells: [...layout.cells, ...added.map(upgradeStoredCell)],
    order: [...layout.order, ...added.map((cell) => cell.index)],
  };
}

const cardOf = (row: CardRow, added: readonly Cell[]): CardRecord => ({
  id: row.id,
  number: row.number,
  kind: row.kind,
  pairingId: row.pairingId,
  plan: row.plan as BasePlan,
  layout: grown(upgradeLayout(row.layout), added),
  madeFor: upgradePairing(row.madeFor),
  piece: row.piece,
  sheetXMm: row.sheetXMm,
  sheetYMm: row.sheetYMm,
  bed: { leftMm: row.bedLeftMm, rearMm: row.bedRearMm },
  estimatedS: row.estimatedS,
  roundId: row.roundId,
  createdAt: row.createdAt.toISOString(),
});

export async function addedCells(db: Db, cardId: number): Promise<{ cell: Cell; why: string }[]> {
  const rows = await db
    .selectFrom('cardCell')
    .select(['cell', 'why'])
    .where('cardId', '=', cardId)
    .orderBy('cellIndex')
    .execute();
  return rows.map(({ cell, why }) => ({ cell, why }));
}

/** A second one at the same place of the card breaks the primary key. */
export async function insertCell(db: Db, cardId: number, cell: Cell, why: string): Promise<void> {
  await db
    .insertInto('cardCell')
    .values({ cardId: cardId, cellIndex: cell.index, cell: JSON.stringify(cell), why })
    .execute();
}

export async function cardById(db: Db, id: number): Promise<CardRecord | undefined> {
  const row = await cards(db).where('id', '=', id).executeTakeFirst();
  return (
    row &&
    cardOf(
      row,
      (await addedCells(db, id)).map(({ cell }) => cell),
    )
  );
}

/** The newest card of a pairing, of one kind or of any, as it was made: without what a search added. */
export async function newestCardOfPairing(
  db: Db,
  pairingId: number,
  kind: string | null,
): Promise<CardRecord | undefined> {
  let query = cards(db).where('pairingId', '=', pairingId).where('adopted', '=', false).orderBy('id', 'desc').limit(1);
  if (kind !== null) query = query.where('kind', '=', kind);
  const row = await query.executeTakeFirst();
  return row && cardOf(row, []);
}

/** Cards of a kind, newest first, as they were made: without what a search added. */
export async function cardsOfKind(db: Db, kind: string, limit: number): Promise<CardRecord[]> {
  const rows = await cards(db).where('kind', '=', kind).orderBy('id', 'desc').limit(limit).execute();
  return rows.map((row) => cardOf(row, []));
}

/** Ids and codes of cards by any of their numbers. */
export async function cardsByNumber(db: Db, numbers: readonly number[]): Promise<{ id: number; code: string }[]> {
  if (numbers.length === 0) return [];
  return db
    .selectFrom('card')
    .select(['id', 'code'])
    .where(({ or, eb, and }) =>
      or(
        numbers.map((number) =>
          and([eb('number', '<=', number), eb(sql<number>`card.number + card.numbers`, '>', number)]),
        ),
      ),
    )
    .orderBy('id')
    .execute();
}

/** Cards of a pairing, newest first, with how far each has come. */
export async function cardSummaries(
  db: Db,
  pairingId: number,
  { limit, offset }: { limit: number; offset: number },
): Promise<CardSummary[]> {
  return summariesOf(
    db,
    sql`select id, code, kind, adopted, created_at, estimated_s from card where pairing_id = ${pairingId} order by id desc limit ${limit} offset ${offset}`,
  );
}

async function summariesOf(db: Db, chosen: RawBuilder<unknown>): Promise<CardSummary[]> {
  const { rows } = await sql<{
    id: number;
    code: string;
    kind: string;
    createdAt: Date;
    estimatedS: number;
    burning: boolean;
    burned: boolean;
    photos: string;
    answers: boolean;
    photoId: number | null;
    kept: string;
  }>`
    select c.id, c.code, c.kind, c.created_at, c.estimated_s,
      exists (select 1 from burn b where b.card_id = c.id and b.ended_at is null) as burning,
      c.adopted or exists (select 1 from burn b where b.card_id = c.id) as burned,
      (select count(*) from photo p where p.card_id = c.id) as photos,
      exists (select 1 from answer a where a.card_id = c.id) as answers,
      (select p.id from photo p where p.card_id = c.id and p.status = 'read' order by p.id desc limit 1) as photo_id,
      (select count(*) from fact_version v where v.card_id = c.id) as kept
    from (${chosen}) c
    order by c.id desc`.execute(db);
  const stage = (row: (typeof rows)[number]): CardStage =>
    row.burning
      ? 'burning'
      : row.photoId !== null || row.answers
        ? 'seen'
        : Number(row.photos) > 0
          ? 'photographed'
          : row.burned
            ? 'burned'
            : 'planned';
  return rows.map((row) => ({
    id: row.id,
    code: row.code,
    kind: row.kind,
    createdAt: row.createdAt.toISOString(),
    estimatedS: row.estimatedS,
    stage: stage(row),
    kept: Number(row.kept),
    photoId: row.photoId,
  }));
}

/** Makes a round of a pairing, to which cards may be added that are made in the same transaction. */
export async function insertRound(db: Db, pairingId: number): Promise<number> {
  return (await db.insertInto('cardRound').values({ pairingId }).returning('id').executeTakeFirstOrThrow()).id;
}

/** The cards of a round in the order they were made and burn, with how far each has come. */
export async function cardsOfRound(db: Db, roundId: number): Promise<RoundCard[]> {
  const cards = await summariesOf(
    db,
    sql`select id, code, kind, adopted, created_at, estimated_s from card where round_id = ${roundId}`,
  );
  return cards.reverse().map(({ id, code, kind, stage, estimatedS }) => ({ id, code, kind, stage, estimatedS }));
}

/** Cards of the same round that have some of these numbers and lie where they were burned: none that was burned again, on another piece. */
export async function neighboursOf(db: Db, cardId: number, numbers: readonly number[]): Promise<number[]> {
  if (numbers.length === 0) return [];
  const rows = await db
    .selectFrom('card')
    .innerJoin('card as own', 'own.roundId', 'card.roundId')
    .select('card.id')
    .where('own.id', '=', cardId)
    .where('card.id', '!=', cardId)
    .where('card.number', 'in', numbers)
    .where(({ selectFrom }) =>
      selectFrom('burn')
        .select(({ fn }) => sql<boolean>`${fn.countAll()} <= 1`.as('once'))
        .whereRef('burn.cardId', '=', 'card.id'),
    )
    .orderBy('card.id')
    .execute();
  return rows.map(({ id }) => id);
}

/** Areas that cards of any pairing take on a stock's sheet, in sheet millimetres: one for a card, or one for each of its stations. */
export async function usedAreasOfStock(db: Db, stockId: number): Promise<UsedArea[]> {
  const rows = await db
    .selectFrom('card')
    .innerJoin('pairing', 'pairing.id', 'card.pairingId')
    .select([
      'card.id as cardId',
      'card.piece',
      'card.sheetXMm as x',
      'card.sheetYMm as y',
      'card.code',
      'card.widthMm',
      'card.heightMm',
      sql<Layout['stations'] | null>`card.layout -> 'stations'`.as('stations'),
    ])
    .where('pairing.stockId', '=', stockId)
    .where('card.adopted', '=', false)
    .orderBy('card.id')
    .execute();
  return rows.flatMap(({ x, y, widthMm, heightMm, stations, ...card }) =>
    areasOf({ widthMm, heightMm, ...(stations && { stations }) }).map((area) => ({
      ...card,
      ...area,
      x: x + area.x,
      y: y + area.y,
    })),
  );
}
