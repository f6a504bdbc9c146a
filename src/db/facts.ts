import { sql, type Selectable } from 'kysely';
import type { FactName, FactValues } from '../core/book/fact-values';
import type { FactOwner } from '../core/book/facts';
import { conditionsKey, type Conditions } from '../core/book/conditions';
import type { KeptHistory, KeptVersion } from '../core/book/redone';
import { upgradeSettings } from '../core/card/settings';
import { upgradePairing } from '../core/card/stored';
import type { FactRecord, FactVersionRecord } from '../records/fact';
import type { Db } from './client';
import type { DB } from './tables';

type FactRow = Selectable<DB['fact']>;
type VersionRow = Selectable<DB['factVersion']>;

const factOf = ({ atKey, createdAt, ...fact }: FactRow): FactRecord => fact;

/** A value as it was stored; settings have words that they lacked. */
function upgradeFactValue(stored: object): FactValues[FactName] {
  const value = stored as FactValues[FactName];
  return 'settings' in value ? { ...value, settings: upgradeSettings(value.settings) } : value;
}

const versionOf = ({ value, madeFor, createdAt, ...version }: VersionRow): FactVersionRecord => ({
  ...version,
  value: upgradeFactValue(value),
  madeFor: upgradePairing(madeFor),
  createdAt: createdAt.toISOString(),
});

/** What a fact belongs to: exactly one of the ids. */
export type OwnerId =
  | { readonly pairingId: number }
  | { readonly machineId: number }
  | { readonly lensId: number }
  | { readonly stockId: number };

function ownerColumns(owner: OwnerId) {
  const none = { pairingId: null, machineId: null, lensId: null, stockId: null };
  if ('pairingId' in owner) return { ...none, owner: 'pairing' as FactOwner, pairingId: owner.pairingId };
  if ('machineId' in owner) return { ...none, owner: 'machine' as FactOwner, machineId: owner.machineId };
  if ('lensId' in owner) return { ...none, owner: 'lens' as FactOwner, lensId: owner.lensId };
  return { ...none, owner: 'stock' as FactOwner, stockId: owner.stockId };
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
    .values({ ...columns, name: fact.name, at: JSON.stringify(fact.at), atKey: key })
    .onConflict((conflict) =>
      conflict.columns(['name', 'pairingId', 'machineId', 'lensId', 'stockId', 'atKey']).doNothing(),
    )
    .execute();
  const { id } = await db
    .selectFrom('fact')
    .select('id')
    .where('name', '=', fact.name)
    .where('atKey', '=', key)
    .where('pairingId', 'is not distinct from', columns.pairingId)
    .where('machineId', 'is not distinct from', columns.machineId)
    .where('lensId', 'is not distinct from', columns.lensId)
    .where('stockId', 'is not distinct from', columns.stockId)
    .forUpdate()
    .executeTakeFirstOrThrow();
  const last = await db
    .selectFrom('factVersion')
    .select(({ fn }) => fn.max('version').as('version'))
    .where('factId', '=', id)
    .executeTakeFirst();
  const version = (last?.version ?? 0) + 1;
  await db
    .insertInto('factVersion')
    .values({
      factId: id,
      version,
      value: JSON.stringify(fact.value),
      sigma: fact.sigma,
      origin: fact.origin,
      cardId: fact.cardId,
      cellIndex: fact.cellIndex,
      photoId: fact.photoId,
      readingId: fact.readingId,
      findingId: fact.findingId,
      madeFor: JSON.stringify(fact.madeFor),
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
    .innerJoin('factVersion', 'factVersion.factId', 'fact.id')
    .where(
      'factVersion.version',
      '=',
      sql<number>`(select max(v.version) from fact_version v where v.fact_id = fact.id)`,
    );

export interface CurrentFact {
  readonly fact: FactRecord;
  readonly newest: FactVersionRecord;
}

const OF_FACT = [
  'fact.name',
  'fact.owner',
  'fact.pairingId',
  'fact.machineId',
  'fact.lensId',
  'fact.stockId',
  'fact.at',
] as const;

/** A version with the columns of the fact that it is of. */
type JoinedRow = VersionRow & Omit<FactRow, 'id' | 'atKey' | 'createdAt'>;

const currentOf = ({ name, owner, pairingId, machineId, lensId, stockId, at, ...version }: JoinedRow): CurrentFact => ({
  fact: { id: version.factId, name, owner, pairingId, machineId, lensId, stockId, at },
  newest: versionOf(version),
});

/** The newest version of every fact of a pairing, of its machine and lens, and of its stock. */
export async function factsFor(
  db: Db,
  key: { pairingId: number; machineId: number; lensId: number; stockId: number },
): Promise<CurrentFact[]> {
  const rows = await newest(db)
    .selectAll('factVersion')
    .select(OF_FACT)
    .where(({ eb, or }) =>
      or([
        eb('fact.pairingId', '=', key.pairingId),
        eb('fact.machineId', '=', key.machineId),
        eb('fact.lensId', '=', key.lensId),
        eb('fact.stockId', '=', key.stockId),
      ]),
    )
    .orderBy('fact.id')
    .execute();
  return rows.map(currentOf);
}

/** All versions of the facts of pairings, newest first, by pairing. */
export async function historiesOf(db: Db, pairingIds: readonly number[]): Promise<Map<number, KeptHistory[]>> {
  const found = new Map<number, KeptHistory[]>(pairingIds.map((id) => [id, []]));
  if (pairingIds.length === 0) return found;
  const rows = await db
    .selectFrom('factVersion')
    .innerJoin('fact', 'fact.id', 'factVersion.factId')
    .select(['fact.id', 'fact.pairingId', 'fact.name', 'fact.at', 'value', 'sigma', 'factVersion.createdAt'])
    .where('fact.pairingId', 'in', pairingIds)
    .orderBy('fact.id')
    .orderBy('factVersion.version', 'desc')
    .execute();
  const byFact = new Map<number, { pairingId: number; name: FactName; at: Conditions; versions: KeptVersion[] }>();
  for (const { id, pairingId, name, at, value, sigma, createdAt } of rows) {
    const history = byFact.get(id) ?? { pairingId: pairingId!, name: name, at, versions: [] };
    history.versions.push({ value: upgradeFactValue(value), sigma, createdAt: createdAt.toISOString() });
    byFact.set(id, history);
  }
  for (const { pairingId, ...history } of byFact.values()) found.get(pairingId)!.push(history);
  return found;
}

export async function factById(
  db: Db,
  id: number,
): Promise<{ fact: FactRecord; versions: FactVersionRecord[] } | undefined> {
  const row = await db.selectFrom('fact').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const versions = await db
    .selectFrom('factVersion')
    .selectAll()
    .where('factId', '=', id)
    .orderBy('version', 'desc')
    .execute();
  return { fact: factOf(row), versions: versions.map(versionOf) };
}

/** The newest version of a record's fact, to tell whether a new one says anything new. */
export async function newestOfOwner(db: Db, owner: OwnerId, name: FactName): Promise<FactVersionRecord | undefined> {
  const columns = ownerColumns(owner);
  const row = await newest(db)
    .selectAll('factVersion')
    .where('fact.name', '=', name)
    .where('fact.pairingId', 'is not distinct from', columns.pairingId)
    .where('fact.machineId', 'is not distinct from', columns.machineId)
    .where('fact.lensId', 'is not distinct from', columns.lensId)
    .where('fact.stockId', 'is not distinct from', columns.stockId)
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
    .leftJoin('pairing', 'pairing.id', 'fact.pairingId')
    .leftJoin('machine', (join) =>
      join.on(({ eb, fn, ref }) =>
        eb(
          'machine.id',
          '=',
          fn.coalesce(
            ref('pairing.machineId'),
            ref('fact.machineId'),
            sql<number>`(select machine_id from lens where lens.id = fact.lens_id)`,
          ),
        ),
      ),
    )
    .leftJoin('lens', (join) =>
      join.on(({ eb, fn, ref }) => eb('lens.id', '=', fn.coalesce(ref('pairing.lensId'), ref('fact.lensId')))),
    )
    .leftJoin('stock', (join) =>
      join.on(({ eb, fn, ref }) => eb('stock.id', '=', fn.coalesce(ref('pairing.stockId'), ref('fact.stockId')))),
    );
  const text = sql<string>`lower(concat_ws(' ', fact.name, fact.at ->> 'shade', machine.name, lens.name, stock.name, stock.type, stock.batch, fact_version.note))`;
  const matching = words.reduce(
    (query, word) => query.where(text, 'like', `%${word.replace(/[\\%_]/g, '\\$&')}%`),
    base,
  );
  const [rows, count] = await Promise.all([
    matching
      .selectAll('factVersion')
      .select(OF_FACT)
      .select(({ fn, val }) => [
        fn.coalesce('machine.name', val('')).as('machineName'),
        fn.coalesce('lens.name', val('')).as('lensName'),
        fn.coalesce('stock.name', val('')).as('stockName'),
        fn.coalesce('stock.batch', val('')).as('stockBatch'),
      ])
      .orderBy(sql`machine.name nulls last, stock.name nulls last, fact.name, fact.id`)
      .limit(limit)
      .offset(offset)
      .execute(),
    matching.select(({ fn }) => fn.countAll<string>().as('total')).executeTakeFirstOrThrow(),
  ]);
  return {
    total: Number(count.total),
    rows: rows.map(({ machineName, lensName, stockName, stockBatch, ...row }) => ({
      ...currentOf(row),
      versions: row.version,
      machine: machineName,
      lens: lensName,
      stock: stockName,
      batch: stockBatch,
    })),
  };
}

/** Every version of every fact with the names of what it belongs to, for export: by fact, newest first. */
export async function allVersions(db: Db): Promise<BookRow[]> {
  const { rows } = await bookPage(db, { words: [], limit: 1_000_000, offset: 0 });
  const versions = await db.selectFrom('factVersion').selectAll().orderBy('version', 'desc').execute();
  const byFact = new Map<number, FactVersionRecord[]>();
  for (const row of versions) byFact.set(row.factId, [...(byFact.get(row.factId) ?? []), versionOf(row)]);
  return rows.flatMap((row) => (byFact.get(row.fact.id) ?? []).map((version) => ({ ...row, newest: version })));
}

/** Facts that came from a card, each of their versions. */
export async function factsOfCard(db: Db, cardId: number): Promise<{ fact: FactRecord; version: FactVersionRecord }[]> {
  const rows = await db
    .selectFrom('fact')
    .innerJoin('factVersion', 'factVersion.factId', 'fact.id')
    .selectAll('factVersion')
    .select(OF_FACT)
    .where('factVersion.cardId', '=', cardId)
    .orderBy('factVersion.id', 'desc')
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
    readonly throughReadingId: number | null;
  },
): Promise<number> {
  const row = {
    cardId: finding.cardId,
    kind: finding.kind,
    methodVersion: finding.methodVersion,
    wish: JSON.stringify(finding.wish),
    value: JSON.stringify(finding.value),
    readingId: finding.readingId,
    throughReadingId: finding.throughReadingId,
  };
  return (await db.insertInto('finding').values(row).returning('id').executeTakeFirstOrThrow()).id;
}

/** A finding as it was computed when something was kept of it: what was wanted, and what it said. */
export async function findingById(
  db: Db,
  id: number,
): Promise<{ readonly cardId: number; readonly wish: unknown; readonly says: string } | undefined> {
  const row = await db
    .selectFrom('finding')
    .select(['cardId', 'wish', 'value'])
    .where('id', '=', id)
    .executeTakeFirst();
  if (!row) return undefined;
  const { says } = row.value as { says?: unknown };
  return { cardId: row.cardId, wish: row.wish, says: typeof says === 'string' ? says : '' };
}
