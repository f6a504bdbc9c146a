import type { Cell } from '../core/card/layout';
import type { BurnSettings } from '../core/card/settings';
import { stalenessReasons } from '../core/book/staleness';
import { csvOf } from '../formats/csv';
import { listSettings, type SettingVersionRecord } from '../db/book';
import type { ExportedFile } from './exports';
import type { AppContext } from './context';
import { getCard } from './cards';
import { getPairing, type OpenPairing } from './pairings';
import { getSetting } from './settings';

export interface BookEntry {
  readonly settingId: number;
  readonly process: string;
  readonly machine: string;
  readonly lens: string;
  readonly stock: string;
  readonly batch: string;
  readonly newest: SettingVersionRecord;
  readonly versions: number;
  readonly stale: readonly string[];
}

async function staleReasons(ctx: AppContext, version: SettingVersionRecord, pairing: OpenPairing): Promise<string[]> {
  return stalenessReasons((await getCard(ctx, version.cardId)).madeFor, pairing);
}

/** The newest version of every setting whose machine, lens, stock, batch, process or note holds every word searched for. */
export async function bookView(ctx: AppContext, search: string): Promise<BookEntry[]> {
  const settings = await listSettings(ctx.db);
  const entries = await Promise.all(
    settings.map(async (setting): Promise<BookEntry & { text: string }> => {
      const pairing = await getPairing(ctx, setting.pairingId);
      const newest = setting.versions[0]!;
      const entry = {
        settingId: setting.id,
        process: setting.process,
        machine: pairing.machine.name,
        lens: pairing.lens.name,
        stock: pairing.stock.name,
        batch: pairing.stock.batch,
        newest,
        versions: setting.versions.length,
        stale: await staleReasons(ctx, newest, pairing),
      };
      const text = [entry.process, entry.machine, entry.lens, entry.stock, entry.batch, pairing.stock.type, newest.note]
        .join(' ')
        .toLowerCase();
      return { ...entry, text };
    }),
  );
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return entries
    .filter(({ text }) => words.every((word) => text.includes(word)))
    .sort(
      (a, b) =>
        a.machine.localeCompare(b.machine) || a.stock.localeCompare(b.stock) || a.process.localeCompare(b.process),
    )
    .map(({ text: _text, ...entry }) => entry);
}

export interface Difference {
  readonly field: keyof BurnSettings;
  readonly before: string | number | boolean;
  readonly after: string | number | boolean;
}

export interface VersionView extends SettingVersionRecord {
  readonly cardCode: string;
  readonly cell: Cell;
  /** What changed since the version before; empty for the first. */
  readonly differences: readonly Difference[];
}

export interface SettingView {
  readonly settingId: number;
  readonly process: string;
  readonly pairing: OpenPairing;
  readonly stale: readonly string[];
  readonly versions: readonly VersionView[];
}

export function differencesBetween(before: BurnSettings, after: BurnSettings): Difference[] {
  return (Object.keys(after) as (keyof BurnSettings)[])
    .filter((field) => before[field] !== after[field])
    .map((field) => ({ field, before: before[field], after: after[field] }));
}

export async function settingView(ctx: AppContext, settingId: number): Promise<SettingView> {
  const setting = await getSetting(ctx, settingId);
  const pairing = await getPairing(ctx, setting.pairingId);
  const versions = await Promise.all(
    setting.versions.map(async (version, index): Promise<VersionView> => {
      const { layout } = await getCard(ctx, version.cardId);
      const before = setting.versions[index + 1];
      return {
        ...version,
        cardCode: layout.code,
        cell: layout.cells[version.cellIndex]!,
        differences: before ? differencesBetween(before.settings, version.settings) : [],
      };
    }),
  );
  return {
    settingId,
    process: setting.process,
    pairing,
    stale: await staleReasons(ctx, versions[0]!, pairing),
    versions,
  };
}

interface BookRow {
  readonly [column: string]: string | number | boolean | null;
}

const BOOK_COLUMNS = [
  'setting', 'version', 'process', 'machine', 'lens', 'stock', 'batch', 'power_percent', 'speed_mm_per_s', 'interval_mm', 'passes',
  'focus_offset_mm', 'air', 'direction', 'both_ways', 'lightness', 'lightness_sigma', 'confidence', 'card', 'cell', 'photo', 'kept_at', 'note',
] as const; // prettier-ignore

async function bookRows(ctx: AppContext): Promise<BookRow[]> {
  const rows: BookRow[] = [];
  for (const setting of await listSettings(ctx.db)) {
    const { machine, lens, stock } = await getPairing(ctx, setting.pairingId);
    for (const version of setting.versions) {
      const { settings } = version;
      rows.push({
        setting: setting.id,
        version: version.version,
        process: setting.process,
        machine: machine.name,
        lens: lens.name,
        stock: stock.name,
        batch: stock.batch,
        power_percent: Math.round(settings.powerFraction * 1e5) / 1e3,
        speed_mm_per_s: settings.speedMmPerS,
        interval_mm: settings.intervalMm,
        passes: settings.passes,
        focus_offset_mm: settings.focusOffsetMm,
        air: settings.air,
        direction: settings.direction,
        both_ways: settings.bothWays,
        lightness: version.lightness,
        lightness_sigma: version.lightnessSigma,
        confidence: version.confidence,
        card: (await getCard(ctx, version.cardId)).layout.code,
        cell: version.cellIndex,
        photo: version.photoId,
        kept_at: version.createdAt,
        note: version.note,
      });
    }
  }
  return rows;
}

export async function bookCsv(ctx: AppContext): Promise<ExportedFile> {
  const bytes = Buffer.from(csvOf(BOOK_COLUMNS, await bookRows(ctx)));
  return { name: 'settings-book.csv', mediaType: 'text/csv; charset=utf-8', bytes };
}

export async function bookJson(ctx: AppContext): Promise<ExportedFile> {
  const file = { format: 'glass-ladder-settings', formatVersion: 1, settings: await bookRows(ctx) };
  return {
    name: 'settings-book.json',
    mediaType: 'application/json; charset=utf-8',
    bytes: Buffer.from(`${JSON.stringify(file, null, 2)}\n`),
  };
}
