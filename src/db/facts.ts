import { sql, type Selectable } from 'kysely';
import { conditionsKey, type Conditions, type FactName, type FactOwner, type FactValues } from '../core/book/facts';
import { upgradeSettings } from '../core/card/settings';
import { upgradePairing } from '../core/card/stored';
import type { FactRecord, FactVersionRecord } from '../records/fact';
import type { Db } from './client';
import type { FactTable, FactVersionTable } from './schema';

const factOf = (row: Selectable<FactTable>): FactRecord => ({
  id: row.id,
  name: row.name,
  owner: row.owner,
  pairingId: row.pairing_id,
  machineId: row.machine_id,
  lensId: row.lens_id,
  stockId: row.stock_id,
  at: row.at,
});

/** A value as it was stored; settings have words that they lacked. */
function upgradeFactValue(stored: object): FactValues[FactName] {
  const value = stored as FactValues[FactName];
  return 'settings' in value ? { ...value, settings: upgradeSettings(value.settings) } : value;
}

const versionOf = (row: Selectable<FactVersionTable>): FactVersionRecord => ({
  id: row.id,
  factId: row.fact_id,
  version: row.version,
  value: upgradeFactValue(row.value),
  sigma: row.sigma,
  origin: row.origin,
  cardId: row.card_id,
  cellIndex: row.cell_index,
  photoId: row.photo_id,
  readingId: row.reading_id,
  findingId: row.finding_id,
  madeFor: upgradePairing(row.made_for),
  note: row.note,
  createdAt: row.created_at.toISOString(),
});

/** What a fact belongs to: exactly one of the ids. */
export type OwnerId =
  | { readonly pairingId: number }
  | { readonly machineId: number }
  | { readonly lensId: number }
  | { readonly stockId: number };

function ownerColumns(owner: OwnerId) {
  const none = { pairing_id: null, machine_id: null, lens_id: null, stock_id: null };
  if ('pairingId' in owner) return { ...none, owner: 'pairing' as FactOwner, pairing_id: owner.pairingId };
  if ('machineId' in owner) return { ...none, owner: 'machine' as FactOwner, machine_id: owner.machineId };
  if ('lensId' in owner) return { ...none, owner: 'lens' as FactOwner, lens_id: owner.lensId };
  return { ...none, owner: 'stock' as FactOwner, stock_id: owner.stockId };
}

/** A version to be kept: which fact it is of, and everything but what the database gives it. */
export interface NewFactVersion extends Omit<FactVersionRecord, 'id' | 'factId' | 'version' | 'createdAt'> {
  readonly name: FactName;
  readonly at: Conditions;
}

/**
 * Keeps a new version of a fact and returns its place in the book. To be called in a transaction: the fact's row is locked, so that
 * two who keep at the same time get two numbers.
 */
export async function insertFactVersion(
  db: Db,
  owner: OwnerId,
  fact: NewFactVersion,
): Promise<{ factId: number; version: number }> {
  const columns = ownerColumns(owner);
  const key = conditionsKey(fact.at);
  await db
    .insertInto('fact')
    .values({ ...columns, name: fact.name, at: JSON.stringify(fact.at), at_key: key })
    .onConflict((conflict) =>
      conflict.columns(['name', 'pairing_id', 'machine_id', 'lens_id', 'stock_id', 'at_key']).doNothing(),
    )
    .execute();
  const { id } = await db
    .selectFrom('fact')
    .select('id')
    .where('name', '=', fact.name)
    .where('at_key', '=', key)
    .where('pairing_id', 'is not distinct from', columns.pairing_id)
    .where('machine_id', 'is not distinct from', columns.machine_id)
    .where('lens_id', 'is not distinct from', columns.lens_id)
    .where('stock_id', 'is not distinct from', columns.stock_id)
    .forUpdate()
    .executeTakeFirstOrThrow();
  const last = await db
    .selectFrom('fact_version')
    .select(({ fn }) => fn.max('version').as('version'))
    .where('fact_id', '=', id)
    .executeTakeFirst();
  const version = (last?.version ?? 0) + 1;
  await db
    .insertInto('fact_version')
    .values({
      fact_id: id,
      version,
      value: JSON.stringify(fact.value),
      sigma: fact.sigma,
      origin: fact.origin,
      card_id: fact.cardId,
      cell_index: fact.cellIndex,
      photo_id: fact.photoId,
      reading_id: fact.readingId,
      finding_id: fact.findingId,
      made_for: JSON.stringify(fact.madeFor),
      note: fact.note,
    })
    .execute();
  return { factId: id, version };
}

/** Where a version comes from that no card, photo or finding stands behind. */
export const FROM_NO_CARD = {
  cardId: null,
  cellIndex: null,
  photoId: null,
  readingId: null,
  findingId: null,
} as const satisfies Partial<NewFactVersion>;

/** Newest versions first, one for each fact. */
const newest = (db: Db) =>
  db
    .selectFrom('fact')
    .innerJoin('fact_version', 'fact_version.fact_id', 'fact.id')
    .where(
      'fact_version.version',
      '=',
      sql<number>`(select max(v.version) from fact_version v where v.fact_id = fact.id)`,
    );

export interface CurrentFact {
  readonly fact: FactRecord;
  readonly newest: FactVersionRecord;
}

const factColumns = [
  'fact.id as fact_id_', 'fact.name', 'fact.owner', 'fact.pairing_id', 'fact.machine_id', 'fact.lens_id', 'fact.stock_id', 'fact.at', 'fact.at_key',
  'fact.created_at as fact_created_at',
] as const; // prettier-ignore

type JoinedRow = Selectable<FactVersionTable> &
  Omit<Selectable<FactTable>, 'id' | 'created_at'> & { fact_id_: number; fact_created_at: Date };

const currentOf = (row: JoinedRow): CurrentFact => ({
  fact: factOf({ ...row, id: row.fact_id_, created_at: row.fact_created_at }),
  newest: versionOf(row),
});

/** The newest version of every fact of a pairing, of its machine and lens, and of its stock. */
export async function factsFor(
  db: Db,
  key: { pairingId: number; machineId: number; lensId: number; stockId: number },
): Promise<CurrentFact[]> {
  const rows = await newest(db)
    .selectAll('fact_version')
    .select(factColumns)
    .where(({ eb, or }) =>
      or([
        eb('fact.pairing_id', '=', key.pairingId),
        eb('fact.machine_id', '=', key.machineId),
        eb('fact.lens_id', '=', key.lensId),
        eb('fact.stock_id', '=', key.stockId),
      ]),
    )
    .orderBy('fact.id')
    .execute();
  return rows.map(currentOf);
}

export async function factById(
  db: Db,
  id: number,
): Promise<{ fact: FactRecord; versions: FactVersionRecord[] } | undefined> {
  const row = await db.selectFrom('fact').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const versions = await db
    .selectFrom('fact_version')
    .selectAll()
    .where('fact_id', '=', id)
    .orderBy('version', 'desc')
    .execute();
  return { fact: factOf(row), versions: versions.map(versionOf) };
}

/** The newest version of a record's fact, to tell whether a new one says anything new. */
export async function newestOfOwner(db: Db, owner: OwnerId, name: FactName): Promise<FactVersionRecord | undefined> {
  const columns = ownerColumns(owner);
  const row = await newest(db)
    .selectAll('fact_version')
    .where('fact.name', '=', name)
    .where('fact.pairing_id', 'is not distinct from', columns.pairing_id)
    .where('fact.machine_id', 'is not distinct from', columns.machine_id)
    .where('fact.lens_id', 'is not distinct from', columns.lens_id)
    .where('fact.stock_id', 'is not distinct from', columns.stock_id)
    .executeTakeFirst();
  return row && versionOf(row);
}

export interface BookRow extends CurrentFact {
  readonly versions: number;
  readonly machine: string;
  readonly lens: string;
  readonly stock: string;
  readonly batch: string;
}

export interface BookSearch {
  readonly words: readonly string[];
  readonly limit: number;
  readonly offset: number;
}

/** A page of the book: the newest version of each fact whose machine, lens, stock, batch, name or note holds every word. */
export async function bookPage(
  db: Db,
  { words, limit, offset }: BookSearch,
): Promise<{ rows: BookRow[]; total: number }> {
  const base = newest(db)
    .leftJoin('pairing', 'pairing.id', 'fact.pairing_id')
    .leftJoin('machine', (join) =>
      join.on(({ eb, fn, ref }) =>
        eb(
          'machine.id',
          '=',
          fn.coalesce(
            ref('pairing.machine_id'),
            ref('fact.machine_id'),
            sql<number>`(select machine_id from lens where lens.id = fact.lens_id)`,
          ),
        ),
      ),
    )
    .leftJoin('lens', (join) =>
      join.on(({ eb, fn, ref }) => eb('lens.id', '=', fn.coalesce(ref('pairing.lens_id'), ref('fact.lens_id')))),
    )
    .leftJoin('stock', (join) =>
      join.on(({ eb, fn, ref }) => eb('stock.id', '=', fn.coalesce(ref('pairing.stock_id'), ref('fact.stock_id')))),
    );
  const text = sql<string>`lower(concat_ws(' ', fact.name, fact.at ->> 'shade', machine.name, lens.name, stock.name, stock.type, stock.batch, fact_version.note))`;
  const matching = words.reduce(
    (query, word) => query.where(text, 'like', `%${word.replace(/[\\%_]/g, '\\$&')}%`),
    base,
  );
  const [rows, count] = await Promise.all([
    matching
      .selectAll('fact_version')
      .select(factColumns)
      .select(({ fn, val }) => [
        fn.coalesce('machine.name', val('')).as('machine_name'),
        fn.coalesce('lens.name', val('')).as('lens_name'),
        fn.coalesce('stock.name', val('')).as('stock_name'),
        fn.coalesce('stock.batch', val('')).as('stock_batch'),
      ])
      .orderBy(sql`machine.name nulls last, stock.name nulls last, fact.name, fact.id`)
      .limit(limit)
      .offset(offset)
      .execute(),
    matching.select(({ fn }) => fn.countAll<string>().as('total')).executeTakeFirstOrThrow(),
  ]);
  return {
    total: Number(count.total),
    rows: rows.map((row) => ({
      ...currentOf(row),
      versions: row.version,
      machine: row.machine_name,
      lens: row.lens_name,
      stock: row.stock_name,
      batch: row.stock_batch,
    })),
  };
}

/** Every version of every fact with the names of what it belongs to, for export: by fact, newest first. */
export async function allVersions(db: Db): Promise<BookRow[]> {
  const { rows } = await bookPage(db, { words: [], limit: 1_000_000, offset: 0 });
  const versions = await db.selectFrom('fact_version').selectAll().orderBy('version', 'desc').execute();
  const byFact = new Map<number, FactVersionRecord[]>();
  for (const row of versions) byFact.set(row.fact_id, [...(byFact.get(row.fact_id) ?? []), versionOf(row)]);
  return rows.flatMap((row) => (byFact.get(row.fact.id) ?? []).map((version) => ({ ...row, newest: version })));
}

/** Facts that came from a card, each of their versions. */
export async function factsOfCard(db: Db, cardId: number): Promise<{ fact: FactRecord; version: FactVersionRecord }[]> {
  const rows = await db
    .selectFrom('fact')
    .innerJoin('fact_version', 'fact_version.fact_id', 'fact.id')
    .selectAll('fact_version')
    .select(factColumns)
    .where('fact_version.card_id', '=', cardId)
    .orderBy('fact_version.id', 'desc')
    .execute();
  return rows.map((row) => {
    const { fact, newest: version } = currentOf(row);
    return { fact, version };
  });
}

/** Keeps a finding as it was computed. */
export async function insertFinding(
  db: Db,
  finding: {
    readonly cardId: number;
    readonly kind: string;
    readonly methodVersion: number;
    readonly wish: object;
    readonly value: object;
    readonly readingId: number | null;
  },
): Promise<number> {
  const row = {
    card_id: finding.cardId,
    kind: finding.kind,
    method_version: finding.methodVersion,
    wish: JSON.stringify(finding.wish),
    value: JSON.stringify(finding.value),
    reading_id: finding.readingId,
  };
  return (await db.insertInto('finding').values(row).returning('id').executeTakeFirstOrThrow()).id;
}
