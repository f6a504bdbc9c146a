import { describe, expect, it } from 'vitest';
import { answerProblem, eyeAsk, matesAsk, nearOf, NOTE_FIELD, numbersOf, wordOf, type Answer, type Ask } from './asks';
import type { Cell } from './layout';
import { FAMILIES } from '../stock/families';
import { asksOn, asksThrough, DEPTH, GRADE, gradeOf, isSpoiled, THROUGH } from './usual-asks';
import { tuples } from '../../../tests/support/tuples';

const ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk('mark', 'A mark?', tuples(['marked', 'm', 'a mark'], ['nothing', 'n', 'nothing'])),
  {
    field: 'width-x',
    by: 'gauge',
    of: 'cell',
    measures: 'width-x',
    question: 'How wide?',
    unit: 'mm',
    repeats: 3,
    resolution: 0.01,
  },
];
const answer = (field: string, value: string | number, repeat = 0, cellIndex: number | null = 2): Answer => ({
  field,
  value,
  repeat,
  cellIndex,
});

describe('what was answered', () => {
  const seen = {
    readings: [],
    answers: [
      answer('width-x', 20.1, 2),
      answer('width-x', 19.9, 0),
      answer('width-x', 20, 1),
      answer('mark', 'marked'),
      answer('width-x', 7, 0, 3),
    ],
  };
  it('is a word of the eye, about a cell', () => {
    expect(wordOf(seen, 'mark', 2)).toBe('marked');
    expect(wordOf(seen, 'mark', 3)).toBeNull();
    expect(wordOf(seen, 'width-x', 3)).toBeNull();
  });
  it('are the numbers of a gauge, in the order of its readings', () => {
    expect(numbersOf(seen, 'width-x', 2)).toEqual([19.9, 20, 20.1]);
    expect(numbersOf(seen, 'width-x', 9)).toEqual([]);
    expect(numbersOf(seen, 'mark', 2)).toEqual([]);
  });
});

describe('what is asked of every engraved patch', () => {
  const seen = {
    readings: [],
    answers: [
      answer('grade', '4'),
      answer('outcome', 'charred'),
      answer('outcome', 'good', 0, 3),
      answer('outcome', 'residue', 0, 4),
      answer('outcome', 'no-mark', 0, 5),
    ],
  };
  it('is a grade of one to five, none where nobody gave one', () => {
    expect([gradeOf(seen, 2), gradeOf(seen, 3)]).toEqual([4, null]);
  });
  it('is what happened to it: charred, cut through, in flames or bare it is spoiled, good or with residue it is not', () => {
    expect([2, 3, 4, 5, 6].map((index) => isSpoiled(seen, index))).toEqual([true, false, false, true, false]);
  });
  it('is its depth only on stock that is judged by depth', () => {
    const asks = [GRADE, DEPTH, { ...DEPTH, field: 'width', where: undefined }] as const;
    const fields = (family: string) => asksOn(asks as unknown as Ask[], { family }).map(({ field }) => field);
    const deep = FAMILIES.find(({ judgedBy }) => judgedBy === 'depth')!;
    expect(fields(deep.id)).toEqual(['grade', 'depth', 'width']);
    expect(fields('plywood')).toEqual(['grade', 'width']);
  });
});

describe('what a gauge’s reading must be near to', () => {
  it('is a level of the cell, or what was wanted of it, or nothing', () => {
    const gauge = ASKS[2] as Extract<Ask, { by: 'gauge' }>;
    const cell = { levels: { size: 20 }, wanted: { comesOut: { widthMm: 19, heightMm: 7 } } } as unknown as Cell;
    const near = (to: typeof gauge.near, of = cell) => nearOf({ ...gauge, ...(to && { near: to }) }, of);
    expect([near(undefined), near('size'), near('wanted-width'), near('wanted-height')]).toEqual([null, 20, 19, 7]);
    const bare = { levels: {} } as Cell;
    expect([near('wanted-width', bare), near('wanted-height', bare)]).toEqual([null, null]);
  });
});

describe('an answer', () => {
  it('is one of the words that are asked for, said once', () => {
    expect(answerProblem(ASKS, answer('mark', 'marked'))).toBeNull();
    expect(answerProblem(ASKS, answer('mark', 'maybe'))).toBe('“maybe” is none of the answers: marked, nothing.');
    expect(answerProblem(ASKS, answer('mark', 'marked', 1))).toMatch(/said once/);
  });
  it('is a reading above zero, as often as it is asked for', () => {
    for (const repeat of [0, 2]) expect(answerProblem(ASKS, answer('width-x', 20, repeat))).toBeNull();
    for (const repeat of [-1, 3, 0.5]) expect(answerProblem(ASKS, answer('width-x', 20, repeat))).toMatch(/At most 3/);
    for (const value of [0, -1, 10_000, NaN, Infinity, '20'])
      expect(answerProblem(ASKS, answer('width-x', value)), String(value)).toMatch(/above 0 mm/);
    expect(answerProblem(ASKS, answer('width-x', 9999))).toBeNull();
  });
  it('is what was felt of a hole and the part that was put in it', () => {
    const asks = [matesAsk('felt', 'How do they go together?', [['snug', 's', 'snug']])];
    for (const repeat of [0, 1]) expect(answerProblem(asks, answer('felt', 'snug', repeat))).toBeNull();
    for (const repeat of [-1, 0.5, 1000])
      expect(answerProblem(asks, answer('felt', 'snug', repeat))).toMatch(/which two/);
    expect(answerProblem(asks, answer('felt', 'snug', 0, null))).toMatch(/which two/);
    expect(answerProblem(asks, answer('felt', 'loose'))).toBe('“loose” is none of the answers: snug.');
  });
  it('is the light that comes through only of a coat on a clear sheet', () => {
    const asked = (family: string) => asksThrough(asksOn([GRADE, THROUGH], { family }));
    expect(FAMILIES.map(({ id }) => id).filter(asked)).toEqual(['coated-clear']);
    expect(asksThrough(asksOn([GRADE], { family: 'coated-clear' }))).toBe(false);
  });
  it('is nothing that a photo answers, or nobody asks', () => {
    expect(answerProblem(ASKS, answer('tone', 5))).toBe('Nothing is asked under “tone”.');
    expect(answerProblem(ASKS, answer('mystery', 'x'))).toBe('Nothing is asked under “mystery”.');
  });
  it('is a note of any words, one for each cell', () => {
    expect(answerProblem(ASKS, answer(NOTE_FIELD, 'x'.repeat(500)))).toBeNull();
    expect(answerProblem(ASKS, answer(NOTE_FIELD, 'x'.repeat(501)))).toMatch(/at most 500/);
    expect(answerProblem(ASKS, answer(NOTE_FIELD, 5))).toMatch(/A note is text/);
    expect(answerProblem(ASKS, answer(NOTE_FIELD, 'again', 1))).toMatch(/one note for each cell/);
  });
});
