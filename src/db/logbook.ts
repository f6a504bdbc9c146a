import { sql } from 'kysely';
import { LOW_CONFIDENCE } from '../core/reading/observations';
import type { BurnStatus, LogRow } from '../records/burn';
import type { Db } from './client';

/** A page of burns, newest first, each with what came of its card. */
export async function logPage(
  db: Db,
  { limit, offset }: { limit: number; offset: number },
): Promise<{ rows: LogRow[]; total: number }> {
  const [{ rows }, count] = await Promise.all([
    sql<{
      id: number; card_id: number; code: string; kind: string; machine: string; stock: string; place: 'bench' | 'own-machine'; status: BurnStatus;
      cells: number[] | null; estimated_s: number; actual_s: number | null; started_at: Date; photos: string; low: string | null;
    }>`
      select b.id, b.card_id, c.code, c.kind, c.made_for #>> '{machine,name}' as machine,
        c.made_for #>> '{stock,name}' as stock, b.place, b.status, b.cells, b.estimated_s, b.actual_s, b.started_at,
        (select count(*) from photo p where p.card_id = c.id) as photos,
        (select count(*) filter (where r.confidence < ${LOW_CONFIDENCE}) from cell_reading r
          where r.reading_id = (select max(id) from reading where card_id = c.id) having count(*) > 0) as low
      from (select * from burn order by id desc limit ${limit} offset ${offset}) b join card c on c.id = b.card_id
      order by b.id desc`.execute(db), // prettier-ignore
    db
      .selectFrom('burn')
      .select(({ fn }) => fn.countAll<string>().as('total'))
      .executeTakeFirstOrThrow(),
  ]);
  return {
    total: Number(count.total),
    rows: rows.map((row) => ({
      burnId: row.id,
      cardId: row.card_id,
      cardCode: row.code,
      cardKind: row.kind,
      machine: row.machine,
      stock: row.stock,
      place: row.place,
      status: row.status,
      cells: row.cells?.length ?? null,
      estimatedS: row.estimated_s,
      actualS: row.actual_s,
      startedAt: row.started_at.toISOString(),
      photos: Number(row.photos),
      lowConfidenceCells: row.low === null ? null : Number(row.low),
    })),
  };
}
