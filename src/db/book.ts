import type { OperatorOutcome, Verdict } from '../core/card/contract';
import type { BurnSettings } from '../core/card/settings';
import type { Db } from './client';

export async function verdictsOfCard(db: Db, cardId: number): Promise<Verdict[]> {
  const rows = await db.selectFrom('verdict').selectAll().where('card_id', '=', cardId).orderBy('cell_index').execute();
  return rows.map((row) => ({ cellIndex: row.cell_index, grade: row.grade, outcome: row.outcome, note: row.note }));
}

/** Sets an operator's verdict on a cell; one with nothing in it clears it. */
export async function putVerdict(db: Db, cardId: number, verdict: Verdict): Promise<void> {
  const { cellIndex, grade, outcome, note } = verdict;
  if (grade === null && outcome === null && note === '') {
    await db.deleteFrom('verdict').where('card_id', '=', cardId).where('cell_index', '=', cellIndex).execute();
    return;
  }
  const values: { grade: number | null; outcome: OperatorOutcome | null; note: string } = { grade, outcome, note };
  await db
    .insertInto('verdict')
    .values({ card_id: cardId, cell_index: cellIndex, ...values })
    .onConflict((conflict) =>
      conflict.columns(['card_id', 'cell_index']).doUpdateSet({ ...values, updated_at: new Date() }),
    )
    .execute();
}

export interface SettingVersionRecord {
  readonly id: number;
  readonly version: number;
  readonly settings: BurnSettings;
  readonly cardId: number;
  readonly cellIndex: number;
  readonly photoId: number | null;
  readonly readingId: number | null;
  readonly lightness: number | null;
  readonly lightnessSigma: number | null;
  readonly confidence: number | null;
  readonly note: string;
  readonly createdAt: string;
}

export interface SettingRecord {
  readonly id: number;
  readonly pairingId: number;
  readonly process: string;
  /** Newest first. */
  readonly versions: readonly SettingVersionRecord[];
}

export type NewSettingVersion = Omit<SettingVersionRecord, 'id' | 'version' | 'createdAt'>;

/**
 * Keeps a new version of a pairing's setting and returns its place in the book. To be called in a transaction: the setting's
 * row is locked, so that two who keep at the same time get two numbers.
 */
export async function insertSettingVersion(
  db: Db,
  pairingId: number,
  process: string,
  version: NewSettingVersion,
): Promise<{ settingId: number; version: number }> {
  await db
    .insertInto('setting')
    .values({ pairing_id: pairingId, process })
    .onConflict((conflict) => conflict.columns(['pairing_id', 'process']).doNothing())
    .execute();
  const setting = await db
    .selectFrom('setting')
    .select('id')
    .where('pairing_id', '=', pairingId)
    .where('process', '=', process)
    .forUpdate()
    .executeTakeFirstOrThrow();
  const last = await db
    .selectFrom('setting_version')
    .select(({ fn }) => fn.max('version').as('version'))
    .where('setting_id', '=', setting.id)
    .executeTakeFirst();
  const next = (last?.version ?? 0) + 1;
  const { settings } = version;
  await db
    .insertInto('setting_version')
    .values({
      setting_id: setting.id,
      version: next,
      power_fraction: settings.powerFraction,
      speed_mm_per_s: settings.speedMmPerS,
      interval_mm: settings.intervalMm,
      passes: settings.passes,
      focus_offset_mm: settings.focusOffsetMm,
      air: settings.air,
      direction: settings.direction,
      both_ways: settings.bothWays,
      card_id: version.cardId,
      cell_index: version.cellIndex,
      photo_id: version.photoId,
      reading_id: version.readingId,
      lightness: version.lightness,
      lightness_sigma: version.lightnessSigma,
      confidence: version.confidence,
      note: version.note,
    })
    .execute();
  return { settingId: setting.id, version: next };
}

/** Settings of the book with all their versions; of one pairing or one id when asked for. */
export async function listSettings(
  db: Db,
  only: { pairingId?: number; settingId?: number } = {},
): Promise<SettingRecord[]> {
  let query = db.selectFrom('setting').selectAll().orderBy('id');
  if (only.pairingId !== undefined) query = query.where('pairing_id', '=', only.pairingId);
  if (only.settingId !== undefined) query = query.where('id', '=', only.settingId);
  const settings = await query.execute();
  if (settings.length === 0) return [];
  const versions = await db
    .selectFrom('setting_version')
    .selectAll()
    .where(
      'setting_id',
      'in',
      settings.map((setting) => setting.id),
    )
    .orderBy('version', 'desc')
    .execute();
  return settings.map((setting) => ({
    id: setting.id,
    pairingId: setting.pairing_id,
    process: setting.process,
    versions: versions
      .filter((row) => row.setting_id === setting.id)
      .map((row) => ({
        id: row.id,
        version: row.version,
        settings: {
          powerFraction: row.power_fraction,
          speedMmPerS: row.speed_mm_per_s,
          intervalMm: row.interval_mm,
          passes: row.passes,
          focusOffsetMm: row.focus_offset_mm,
          air: row.air,
          direction: row.direction,
          bothWays: row.both_ways,
        },
        cardId: row.card_id,
        cellIndex: row.cell_index,
        photoId: row.photo_id,
        readingId: row.reading_id,
        lightness: row.lightness,
        lightnessSigma: row.lightness_sigma,
        confidence: row.confidence,
        note: row.note,
        createdAt: row.created_at.toISOString(),
      })),
  }));
}
