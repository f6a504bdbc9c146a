import { sql } from 'kysely';
import type { LadderRung, NextStep } from '../core/book/ladder';
import type { BenchRow } from '../records/pairing';
import type { Db } from './client';

/** What a pairing's ladder shows, and the revision of the records it was worked out from. */
export interface PairingState {
  readonly ladder: readonly LadderRung[];
  readonly next: NextStep;
  /** What waits for a hand comes first: 0 burns now, then what is to be looked at, chosen or renewed. */
  readonly waits: number;
}

export async function stateOfPairing(
  db: Db,
  pairingId: number,
): Promise<{ revision: number; state: PairingState | null }> {
  const row = await db
    .selectFrom('pairingState')
    .selectAll()
    .where('pairingId', '=', pairingId)
    .executeTakeFirstOrThrow();
  const fresh = row.keptRevision === row.revision && row.ladder !== null && row.next !== null;
  return {
    revision: row.revision,
    state: fresh ? { ladder: row.ladder!, next: row.next!, waits: row.waits } : null,
  };
}

/** Has every ladder worked out anew that was kept by a program of other rungs. Returns how many. */
export async function forgetStatesOfOthers(db: Db, madeBy: string): Promise<number> {
  const { numUpdatedRows } = await db
    .updateTable('pairingState')
    .set(({ eb }) => ({ revision: eb('revision', '+', 1) }))
    .where('madeBy', '<>', madeBy)
    .whereRef('keptRevision', '=', 'revision')
    .executeTakeFirstOrThrow();
  return Number(numUpdatedRows);
}

/** Keeps what was worked out from `revision`, and by which rungs. What has changed meanwhile stays to be worked out. */
export async function keepState(
  db: Db,
  pairingId: number,
  revision: number,
  state: PairingState & { readonly madeBy: string },
): Promise<void> {
  await db
    .updateTable('pairingState')
    .set({
      keptRevision: revision,
      madeBy: state.madeBy,
      ladder: JSON.stringify(state.ladder),
      next: JSON.stringify(state.next),
      waits: state.waits,
    })
    .where('pairingId', '=', pairingId)
    .where('keptRevision', '<', revision)
    .execute();
}

/** Pairings whose ladder has to be worked out anew, the longest waiting first. */
export async function staleStates(db: Db, limit: number): Promise<number[]> {
  const rows = await db
    .selectFrom('pairingState')
    .select('pairingId')
    .whereRef('keptRevision', '<>', 'revision')
    .orderBy('changedAt')
    .limit(limit)
    .execute();
  return rows.map((row) => row.pairingId);
}

/** A page of the benches whose machine, lens and stock are in use: what waits for a hand first, then what changed last. */
export async function benchPage(
  db: Db,
  { limit, offset }: { limit: number; offset: number },
): Promise<{ rows: BenchRow[]; total: number }> {
  const { rows } = await sql<{
    pairingId: number;
    machine: string;
    lens: string;
    stock: string;
    colour: string;
    fresh: boolean;
    ladder: LadderRung[] | null;
    next: NextStep | null;
    photoId: number | null;
    total: string;
  }>`
    select p.id as pairing_id, m.name as machine, l.name as lens, s.name as stock, s.colour, st.kept_revision = st.revision as fresh,
      st.ladder, st.next, count(*) over () as total,
      (select ph.id from photo ph join card c on c.id = ph.card_id
        where c.pairing_id = p.id and ph.status = 'read' order by ph.id desc limit 1) as photo_id
    from pairing p
      join machine m on m.id = p.machine_id
      join lens l on l.id = p.lens_id
      join stock s on s.id = p.stock_id
      join pairing_state st on st.pairing_id = p.id
    where m.retired_at is null and l.retired_at is null and s.retired_at is null
    order by st.waits, st.changed_at desc, p.id
    limit ${limit} offset ${offset}`.execute(db);
  return {
    total: Number(rows[0]?.total ?? 0),
    rows: rows.map((row) => ({
      pairingId: row.pairingId,
      machine: row.machine,
      lens: row.lens,
      stock: row.stock,
      stockColour: row.colour,
      fresh: row.fresh,
      ladder: row.ladder,
      next: row.next,
      photoId: row.photoId,
    })),
  };
}
