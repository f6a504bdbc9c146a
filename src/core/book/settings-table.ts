import type { Machine } from '../machine/machine';
import { parseInterval, parseLength, parsePower, parseSpeed, QuantityError } from '../quantities/parse';
import { PLAIN_EXTRAS, type BurnSettings } from '../card/settings';

/** What a column of a table of settings can mean. */
export const COLUMN_MEANINGS = {
  ignore: 'not taken over',
  power: 'power, %',
  'power-watts': 'power, W',
  'power-thousandths': 'power, 0 to 1000',
  'speed-mm-s': 'speed, mm/s',
  'speed-mm-min': 'speed, mm/min',
  'speed-in-s': 'speed, in/s',
  'interval-mm': 'line interval, mm',
  'interval-dpi': 'line density, DPI',
  'interval-lines-cm': 'line density, lines per cm',
  passes: 'passes',
  focus: 'focus offset, mm',
  air: 'air',
  shade: 'name or shade',
  note: 'note',
} as const;
export type ColumnMeaning = keyof typeof COLUMN_MEANINGS;

/** A row as it would be filed, or why it cannot be. */
export interface TableRow {
  /** Counted from 1, the line of titles not among them. */
  readonly row: number;
  readonly settings: BurnSettings | null;
  readonly shade: string;
  readonly note: string;
  readonly problems: readonly string[];
}

const plain = (title: string): string =>
  title
    .toLowerCase()
    .replace(/\s*\/\s*/g, '/')
    .replace(/[^a-z0-9/%]+/g, ' ')
    .trim();

const largest = (samples: readonly string[]): number =>
  Math.max(0, ...samples.map((text) => Number(text.replace(',', '.'))).filter(Number.isFinite));

/**
 * What a column most likely means, by its title and, where the title leaves the unit open, by how large its numbers are: power past 100
 * is in thousandths, a density past 10 is DPI. A guess to be looked at and changed, never taken over unseen.
 */
export function guessColumn(title: string, samples: readonly string[]): ColumnMeaning {
  const words = plain(title);
  const has = (...parts: string[]): boolean => parts.some((part) => words.includes(part));
  if (has('power', 'pwr') || words === '%') {
    if (has('watt') || /\bw\b/.test(words)) return 'power-watts';
    return largest(samples) > 100 ? 'power-thousandths' : 'power';
  }
  if (has('speed', 'feed', 'velocity')) {
    if (has('/min', 'per min', 'mm min', 'mmpm')) return 'speed-mm-min';
    if (has('in/s', 'ips', 'inch')) return 'speed-in-s';
    return 'speed-mm-s';
  }
  if (has('dpi', 'lpi', 'density', 'lines/in')) return has('cm') ? 'interval-lines-cm' : 'interval-dpi';
  if (has('lines/cm', 'l/cm')) return 'interval-lines-cm';
  if (has('interval', 'spacing', 'line gap', 'pitch', 'hatch'))
    return largest(samples) > 10 ? 'interval-dpi' : 'interval-mm';
  if (has('pass', 'repeat')) return 'passes';
  if (has('focus', 'offset', 'defocus')) return 'focus';
  if (has('air')) return 'air';
  if (has('shade', 'name', 'title', 'depth', 'strength')) return 'shade';
  if (has('note', 'remark', 'comment', 'description')) return 'note';
  return 'ignore';
}

function airOf(text: string): BurnSettings['air'] {
  const word = text.toLowerCase();
  if (['off', 'no', '0', 'false', 'none'].includes(word)) return 'off';
  if (['on', 'yes', '1', 'true', 'high', 'full'].includes(word)) return 'on';
  if (word === 'low') return 'low';
  throw new QuantityError(`invalid air: "${text}" is neither off, low nor on`);
}

function wholeOf(text: string): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > 20)
    throw new QuantityError(`invalid passes: "${text}" is not 1 to 20`);
  return value;
}

type Read = Partial<Record<'power' | 'speed' | 'interval' | 'passes' | 'focus' | 'air', number | string>>;

const READERS: Readonly<
  Record<
    Exclude<ColumnMeaning, 'ignore' | 'shade' | 'note'>,
    readonly [keyof Read, (text: string, machine: Machine) => number | string]
  >
> = {
  power: ['power', (text, { ratedPowerW }) => parsePower(text, ratedPowerW)],
  'power-watts': ['power', (text, { ratedPowerW }) => parsePower(/w$/i.test(text) ? text : `${text} W`, ratedPowerW)],
  'power-thousandths': ['power', (text) => (text.includes('%') ? parsePower(text) : parsePower(text) / 10)],
  'speed-mm-s': ['speed', (text) => parseSpeed(text, 'mm/s')],
  'speed-mm-min': ['speed', (text) => parseSpeed(text, 'mm/min')],
  'speed-in-s': ['speed', (text) => parseSpeed(/[a-z]/i.test(text) ? text : `${text} in/s`)],
  'interval-mm': ['interval', (text) => parseInterval(text, 'mm')],
  'interval-dpi': ['interval', (text) => parseInterval(text, 'dpi')],
  'interval-lines-cm': ['interval', (text) => parseInterval(text, 'lines/cm')],
  passes: ['passes', wholeOf],
  focus: ['focus', (text) => parseLength(text)],
  air: ['air', airOf],
};

/**
 * One row of a table by what its columns mean. Power and speed must stand in it; what the table lacks is taken from `usual`. A row with
 * any cell that cannot be understood has no settings and says why: nothing is guessed into the book.
 */
export function readTableRow(
  row: number,
  cells: readonly string[],
  meanings: readonly ColumnMeaning[],
  machine: Machine,
  usual: BurnSettings,
): TableRow {
  const problems: string[] = [];
  const read: Read = {};
  let shade = '';
  const notes: string[] = [];
  meanings.forEach((meaning, column) => {
    const text = (cells[column] ?? '').trim();
    if (meaning === 'ignore' || text === '') return;
    if (meaning === 'shade') shade = text.slice(0, 40);
    else if (meaning === 'note') notes.push(text);
    else {
      const [field, parse] = READERS[meaning];
      try {
        if (read[field] !== undefined) problems.push(`Two columns say ${field}.`);
        read[field] = parse(text, machine);
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        problems.push(`${error.message.charAt(0).toUpperCase()}${error.message.slice(1)}.`);
      }
    }
  });
  const need = (['power', 'speed'] as const).filter((field) => read[field] === undefined);
  if (problems.length === 0) for (const field of need) problems.push(`No ${field}.`);
  const settings: BurnSettings = {
    ...usual,
    ...PLAIN_EXTRAS,
    powerFraction: Number(read.power),
    speedMmPerS: Number(read.speed),
    intervalMm: Number(read.interval ?? usual.intervalMm),
    passes: Number(read.passes ?? 1),
    focusOffsetMm: Number(read.focus ?? 0),
    air: (read.air as BurnSettings['air'] | undefined) ?? usual.air,
  };
  return {
    row,
    settings: problems.length > 0 ? null : settings,
    shade,
    note: notes.join('; ').slice(0, 1000),
    problems,
  };
}
