import type { LadderRung } from '../core/book/ladder';
import { groundOf } from '../core/book/rungs';
import type { FactName, FactValues } from '../core/book/fact-values';
import { FACTS, factWords } from '../core/book/facts';
import { conditionWords } from '../core/book/conditions';
import { DEFAULT_LIKED_UNITS, type LikedUnits } from '../core/quantities/format';
import type { Cell, Layout } from '../core/card/layout';
import { csvOf } from '../formats/csv';
import { allVersions, bookPage, factById, type BookRow } from '../db/facts';
import { lensById } from '../db/machines';
import { pairingsNow } from '../db/pairings';
import type { FactRecord, FactVersionRecord } from '../records/fact';
import type { OpenPairing } from '../records/pairing';
import type { BookEntry } from '../views/book';
import type { Page } from '../views/views';
import { getCard } from './cards';
import { findAgain, type FoundAgain } from './findings';
import type { AppContext } from './context';
import type { ExportedFile } from './exports';
import { changesBetween } from './fact-words';
import { happenedTo, staleNow } from './known';
import { ladderOfPairing } from './ladders';
import { getMachine } from './machines';
import { getPairing } from './pairings';
import { notFound } from './problems';
import { getStock } from './stocks';

export const FACTS_A_PAGE = 60;

const likedOf = (row: BookRow): LikedUnits => row.newest.madeFor.machine?.likedUnits ?? DEFAULT_LIKED_UNITS;

function sureWords(name: FactName, sigma: number | null, liked: LikedUnits): string {
  return sigma === null ? '' : FACTS[name].sure(sigma, liked);
}

/** A page of the book: the newest version of every fact whose machine, lens, stock, batch, name or note holds every word searched for. */
/** The pairings of some rows as they are today, and why what a row says may hold no longer. */
export async function asOfNow(ctx: AppContext, rows: readonly BookRow[]) {
  const pairings = await pairingsNow(ctx.db, [...new Set(rows.flatMap((row) => row.fact.pairingId ?? []))]);
  const machineOf = ({ fact }: BookRow): number | null =>
    fact.pairingId === null ? fact.machineId : (pairings.get(fact.pairingId)?.machine.id ?? null);
  const happened = await happenedTo(ctx.db, {
    machineIds: [...new Set(rows.flatMap((row) => machineOf(row) ?? []))],
    pairingIds: [...pairings.keys()],
  });
  const staleOf = (row: BookRow): readonly string[] => {
    const now = row.fact.pairingId === null ? undefined : pairings.get(row.fact.pairingId);
    return staleNow(row, now ?? null, machineOf(row), happened);
  };
  return { pairings, staleOf };
}

export async function bookView(ctx: AppContext, search: string, page: number): Promise<Page<BookEntry>> {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const limit = FACTS_A_PAGE;
  const offset = (page - 1) * limit;
  const { rows, total } = await bookPage(ctx.db, { words, limit, offset });
  const { pairings, staleOf } = await asOfNow(ctx, rows);
  const entries = rows.map((row): BookEntry => {
    const { fact, newest } = row;
    const now = fact.pairingId === null ? undefined : pairings.get(fact.pairingId);
    const liked = now?.machine.likedUnits ?? likedOf(row);
    return {
      factId: fact.id,
      name: fact.name,
      owner: fact.owner,
      title: FACTS[fact.name].title,
      machine: row.machine,
      lens: row.lens,
      stock: row.stock,
      batch: row.batch,
      at: fact.at,
      conditions: conditionWords(fact.at, liked),
      origin: newest.origin,
      version: newest.version,
      value: factWords({ name: fact.name, value: newest.value }, liked),
      sure: sureWords(fact.name, newest.sigma, liked),
      stale: staleOf(row),
      keptAt: newest.createdAt,
      note: newest.note,
      photoId: newest.photoId,
    };
  });
  return { rows: entries, total, limit, offset };
}

export interface VersionView extends FactVersionRecord {
  readonly cardCode: string | null;
  /** The cell it came from; null when it came from a record or from a card as a whole. */
  readonly cell: Cell | null;
  /** What changed since the version before, in words; empty for the first. */
  readonly changes: readonly string[];
}

export interface FactView {
  readonly fact: FactRecord;
  readonly title: string;
  /** Whose it is, in words: "Alder board on Marl, lens 2 inch". */
  readonly subject: string;
  readonly conditions: string;
  readonly likedUnits: LikedUnits;
  /** The pairing's own records; null for facts of one record. */
  readonly pairing: OpenPairing | null;
  /** Where its owner stands. */
  readonly href: string;
  readonly stale: readonly string[];
  readonly versions: readonly VersionView[];
  /** The rungs below its own, as they are now: what it was started from. */
  readonly standsOn: readonly LadderRung[];
  /** What its card said when it was kept, and what it says today; null where no card's finding stands behind it. */
  readonly again: FoundAgain | null;
  /** The newest version's card, for its picture. */
  readonly layout: Layout | null;
}

async function subjectOf(
  ctx: AppContext,
  fact: FactRecord,
): Promise<Pick<FactView, 'subject' | 'pairing' | 'href' | 'likedUnits'>> {
  const liked = DEFAULT_LIKED_UNITS;
  if (fact.pairingId !== null) {
    const pairing = await getPairing(ctx, fact.pairingId);
    const { machine, lens, stock } = pairing;
    const batch = stock.batch ? `, batch ${stock.batch}` : '';
    const subject = `${stock.name} on ${machine.name}, lens ${lens.name}${batch}`;
    return { subject, pairing, href: `/bench/${pairing.id}`, likedUnits: machine.likedUnits };
  }
  if (fact.stockId !== null) {
    const stock = await getStock(ctx, fact.stockId);
    return { subject: stock.name, pairing: null, href: `/stock/${stock.id}`, likedUnits: liked };
  }
  if (fact.machineId !== null) {
    const machine = await getMachine(ctx, fact.machineId);
    return { subject: machine.name, pairing: null, href: `/machines/${machine.id}`, likedUnits: machine.likedUnits };
  }
  const lens = await lensById(ctx.db, fact.lensId!);
  const machine = await getMachine(ctx, lens!.machineId);
  return {
    subject: `Lens ${lens!.name} of ${machine.name}`,
    pairing: null,
    href: `/machines/${machine.id}`,
    likedUnits: machine.likedUnits,
  };
}

/** The rungs that a fact's own one stands on, as they are now. */
async function groundNow(ctx: AppContext, { name }: FactRecord, pairing: OpenPairing | null): Promise<LadderRung[]> {
  const { rung } = FACTS[name];
  if (pairing === null || rung === null) return [];
  const below = groundOf(rung);
  return (await ladderOfPairing(ctx, pairing)).ladder.filter((one) => below.includes(one.rung));
}

export async function factView(ctx: AppContext, factId: number): Promise<FactView> {
  const found = await factById(ctx.db, factId);
  if (!found) throw notFound('fact', factId);
  const { fact, versions } = found;
  const subject = await subjectOf(ctx, fact);
  const cards = new Map(
    await Promise.all(
      [...new Set(versions.flatMap((version) => version.cardId ?? []))].map(
        async (id) => [id, await getCard(ctx, id)] as const,
      ),
    ),
  );
  const shown = versions.map((version, index): VersionView => {
    const card = version.cardId === null ? undefined : cards.get(version.cardId);
    const before = versions[index + 1];
    return {
      ...version,
      cardCode: card?.layout.code ?? null,
      cell: version.cellIndex === null ? null : (card?.layout.cells[version.cellIndex] ?? null),
      changes: before ? changesBetween(fact, before, version, subject.likedUnits) : [],
    };
  });
  const newest = shown[0]!;
  const machineId = subject.pairing?.machine.id ?? fact.machineId;
  const happened = await happenedTo(ctx.db, {
    machineIds: machineId === null ? [] : [machineId],
    pairingIds: fact.pairingId === null ? [] : [fact.pairingId],
  });
  return {
    fact,
    title: FACTS[fact.name].title,
    ...subject,
    conditions: conditionWords(fact.at, subject.likedUnits),
    stale: staleNow({ fact, newest }, subject.pairing, machineId, happened),
    standsOn: await groundNow(ctx, fact, subject.pairing),
    versions: shown,
    again: newest.findingId === null ? null : await findAgain(ctx, newest.findingId),
    layout: newest.cardId === null ? null : cards.get(newest.cardId)!.layout,
  };
}

const BOOK_COLUMNS = [
  'fact',
  'version',
  'name',
  'owner',
  'machine',
  'lens',
  'stock',
  'batch',
  'at',
  'value',
  'sigma',
  'power_percent',
  'speed_mm_per_s',
  'interval_mm',
  'passes',
  'focus_offset_mm',
  'air',
  'direction',
  'both_ways',
  'run_up_mm',
  'scan_offset_mm',
  'lengthen_mm',
  'line_angle_deg',
  'cross_hatch',
  'frequency_khz',
  'lightness',
  'lightness_sigma',
  'confidence',
  'origin',
  'card',
  'cell',
  'photo',
  'kept_at',
  'note',
] as const;

/** Settings beside the value, for those facts that are settings: a column each. */
function settingColumns(value: FactValues[FactName]): Record<string, string | number | boolean | null> {
  if (!('settings' in value)) return {};
  const { settings } = value;
  return {
    power_percent: Math.round(settings.powerFraction * 1e5) / 1e3,
    speed_mm_per_s: settings.speedMmPerS,
    interval_mm: settings.intervalMm,
    passes: settings.passes,
    focus_offset_mm: settings.focusOffsetMm,
    air: settings.air,
    direction: settings.direction,
    both_ways: settings.bothWays,
    run_up_mm: settings.runUpMm,
    scan_offset_mm: settings.scanOffsetMm,
    lengthen_mm: settings.lengthenMm,
    line_angle_deg: settings.lineAngleDeg,
    cross_hatch: settings.crossHatch,
    frequency_khz: settings.frequencyKHz,
    ...('confidence' in value && {
      lightness: value.lightness,
      lightness_sigma: value.lightnessSigma,
      confidence: value.confidence,
    }),
  };
}

async function bookRows(ctx: AppContext): Promise<Record<string, unknown>[]> {
  const rows = await allVersions(ctx.db);
  return rows.map(({ fact, newest, machine, lens, stock, batch }) => ({
    fact: fact.id,
    version: newest.version,
    name: fact.name,
    owner: fact.owner,
    machine,
    lens,
    stock,
    batch,
    at: fact.at,
    value: newest.value,
    sigma: newest.sigma,
    ...settingColumns(newest.value),
    origin: newest.origin,
    card: newest.cardId,
    cell: newest.cellIndex,
    photo: newest.photoId,
    kept_at: newest.createdAt,
    note: newest.note,
  }));
}

export async function bookCsv(ctx: AppContext): Promise<ExportedFile> {
  const rows = (await bookRows(ctx)).map((row) => ({
    ...row,
    at: JSON.stringify(row['at']),
    value: JSON.stringify(row['value']),
  }));
  const bytes = Buffer.from(csvOf(BOOK_COLUMNS, rows));
  return { name: 'settings-book.csv', mediaType: 'text/csv; charset=utf-8', bytes };
}

export async function bookJson(ctx: AppContext): Promise<ExportedFile> {
  const file = { format: 'glass-ladder-book', formatVersion: 2, facts: await bookRows(ctx) };
  return {
    name: 'settings-book.json',
    mediaType: 'application/json; charset=utf-8',
    bytes: Buffer.from(`${JSON.stringify(file, null, 2)}\n`),
  };
}
