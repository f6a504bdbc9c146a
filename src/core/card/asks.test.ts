import { describe, expect, it } from 'vitest';
import { answerProblem, eyeAsk, NOTE_FIELD, numbersOf, wordOf, type Answer, type Ask } from './asks';
import { FAMILIES } from '../stock/families';
import { asksOn, asksThrough, DEPTH, GRADE, gradeOf, isSpoiled, THROUGH } from './usual-asks';

const ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk('mark', 'A mark?', [
    ['marked', 'm', 'a mark'],
    ['nothing', 'n', 'nothing'],
  ]),
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
