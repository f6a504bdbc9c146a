import {
  isAskedOf,
  numbersOf,
  wordOf,
  type Answer,
  type Ask,
  type EyeAsk,
  type MatesAsk,
  type Seen,
} from '../../core/card/asks';
import { BETTER } from '../../core/card/usual-asks';
import type { Layout } from '../../core/card/layout';
import { plainNumber } from '../../core/quantities/format';
import { LOW_CONFIDENCE, type CellReading } from '../../core/reading/observations';

/** An answer to be put; null takes back what was said. */
export type NewAnswer = Omit<Answer, 'value'> & { readonly value: string | number | null };

type GaugeAsk = Extract<Ask, { by: 'gauge' }>;

/** What is asked of each cell by eye, of the whole card by eye, and by a gauge. */
export function sortedAsks(asks: readonly Ask[]): {
  readonly ofCell: readonly EyeAsk[];
  readonly ofCard: readonly EyeAsk[];
  readonly gauges: readonly GaugeAsk[];
} {
  const eye = asks.filter((ask) => ask.by === 'eye');
  return {
    ofCell: eye.filter((ask) => ask.of === 'cell'),
    ofCard: eye.filter((ask) => ask.of === 'card'),
    gauges: asks.filter((ask) => ask.by === 'gauge'),
  };
}

/** Cells that the photo alone cannot be trusted in, and of which nothing was said. */
export function doubtedOf({ readings, answers }: Seen): CellReading[] {
  // Who likes one better than another has not said that either was read right.
  const answered = new Set(answers.filter(({ field }) => field !== BETTER.field).map(({ cellIndex }) => cellIndex));
  return readings.filter((cell) => cell.confidence < LOW_CONFIDENCE && !answered.has(cell.cellIndex));
}

/** The doubted cell after the one that is selected, and the first after the last; undefined where there is none. */
export function nextDoubted(doubted: readonly CellReading[], selected: number | null): number | undefined {
  return (doubted.find(({ cellIndex }) => cellIndex > (selected ?? -1)) ?? doubted[0])?.cellIndex;
}

/** What stands now where an answer is about to be put: putting it again takes the new one back. */
export function standingAnswer(
  answers: readonly Answer[],
  { field, cellIndex, repeat }: Omit<Answer, 'value'>,
): NewAnswer {
  const same = answers.find((one) => one.field === field && one.cellIndex === cellIndex && one.repeat === repeat);
  return { field, cellIndex, repeat, value: same?.value ?? null };
}

export type KeyAction =
  | { readonly do: 'undo' }
  | { readonly do: 'clear' }
  | { readonly do: 'next' }
  | { readonly do: 'say'; readonly answers: readonly { readonly field: string; readonly value: string }[] };

interface Pressed {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
}

/** What a key on a cell does; null for keys that are somebody else's. A key that several questions know answers each of them. */
export function keyAction({ key, ctrlKey, metaKey, altKey }: Pressed, ofCell: readonly EyeAsk[]): KeyAction | null {
  const pressed = key.toLowerCase();
  if (ctrlKey && pressed === 'z') return { do: 'undo' };
  if (ctrlKey || metaKey || altKey) return null;
  if (pressed === 'u') return { do: 'undo' };
  if (pressed === '0' || pressed === 'backspace') return { do: 'clear' };
  if (pressed === 'enter') return { do: 'next' };
  const answers = ofCell.flatMap(({ field, options }) =>
    options.filter((option) => option.key === pressed).map(({ id }) => ({ field, value: id })),
  );
  return answers.length > 0 ? { do: 'say', answers } : null;
}

/** What was said of a cell with each of the others it goes together with, in their order. */
function matesOf(ask: MatesAsk, { answers }: Seen, cellIndex: number) {
  return answers
    .filter((one) => one.field === ask.field && one.cellIndex === cellIndex)
    .sort((a, b) => a.repeat - b.repeat)
    .flatMap(({ repeat, value }) => {
      const option = ask.options.find(({ id }) => id === value);
      return option ? [{ other: repeat, option }] : [];
    });
}

/** All that was said of a cell, in words: "grade 4, residue stays, 19.84 mm". */
export function saidWords(asks: readonly Ask[], seen: Seen, cellIndex: number): string[] {
  return asks.flatMap((ask) => {
    if (ask.by === 'photo' || ask.by === 'pairs') return [];
    if (ask.by === 'mates')
      return matesOf(ask, seen, cellIndex).map(({ other, option }) => `with ${other + 1} ${option.name}`);
    if (ask.by === 'gauge')
      return numbersOf(seen, ask.field, cellIndex).map((mm) => `${plainNumber(mm, 6)} ${ask.unit}`);
    const option = ask.options.find(({ id }) => id === wordOf(seen, ask.field, cellIndex));
    // A bare digit says nothing without what it answers.
    return option ? [option.name.length <= 2 ? `${ask.field} ${option.name}` : option.name] : [];
  });
}

/** The same in as few signs as fit into the cell. */
export function saidSigns(asks: readonly Ask[], seen: Seen, cellIndex: number): string[] {
  return asks.flatMap((ask) => {
    if (ask.by === 'photo' || ask.by === 'pairs') return [];
    if (ask.by === 'mates') return matesOf(ask, seen, cellIndex).map(({ option }) => option.key.toUpperCase());
    if (ask.by === 'gauge') return numbersOf(seen, ask.field, cellIndex).map((mm) => plainNumber(mm, 5));
    const option = ask.options.find(({ id }) => id === wordOf(seen, ask.field, cellIndex));
    return option ? [option.key.toUpperCase()] : [];
  });
}

export interface GaugePlace {
  readonly cellIndex: number;
  readonly field: string;
  readonly repeat: number;
}

/** After a reading the same cell's next reading, then its next gauge, then the next cell in burn order; null after the last. */
export function gaugeAfter(
  { cellIndex, field, repeat }: GaugePlace,
  gauges: readonly GaugeAsk[],
  { order, cells }: Pick<Layout, 'order' | 'cells'>,
): GaugePlace | null {
  const places = order.flatMap((index) =>
    gauges
      .filter((ask) => isAskedOf(ask, cells[index]!))
      .flatMap((ask) =>
        Array.from({ length: ask.repeats }, (_, turn) => ({ cellIndex: index, field: ask.field, repeat: turn })),
      ),
  );
  const here = places.findIndex(
    (place) => place.cellIndex === cellIndex && place.field === field && place.repeat === repeat,
  );
  return places[here + 1] ?? null;
}
