import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { cardKind } from '../../cards/registry';
import type { Burn } from '../../core/card/shape';
import type { Answer, Seen } from '../../core/card/asks';
import { LOW_CONFIDENCE, type CellReading } from '../../core/reading/observations';
import {
  doubtedOf,
  gaugeAfter,
  keyAction,
  nextDoubted,
  saidSigns,
  saidWords,
  sortedAsks,
  standingAnswer,
} from './look';

const burn: Burn = { shape: { do: 'follow', lines: [] }, settings: PLAIN_FILL };
const { asks } = cardKind('grid');
const kerfAsks = cardKind('kerf').asks;
const { ofCell } = sortedAsks(asks);
const { gauges } = sortedAsks(kerfAsks);
const answer = (cellIndex: number, field: string, value: string | number, repeat = 0): Answer => ({
  field,
  cellIndex,
  repeat,
  value,
});
const reading = (cellIndex: number, confidence: number) => ({ cellIndex, confidence }) as CellReading;
const pressed = (key: string, held: object = {}) =>
  keyAction({ key, ctrlKey: false, metaKey: false, altKey: false, ...held }, ofCell);

describe('keys on a cell', () => {
  it('answer the question that knows them, in either case', () => {
    expect(pressed('4')).toEqual({ do: 'say', answers: [{ field: 'grade', value: '4' }] });
    expect(pressed('C')).toEqual({ do: 'say', answers: [{ field: 'outcome', value: 'charred' }] });
  });
  it('undo, clear and go on', () => {
    expect(pressed('u')).toEqual({ do: 'undo' });
    expect(pressed('z', { ctrlKey: true })).toEqual({ do: 'undo' });
    expect(pressed('0')).toEqual({ do: 'clear' });
    expect(pressed('Backspace')).toEqual({ do: 'clear' });
    expect(pressed('Enter')).toEqual({ do: 'next' });
  });
  it('are left alone where they are the browser’s, or nobody’s', () => {
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }]) {
      expect(pressed('c', held)).toBeNull();
      expect(pressed('4', held)).toBeNull();
      expect(pressed('0', held)).toBeNull();
    }
    expect(pressed('z')).toBeNull();
    expect(pressed('9')).toBeNull();
    expect(pressed('ArrowLeft')).toBeNull();
  });
});

describe('what was said of a cell', () => {
  const seen: Seen = {
    readings: [],
    answers: [
      answer(3, 'grade', '4'),
      answer(3, 'outcome', 'residue'),
      answer(4, 'grade', '1'),
      answer(3, 'depth', 0.42),
    ],
  };
  it('is told in words, digits with what they answer', () => {
    expect(saidWords(asks, seen, 3)).toEqual(['grade 4', 'residue stays', '0.42 mm']);
    expect(saidWords(asks, seen, 5)).toEqual([]);
  });
  it('and in signs', () => {
    expect(saidSigns(asks, seen, 3)).toEqual(['4', 'R', '0.42']);
  });
  it('is known before it is said anew, so that it can come back', () => {
    const next = { field: 'grade', cellIndex: 3, repeat: 0, value: '5' };
    expect(standingAnswer(seen.answers, next)).toEqual({ ...next, value: '4' });
    expect(standingAnswer(seen.answers, { ...next, cellIndex: 9 })).toEqual({ ...next, cellIndex: 9, value: null });
    expect(standingAnswer(seen.answers, { ...next, repeat: 1 }).value).toBeNull();
  });
});

describe('cells in doubt', () => {
  const low = LOW_CONFIDENCE - 0.01;
  const readings = [reading(0, low), reading(1, LOW_CONFIDENCE), reading(4, low), reading(7, low)];
  it('are those of low confidence of which nothing was said', () => {
    expect(doubtedOf({ readings, answers: [answer(4, 'grade', '3')] }).map((cell) => cell.cellIndex)).toEqual([0, 7]);
  });
  it('come one after another, and begin again', () => {
    const doubted = doubtedOf({ readings, answers: [] });
    expect([null, 0, 3, 4, 7].map((from) => nextDoubted(doubted, from))).toEqual([0, 4, 4, 7, 0]);
    expect(nextDoubted([], 3)).toBeUndefined();
  });
});

describe('readings of a gauge', () => {
  it('go on with the same gauge, the next gauge, the next cell as they burn, and end', () => {
    const on = { order: [2, 0, 1], cells: [0, 1, 2].map((index) => cellOf(index, burn)) };
    const x = gauges[0];
    const y = gauges[1];
    const last = gauges.at(-1);
    expect(gaugeAfter({ cellIndex: 2, field: x!.field, repeat: 0 }, gauges, on)).toEqual({
      cellIndex: 2,
      field: x!.field,
      repeat: 1,
    });
    expect(gaugeAfter({ cellIndex: 2, field: x!.field, repeat: 2 }, gauges, on)).toEqual({
      cellIndex: 2,
      field: y!.field,
      repeat: 0,
    });
    expect(gaugeAfter({ cellIndex: 2, field: last!.field, repeat: 2 }, gauges, on)).toEqual({
      cellIndex: 0,
      field: x!.field,
      repeat: 0,
    });
    expect(gaugeAfter({ cellIndex: 1, field: last!.field, repeat: 2 }, gauges, on)).toBeNull();
  });
});

describe('asks', () => {
  it('are sorted by who answers them', () => {
    expect(ofCell.map(({ field }) => field)).toEqual(['grade', 'outcome']);
    expect(sortedAsks(kerfAsks)).toMatchObject({ ofCell: [{ field: 'drop' }], ofCard: [], gauges: [{}, {}, {}, {}] });
    expect(sortedAsks([{ ...ofCell[0]!, of: 'card' }]).ofCard).toHaveLength(1);
  });
});
