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
      id: number;
      cardId: number;
      code: string;
      kind: string;
      machine: string;
      stock: string;
      place: 'bench' | 'own-machine';
      status: BurnStatus;
      cells: number[] | null;
      estimatedS: number;
      actualS: number | null;
      startedAt: Date;
      photos: string;
      low: string | null;
    }>`
      select b.id, b.card_id, c.code, c.kind, c.made_for #>> '{machine,name}' as machine,
        c.made_for #>> '{stock,name}' as stock, b.place, b.status, b.cells, b.estimated_s, b.actual_s, b.started_at,
        (select count(*) from photo p where p.card_id = c.id) as photos,
        (select count(*) filter (where r.confidence < ${LOW_CONFIDENCE}) from cell_reading r
          where r.reading_id = (select max(id) from reading where card_id = c.id) having count(*) > 0) as low
      from (select * from burn order by id desc limit ${limit} offset ${offset}) b join card c on c.id = b.card_id
      order by b.id desc`.execute(db),
    db
      .selectFrom('burn')
      .select(({ fn }) => fn.countAll<string>().as('total'))
      .executeTakeFirstOrThrow(),
  ]);
  return {
    total: Number(count.total),
    rows: rows.map((row) => ({
      burnId: row.id,
      cardId: row.cardId,
      cardCode: row.code,
      cardKind: row.kind,
      machine: row.machine,
      stock: row.stock,
      place: row.place,
      status: row.status,
      cells: row.cells?.length ?? null,
      estimatedS: row.estimatedS,
      actualS: row.actualS,
      startedAt: row.startedAt.toISOString(),
      photos: Number(row.photos),
      lowConfidenceCells: row.low === null ? null : Number(row.low),
    })),
  };
}
