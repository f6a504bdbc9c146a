import { describe, expect, it } from 'vitest';
import type { BurnRecord } from '../records/burn';
import { scopeAt } from './scope';

const burn = (place: BurnRecord['place'], linesDone: number) => ({ place, linesDone }) as BurnRecord;

describe('what a burn of a card is about', () => {
  it('is all of it where no cells are asked for', () => expect(scopeAt(null, [])).toBeNull());
  it('has the frame with the first burn, and never again', () => {
    expect(scopeAt([3], [])).toEqual({ cells: [3], frame: true });
    expect(scopeAt([3], [burn('bench', 12)])).toEqual({ cells: [3], frame: false });
    // A burn on another machine is told, not counted by lines; one that the bench never began burned nothing.
    expect(scopeAt([3], [burn('own-machine', 0)])).toEqual({ cells: [3], frame: false });
    expect(scopeAt([3], [burn('bench', 0)])).toEqual({ cells: [3], frame: true });
    expect(scopeAt([3], [burn('bench', 0), burn('own-machine', 0)])!.frame).toBe(false);
  });
});
