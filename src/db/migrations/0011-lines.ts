import { sql, type Kysely } from 'kysely';
import type { DB } from '../tables';

/**
 * What a photo shows of a cell's lines: pitch, visibility and gap with their uncertainties. The number that stood for it before was of stored gray
 * values, without one, and blunted by the camera: a photo that is read again tells it anew.
 */
export async function up(db: Kysely<DB>): Promise<void> {
  await sql`alter table cell_reading add column lines jsonb, drop column line_visibility`.execute(db);
}
