import { familyOf } from '../stock/families';
import type { Stock } from '../stock/stock';
import { eyeAsk, matesAsk, wordOf, type Ask, type EyeAsk, type Seen } from './asks';

/** Grades of a cell, by digit. */
export const GRADE: Ask = eyeAsk('grade', 'How good is it?', [
  ['1', '1', '1'],
  ['2', '2', '2'],
  ['3', '3', '3'],
  ['4', '4', '4'],
  ['5', '5', '5'],
]);

/** What happened to an engraved patch, by letter. */
export const OUTCOME: Ask = eyeAsk('outcome', 'What happened?', [
  ['good', 'g', 'good'],
  ['no-mark', 'n', 'no mark'],
  ['charred', 'c', 'charred'],
  ['burned-through', 'b', 'burned through'],
  ['flare-up', 'f', 'flare-up'],
  ['residue', 'r', 'residue stays'],
  ['wrong-hue', 'h', 'wrong hue'],
]);

/** Which of two patches is better: some questions are taste, and two are easier to tell apart than many. */
export const BETTER: Ask = { field: 'better', by: 'pairs', question: 'Which is better?' };

/** What happens to a part that was cut out when the sheet is tapped, by letter. */
export const DROP: Ask = eyeAsk('drop', 'Tap the sheet: what happens?', [
  ['clean', 'd', 'drops clean'],
  ['charred', 'c', 'drops, charred'],
  ['tip', 't', 'drops, detail burned away'],
  ['knife', 's', 'a few fibres: a knife frees it'],
  ['hangs', 'h', 'hangs'],
  ['not-through', 'n', 'not through'],
  ['flare', 'f', 'flare-up'],
]);

/** Passes that are counted, at the most: as many as there are digits. */
export const MOST_COUNTED = 9;
export const NOT_DROPPED = 'none';

/** After which pass a part dropped that gets one after another, by digit. */
export const COUNT = eyeAsk('count', 'After which pass did it drop?', [
  ...Array.from({ length: MOST_COUNTED }, (_, k) => [String(k + 1), String(k + 1), String(k + 1)] as const),
  [NOT_DROPPED, 'n', 'not even after the last'],
]);

/** Whether passes are counted. */
export const asksForCount = (asks: readonly Ask[]): boolean => asks.includes(COUNT);

/** The colour of a cut's edge. */
export const EDGE: Ask = eyeAsk('edge', 'What colour is its edge?', [
  ['pale', 'p', 'pale'],
  ['brown', 'b', 'brown'],
  ['black', 'x', 'black'],
]);

/** How an offcut of the sheet goes into a slot, from too tight to too loose, by letter. */
const GOES = [
  ['no', 'x', 'does not go in'],
  ['press', 'p', 'pressed in, stays'],
  ['snug', 's', 'snug by hand'],
  ['slip', 'l', 'slips in, no play'],
  ['loose', 'o', 'loose'],
] as const;

export const FIT: Ask = eyeAsk('fit', 'Push an offcut of the sheet into it: how does it go?', GOES);

/** How a part goes into a hole, for every pair of them. */
export const MATE = matesAsk('mate', 'Put the part into the hole: how does it go?', GOES);

/** Whether parts are put into holes, each into each. */
export const asksForMates = (asks: readonly Ask[]): boolean => asks.includes(MATE);

/** What a flap does that hangs by one line, by letter. */
export const FLAP: EyeAsk = {
  ...eyeAsk('flap', 'Bend the flap: what does it do?', [
    ['off', 'o', 'came off by itself'],
    ['clean', 'c', 'tears clean'],
    ['ragged', 'r', 'tears ragged'],
    ['folds', 'f', 'folds and holds'],
    ['breaks', 'b', 'breaks'],
    ['stiff', 's', 'does not give'],
  ]),
  exceptSides: ['stitch'],
};

/** What a row of scored dashes looks like, by letter. */
export const STITCH: EyeAsk = {
  ...eyeAsk('stitch', 'Does it look like stitching?', [
    ['stitching', 'y', 'like stitching'],
    ['faint', 'l', 'too faint'],
    ['deep', 'd', 'too deep'],
    ['together', 'g', 'runs together'],
  ]),
  sides: ['stitch'],
};

/** Whether flaps are bent. */
export const asksForBend = (asks: readonly Ask[]): boolean => asks.includes(FLAP);

/** Whether a hand is to tap the sheet under the cells. */
export const asksForTap = (asks: readonly Ask[]): boolean => asks.includes(DROP);

/** Whether a sheet is pushed into slots. */
export const asksForPush = (asks: readonly Ask[]): boolean => asks.some(({ field }) => field === FIT.field);

/** Depth of an engraved patch, for families that are judged by it: no photo shows it. */
export const DEPTH: Ask = {
  field: 'depth',
  by: 'gauge',
  of: 'cell',
  measures: 'depth',
  question: 'Depth of the cell, by a depth gauge',
  unit: 'mm',
  repeats: 2,
  resolution: 0.01,
  where: 'judged-by-depth',
};

/** How much of the light of a light table comes through: whether a coat is off shows there, and by no other light. */
export const THROUGH: Ask = { field: 'through', by: 'photo', measure: 'through', where: 'coat-on-clear' };

/** Whether light comes through where a part was: it has dropped. */
export const HOLES: Ask = { field: 'holes', by: 'photo', measure: 'through', where: 'cut-out' };

/** Whether a photo on a light table may tell what has dropped. */
export const asksForHoles = (asks: readonly Ask[]): boolean => asks.includes(HOLES);

/** What of a kind's asks is asked on a stock. */
export function asksOn(asks: readonly Ask[], stock: Pick<Stock, 'family'>): Ask[] {
  const { judgedBy, coatOnClear } = familyOf(stock.family);
  return asks.filter((ask) => {
    if (ask.by === 'gauge') return ask.where !== 'judged-by-depth' || judgedBy === 'depth';
    return !(ask.by === 'photo' && ask.measure === 'through' && ask.where === 'coat-on-clear') || coatOnClear === true;
  });
}

/** Whether a photo on a light table is asked for. */
export const asksThrough = (asks: readonly Ask[]): boolean =>
  asks.some((ask) => ask.by === 'photo' && ask.measure === 'through');

/** 1 (useless) to 5 (just right); null when the operator gave none. */
export function gradeOf(seen: Seen, cellIndex: number): number | null {
  const word = wordOf(seen, GRADE.field, cellIndex);
  return word === null ? null : Number(word);
}

const SPOILED: ReadonlySet<string | null> = new Set(['charred', 'burned-through', 'flare-up', 'no-mark', 'wrong-hue']);

/** Whether the operator called a cell spoiled: no setting is proposed from it. */
export function isSpoiled(seen: Seen, cellIndex: number): boolean {
  return SPOILED.has(wordOf(seen, OUTCOME.field, cellIndex));
}
