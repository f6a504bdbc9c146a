import { describe, expect, it } from 'vitest';
import { cutSquare, PART } from '../../tests/support/bench';
import type { Trace } from './laser';
import { burnPiece, type BurnRequest } from './piece';
import { SPECIMENS } from './specimens';
import { tapPart } from './tap';

const tapped = (request: BurnRequest) => tapPart(burnPiece(request), PART);
/** The square with so much of its last side left uncut. */
const uncut = (share: number): BurnRequest => {
  const request = cutSquare(6, 1);
  const last = request.traces.at(-1)!;
  const shorter: Trace = { ...last, y1: last.y0 + (last.y1 - last.y0) * (1 - share) };
  return { ...request, traces: [...request.traces.slice(0, -1), shorter] };
};

describe('a hand that taps the sheet', () => {
  it('finds a part loose, held by a few fibres, hanging, or not cut through at all', () => {
    expect(tapped(cutSquare(6, 1)).part).toBe('loose');
    // Of the whole outline it is a quarter of that: 1 %, and 10 %.
    expect(tapped(uncut(0.05)).part).toBe('fibres');
    expect(tapped(uncut(0.5)).part).toBe('hangs');
    expect(tapped(cutSquare(0.8, 1)).part).toBe('not-through');
  });
  it('sees edges the browner the slower they were cut, and none where stock melts', () => {
    const loss = (change: Partial<Trace>, more: Partial<BurnRequest> = {}): number => {
      const request = cutSquare(5, 1, more);
      return tapped({ ...request, traces: request.traces.map((trace) => ({ ...trace, ...change })) }).edgeLoss;
    };
    expect(loss({ speedMmPerS: 2 })).toBeGreaterThan(1.3 * loss({}));
    expect(loss({ speedMmPerS: 100 })).toBeLessThan(loss({}));
    expect(loss({}, { specimen: { ...SPECIMENS['acrylic-cast']!, smoke: 0 } })).toBeLessThan(0.03);
  });
});
