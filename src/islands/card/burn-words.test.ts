import { describe, expect, it } from 'vitest';
import { endWords, partWords, shareDone } from './burn-words';

const ended = { place: 'bench', status: 'done', fault: null, actualS: 83, estimatedS: 80 } as const;

describe('the end of a burn', () => {
  it.each([
    [ended, 'Burned to the end: 1 min 23 s, estimated 1 min 20 s.'],
    [{ ...ended, status: 'stopped' }, 'Stopped by hand: 1 min 23 s, estimated 1 min 20 s.'],
    [{ ...ended, status: 'interrupted' }, 'Interrupted: the server ended first: 1 min 23 s, estimated 1 min 20 s.'],
    [
      { ...ended, status: 'interrupted', fault: 'line 4 was refused: outside the bed' },
      'Broken off by the bench, line 4 was refused: outside the bed: 1 min 23 s, estimated 1 min 20 s.',
    ],
    [{ ...ended, place: 'own-machine' }, 'Burned on your own machine: 1 min 23 s, estimated 1 min 20 s.'],
    [
      { ...ended, place: 'own-machine', status: 'stopped', actualS: null },
      'Stopped by hand on your own machine, not timed; estimated 1 min 20 s.',
    ],
  ] as const)('%#', (burn, words) => expect(endWords(burn)).toBe(words));
});

describe('a burn under way', () => {
  it('names what burns, cells counted from one', () => {
    expect(partWords({ part: '', cells: [] })).toBe('…');
    expect(partWords({ part: 'marker upper-left', cells: [] })).toBe('marker upper-left');
    expect(partWords({ part: 'cell 6', cells: [6] })).toBe('cell 7');
    expect(partWords({ part: 'cells 6 7 8', cells: [6, 7, 8] })).toBe('cells 7 to 9, one row');
  });
  it('is over by the share of its lines, the bench’s own count first', () => {
    expect(shareDone({ linesTotal: 400, linesDone: 100 }, null)).toBe(0.25);
    expect(shareDone({ linesTotal: 400, linesDone: 100 }, { linesDone: 300 })).toBe(0.75);
    expect(shareDone({ linesTotal: 0, linesDone: 0 }, null)).toBe(0);
  });
});
