import type { CellThrough } from '../reading/backlit/observations';
import type { CellReading } from '../reading/observations';
import type { ChannelId } from './channels';
import type { Cell } from './layout';

/** One thing that an eye can say of a cell, with the key that says it. */
export interface EyeOption {
  readonly id: string;
  /** One character, lower case. */
  readonly key: string;
  readonly name: string;
}

/** What a gauge is set on: a part that was cut out or the hole it left, along an axis, the ground of an engraving, or what a strip is bent round. */
export type GaugeMeasure = 'width-x' | 'width-y' | 'hole-x' | 'hole-y' | 'top-x' | 'depth' | 'bend';

/** How an answer comes back from a burned card. */
export type Ask =
  | { readonly field: string; readonly by: 'photo'; readonly measure: 'tone' | 'lines' }
  | {
      readonly field: string;
      /**
       * How much light comes through, by a photo on a light table: asked of a coat on clear stock; or of what is cut out of a sheet, where it spares the eye
       * and need not be answered.
       */
      readonly by: 'photo';
      readonly measure: 'through';
      readonly where: 'coat-on-clear' | 'cut-out';
    }
  | {
      readonly field: string;
      readonly by: 'eye';
      readonly of: 'cell' | 'card';
      readonly question: string;
      readonly options: readonly EyeOption[];
      /** Asked only of cells that are cut as one of these: by their level of `side`; left out for what is asked of all. */
      readonly sides?: readonly string[];
      /** Asked of all but what is cut as one of these. */
      readonly exceptSides?: readonly string[];
    }
  | {
      /** Which of two cells is better: answers name the better one, and the other in their value. */
      readonly field: string;
      readonly by: 'pairs';
      readonly question: string;
    }
  | {
      /**
       * How each of a card's own mates goes together with each of the others: answers stand at the own cell, and name the other's step in `repeat`, from 0.
       */
      readonly field: string;
      readonly by: 'mates';
      readonly question: string;
      readonly options: readonly EyeOption[];
    }
  | {
      readonly field: string;
      readonly by: 'gauge';
      readonly of: 'cell';
      readonly measures: GaugeMeasure;
      readonly question: string;
      readonly unit: 'mm';
      readonly repeats: number;
      /** Smallest step of the gauge that is usual for it, in `unit`. */
      readonly resolution: number;
      /** What of a cell a reading of it must be near to, in `unit`: a level, or what was wanted of it; left out where none tells. */
      readonly near?: ChannelId | 'wanted-width' | 'wanted-height';
      readonly sides?: readonly string[];
      /** Asked only of families that are judged by it; left out for what is asked of all. */
      readonly where?: 'judged-by-depth';
    };

/** Whether something is asked of a cell. */
export function isAskedOf(ask: Ask, { levels }: Pick<Cell, 'levels'>): boolean {
  const side = String(levels.side);
  if ('exceptSides' in ask && ask.exceptSides?.includes(side)) return false;
  return !('sides' in ask && ask.sides) || ask.sides.includes(side);
}

/** What a gauge's reading of a cell must be near to, in mm; null where nothing tells. */
export function nearOf({ near }: Extract<Ask, { by: 'gauge' }>, { levels, wanted }: Cell): number | null {
  if (near === undefined) return null;
  if (near === 'wanted-width') return wanted?.comesOut?.widthMm ?? null;
  if (near === 'wanted-height') return wanted?.comesOut?.heightMm ?? null;
  return Number(levels[near]);
}

/** A question about each cell to be answered by eye; options as id, key and name. */
export const eyeAsk = (field: string, question: string, options: readonly NamedOption[]): EyeAsk => ({
  field,
  by: 'eye',
  of: 'cell',
  question,
  options: optionsOf(options),
});

/** A question about how two things go together; options as id, key and name. */
export const matesAsk = (field: string, question: string, options: readonly NamedOption[]): MatesAsk => ({
  field,
  by: 'mates',
  question,
  options: optionsOf(options),
});

type NamedOption = readonly [id: string, key: string, name: string];

const optionsOf = (options: readonly NamedOption[]): EyeOption[] =>
  options.map(([id, key, name]) => ({ id, key, name }));

/** What an eye says of a cell or a card. */
export type EyeAsk = Extract<Ask, { by: 'eye' }>;

/** How each of a card's own mates goes together with each of the others. */
export type MatesAsk = Extract<Ask, { by: 'mates' }>;

/** One answer of the operator: an option's id for the eye, a number for a gauge, the other cell of a pair, free text for the field `note`. */
export interface Answer {
  readonly field: string;
  /** Null when it is about the whole card. */
  readonly cellIndex: number | null;
  /** Which of several readings of one thing, from 0. */
  readonly repeat: number;
  readonly value: string | number;
}

/** All that is known of a burned card: what photos show, and what was answered. */
export interface Seen {
  readonly readings: readonly CellReading[];
  /** What photos showed before the piece was cleaned or finished, where newer ones show it after; left out otherwise. */
  readonly before?: readonly CellReading[];
  /** What a light table shows; left out where no photo was taken on one. */
  readonly through?: readonly CellThrough[];
  readonly answers: readonly Answer[];
}

/** The field of free words on a cell, which every kind takes. */
export const NOTE_FIELD = 'note';

/** What was answered to a field about a cell, as a word; null when nothing was. */
export function wordOf(seen: Seen, field: string, cellIndex: number | null): string | null {
  const answer = seen.answers.find((one) => one.field === field && one.cellIndex === cellIndex);
  return answer && typeof answer.value === 'string' ? answer.value : null;
}

/** Every number that was read from a gauge for a field of a cell, in the order of its repeats. */
export function numbersOf(seen: Seen, field: string, cellIndex: number): number[] {
  return seen.answers
    .filter((one) => one.field === field && one.cellIndex === cellIndex)
    .sort((a, b) => a.repeat - b.repeat)
    .flatMap(({ value }) => (typeof value === 'number' ? [value] : []));
}

/** Others that a cell is put together with, at the most. */
const MOST_OTHERS = 16;

/** Comparisons of a card at the most. */
export const MOST_PAIRS = 200;

/** The other cell that an answer about two names: "5" is worse, "=5" as good. Null for what names none. */
export function otherOf(value: string): { readonly cellIndex: number; readonly equal: boolean } | null {
  const parts = /^(=?)(\d{1,4})$/.exec(value);
  return parts && { cellIndex: Number(parts[2]), equal: parts[1] === '=' };
}

/** One comparison of two cells as it was answered. */
export interface ComparedCells {
  readonly better: number;
  readonly worse: number;
  readonly equal: boolean;
  /** As they were asked, so that the last one can be taken back. */
  readonly repeat: number;
}

/** Every comparison that was answered to a field, in the order in which they were asked. */
export function comparisonsOf(seen: Pick<Seen, 'answers'>, field: string): ComparedCells[] {
  return seen.answers
    .flatMap((answer): ComparedCells[] => {
      const other = answer.field === field && typeof answer.value === 'string' ? otherOf(answer.value) : null;
      return other && answer.cellIndex !== null
        ? [{ better: answer.cellIndex, worse: other.cellIndex, equal: other.equal, repeat: answer.repeat }]
        : [];
    })
    .sort((a, b) => a.repeat - b.repeat);
}

/** Why an answer does not fit the asks of a kind; null when it does. */
export function answerProblem(asks: readonly Ask[], { field, cellIndex, repeat, value }: Answer): string | null {
  if (field === NOTE_FIELD) {
    if (typeof value !== 'string' || value.length > 500) return 'A note is text of at most 500 characters.';
    return repeat === 0 ? null : 'There is one note for each cell.';
  }
  const ask = asks.find((one) => one.field === field);
  if (!ask || ask.by === 'photo') return `Nothing is asked under “${field}”.`;
  if (ask.by === 'eye') {
    if (repeat !== 0) return 'What the eye says is said once.';
    return optionProblem(ask.options, value);
  }
  if (ask.by === 'pairs') {
    if (!Number.isInteger(repeat) || repeat < 0 || repeat >= MOST_PAIRS)
      return `At most ${MOST_PAIRS} comparisons are taken.`;
    const other = typeof value === 'string' ? otherOf(value) : null;
    return other === null || other.cellIndex === cellIndex || cellIndex === null
      ? 'Name another cell: “5” where this one is better than it, “=5” where neither is.'
      : null;
  }
  if (ask.by === 'mates') {
    if (cellIndex === null || !Number.isInteger(repeat) || repeat < 0 || repeat >= MOST_OTHERS)
      return 'Say which two were put together.';
    return optionProblem(ask.options, value);
  }
  if (!Number.isInteger(repeat) || repeat < 0 || repeat >= ask.repeats)
    return `At most ${ask.repeats} readings are taken.`;
  return typeof value === 'number' && Number.isFinite(value) && value > 0 && value < 10_000
    ? null
    : `A reading is a length above 0 ${ask.unit}.`;
}

const optionProblem = (options: readonly EyeOption[], value: string | number): string | null =>
  options.some((option) => option.id === value)
    ? null
    : `“${String(value)}” is none of the answers: ${options.map((option) => option.id).join(', ')}.`;
