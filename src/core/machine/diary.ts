import type { Cause } from '../book/staleness';
import { dayOf } from '../quantities/day';
import { plainNumber } from '../quantities/format';

/** What happens to a machine between burns that changes how it burns, and what it makes doubtful. */
export const DIARY_KINDS = {
  cleaned: { name: 'Optics cleaned', doubts: ['power'] },
  aligned: { name: 'Mirrors or lens aligned', doubts: ['power', 'lens'] },
  source: { name: 'Source replaced', doubts: ['source', 'power'] },
  repaired: { name: 'Head, belts or drives repaired', doubts: ['motion'] },
  levelled: { name: 'Bed levelled or moved', doubts: ['bed'] },
  fire: { name: 'A fire', doubts: ['source', 'power', 'lens', 'motion'] },
  watts: { name: 'Watts measured by a meter', doubts: [] },
  inferred: { name: 'Power inferred from a card burned again', doubts: [] },
  note: { name: 'Something else', doubts: [] },
} as const satisfies Readonly<Record<string, { readonly name: string; readonly doubts: readonly Cause[] }>>;

export type DiaryKind = keyof typeof DIARY_KINDS;

export const DIARY_KIND_NAMES = Object.keys(DIARY_KINDS) as DiaryKind[];

/** What a meter showed, at which command. */
export interface MeterReading {
  readonly command: number;
  readonly watts: number;
}

export interface DiaryEntry {
  /** The day it happened on, or the moment it was noted, ISO. */
  readonly at: string;
  readonly kind: DiaryKind;
  readonly note: string;
  /** Of a meter; null for what is no measurement. */
  readonly reading: MeterReading | null;
  /** What it gives at a command over what it gave before, as a card told that was burned again on the same sheet; null for every other entry. */
  readonly share: number | null;
}

/** A meter repeats itself to about this (common practice); a source that changed by more burns otherwise. */
export const SAME_WATTS = 0.05;
/** Readings at commands this close are of the same command. */
const SAME_COMMAND = 0.01;

/** By which share watts at the same command differ from before: from the reading before, or as a card told; null where neither tells it. */
export function wattsChange(entries: readonly DiaryEntry[], entry: DiaryEntry): number | null {
  const { reading, share } = entry;
  if (share !== null) return share - 1;
  if (!reading) return null;
  const before = entries
    .filter(
      (one) => one.at < entry.at && one.reading && Math.abs(one.reading.command - reading.command) <= SAME_COMMAND,
    )
    .sort((a, b) => (a.at < b.at ? 1 : -1))[0]?.reading;
  return before && before.watts > 0 ? reading.watts / before.watts - 1 : null;
}

const isOfWatts = ({ kind }: DiaryEntry): boolean => kind === 'watts' || kind === 'inferred';

/** What an entry makes doubtful: by its kind; what tells of watts only where they differ from before. */
export function doubtsOf(entries: readonly DiaryEntry[], entry: DiaryEntry): readonly Cause[] {
  if (!isOfWatts(entry)) return DIARY_KINDS[entry.kind].doubts;
  const change = wattsChange(entries, entry);
  return change !== null && Math.abs(change) > SAME_WATTS ? ['power'] : [];
}

/** An entry in a few words: "optics cleaned", "9 % fewer watts measured". */
export function diaryWords(entries: readonly DiaryEntry[], entry: DiaryEntry): string {
  const change = wattsChange(entries, entry);
  if (!isOfWatts(entry) || change === null) return DIARY_KINDS[entry.kind].name.toLowerCase();
  const told = entry.kind === 'watts' ? 'measured' : 'inferred from a card';
  return `${plainNumber(100 * Math.abs(change), 2)} % ${change < 0 ? 'fewer' : 'more'} watts ${told}`;
}

/** Why something that was found at a moment may hold no longer, by what happened since, newest last; with the day of each. */
export function diaryReasons(entries: readonly DiaryEntry[], since: string, causes: readonly Cause[]): string[] {
  return entries
    .filter((entry) => entry.at > since && doubtsOf(entries, entry).some((doubt) => causes.includes(doubt)))
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .map((entry) => `${diaryWords(entries, entry)} on ${dayOf(entry.at)}`);
}
