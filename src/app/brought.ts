import { parse } from 'csv-parse/sync';
import { shadesOf } from '../core/book/shades';
import { carrySettings } from '../core/book/carry-over';
import { FACTS, factWords } from '../core/book/facts';
import { shadeConditions } from '../core/book/conditions';
import { guessColumn, readTableRow, type ColumnMeaning } from '../core/book/settings-table';
import { checkSettings } from '../core/card/check-settings';
import type { Pairing } from '../core/card/contract';
import { proposeFill } from '../core/card/propose-fill';
import type { BurnSettings } from '../core/card/settings';
import { factById, FROM_NO_CARD, insertFactVersion, type NewFactVersion } from '../db/facts';
import type { OpenPairing } from '../records/pairing';
import type { BringView, TablePreview } from '../views/views';
import type { AppContext } from './context';
import { knownOf } from './known';
import { once } from './once';
import { getPairing, refuseUnlessBurnable } from './pairings';
import { notFound, Problem } from './problems';

/** A setting known from elsewhere. */
export interface BroughtSetting {
  readonly settings: BurnSettings;
  readonly shade: string;
  readonly note: string;
}

const recordsOf = ({ machine, lens, stock }: OpenPairing): Pairing => ({ machine, lens, stock });

/** A version of an engraving setting that no card of this pairing stands behind. */
const unproven = (
  origin: 'brought' | 'copied',
  pairing: OpenPairing,
  { settings, shade, note }: BroughtSetting,
): NewFactVersion => ({
  name: 'engrave',
  at: shadeConditions(shade),
  value: { settings, lightness: null, lightnessSigma: null, confidence: null },
  sigma: null,
  origin,
  ...FROM_NO_CARD,
  madeFor: recordsOf(pairing),
  note,
});

/** Files settings that are known from elsewhere, all of them or none, each as an unproven version of its shade. */
export async function bringSettings(
  ctx: AppContext,
  pairingId: number,
  brought: readonly BroughtSetting[],
  key?: string,
): Promise<{ facts: { factId: number; version: number }[] }> {
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  const fields = brought.flatMap(({ settings }, index) =>
    checkSettings(settings, pairing, `settings.${index}.settings`),
  );
  if (fields.length > 0)
    throw new Problem(
      'invalid-input',
      `These settings cannot be burned on ${pairing.machine.name}: ${[...new Set(fields.map(({ message }) => message))].slice(0, 4).join(' ')}`,
      'Nothing was filed.',
      fields,
    );
  return once(ctx, key, 'bring-settings', async (tx) => {
    const facts = [];
    for (const one of brought)
      facts.push(await insertFactVersion(tx, { pairingId }, unproven('brought', pairing, one)));
    return { facts };
  });
}

/** The engraving setting that a fact holds now, with the pairing it is of. Throws a Problem for facts of other names. */
async function settingOf(ctx: AppContext, factId: number) {
  const found = await factById(ctx.db, factId);
  if (!found) throw notFound('fact', factId);
  const { fact, versions } = found;
  const newest = versions[0]!;
  if (fact.name !== 'engrave' || fact.pairingId === null || !('settings' in newest.value))
    throw new Problem(
      'invalid-input',
      `${FACTS[fact.name].title} is no engraving setting: only those are copied and proven.`,
    );
  return { fact, newest, settings: newest.value.settings, pairing: await getPairing(ctx, fact.pairingId) };
}

/** Copies a setting to another pairing as a prediction: the same energy, as far as the other machine and stock are known. */
export async function copySetting(
  ctx: AppContext,
  factId: number,
  pairingId: number,
  key?: string,
): Promise<{ factId: number; version: number; settings: BurnSettings; reasons: readonly string[] }> {
  const from = await settingOf(ctx, factId);
  const to = await getPairing(ctx, pairingId);
  if (to.id === from.pairing.id)
    throw new Problem('invalid-input', 'This is the bench that the setting is of: there is nothing to copy.');
  refuseUnlessBurnable(to);
  let carried;
  try {
    carried = carrySettings(from.settings, { ...recordsOf(from.pairing), ...from.newest.madeFor }, recordsOf(to));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Problem('nothing-to-propose', error.message.replace(/^invalid pairing: /, ''));
  }
  const { settings, reasons } = carried;
  const origin = `${from.pairing.stock.name} on ${from.pairing.machine.name}, v${from.newest.version}: ${factWords({ name: 'engrave', value: from.newest.value } as never, to.machine.likedUnits)}`;
  const shade = String(from.fact.at['shade'] ?? '');
  const note = `Foretold from ${origin}. ${reasons.join('; ')}.`;
  return once(ctx, key, 'copy-setting', async (tx) => ({
    ...(await insertFactVersion(tx, { pairingId }, unproven('copied', to, { settings, shade, note }))),
    settings,
    reasons,
  }));
}

/** A setting to be proven on a pairing: the fact must be of that pairing. */
export async function settingToProve(ctx: AppContext, factId: number, pairingId: number): Promise<BurnSettings> {
  const { settings, pairing } = await settingOf(ctx, factId);
  if (pairing.id !== pairingId) throw notFound('setting of this bench', factId);
  return settings;
}

/** A plain fill, for what nobody told. Throws the Problem of a source that cannot mark the stock. */
function usualFill(pairing: OpenPairing): BurnSettings {
  try {
    return proposeFill({ pairing: recordsOf(pairing), facts: [] }).settings;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Problem('nothing-to-propose', error.message.replace(/^invalid pairing: /, ''));
  }
}

const MOST_ROWS = 500;
const MOST_COLUMNS = 40;

/**
 * What a table of settings would bring along, by what its columns mean: as told, or as their titles and numbers suggest. Nothing is filed.
 * The first line holds titles; commas, semicolons or tabs part the columns.
 */
export async function previewTable(
  ctx: AppContext,
  pairingId: number,
  text: string,
  meanings: readonly ColumnMeaning[] | null,
): Promise<TablePreview> {
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  const [titles, ...lines] = cellsOf(text);
  if (!titles || lines.length === 0)
    throw new Problem('invalid-input', 'The table has no rows under its line of titles.', 'Nothing was filed.');
  if (titles.length > MOST_COLUMNS || lines.length > MOST_ROWS)
    throw new Problem('invalid-input', `At the most ${MOST_ROWS} rows of ${MOST_COLUMNS} columns are taken at once.`);
  const told = meanings?.length === titles.length ? meanings : null;
  const columns = titles.map((title, column) => {
    const samples = lines.slice(0, 20).map((line) => line[column] ?? '');
    return { title, samples: samples.slice(0, 3), means: told?.[column] ?? guessColumn(title, samples) };
  });
  const usual = usualFill(pairing);
  const rows = lines.map((line, index) => {
    const row = readTableRow(
      index + 1,
      line,
      columns.map(({ means }) => means),
      pairing.machine,
      usual,
    );
    if (!row.settings) return row;
    const problems = checkSettings(row.settings, pairing, '').map(({ message }) => message);
    return problems.length > 0 ? { ...row, settings: null, problems } : row;
  });
  return { columns, rows };
}

function cellsOf(text: string): string[][] {
  const head = text.slice(0, text.indexOf('\n') < 0 ? undefined : text.indexOf('\n'));
  const delimiter = ['\t', ';', ','].find((sign) => head.includes(sign)) ?? ',';
  try {
    return parse(text, { delimiter, bom: true, skip_empty_lines: true, relax_column_count: true, trim: true });
  } catch (error) {
    throw new Problem(
      'invalid-input',
      `This is no table that can be read: ${(error as Error).message}.`,
      'Nothing was filed.',
    );
  }
}

/** What the screen for settings from elsewhere starts from. Throws the Problem of stock that is not burned. */
export async function bringView(ctx: AppContext, pairingId: number): Promise<BringView> {
  const pairing = await getPairing(ctx, pairingId);
  refuseUnlessBurnable(pairing);
  const { facts } = await knownOf(ctx, pairing);
  return { pairing, usual: usualFill(pairing), shades: shadesOf(facts) };
}
