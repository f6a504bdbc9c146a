import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { stalenessReasons, type Cause } from './staleness';

const then = demoPairing('marl', 'alder');
const { machine, lens, stock } = then;

describe('what speaks against an older result', () => {
  it.each<[Cause, string, object]>([
    ['source', 'another source', { machine: { ...machine, ratedPowerW: 80 } }],
    ['source', 'another source', { machine: { ...machine, wavelengthNm: 9300 } }],
    ['source', 'another source', { machine: { ...machine, sourceKind: 'co2-rf' } }],
    ['motion', 'another acceleration', { machine: { ...machine, accelerationXMmPerS2: 8000 } }],
    ['motion', 'another acceleration', { machine: { ...machine, accelerationYMmPerS2: 2500 } }],
    ['power', 'power measured again', { machine: { ...machine, powerTable: null } }],
    ['lens', 'lens or spot changed', { lens: { ...lens, focalLengthMm: 38.1 } }],
    ['lens', 'lens or spot changed', { lens: { ...lens, spotXMm: 0.2 } }],
    ['lens', 'lens or spot changed', { lens: { ...lens, spotYMm: 0.2 } }],
    ['batch', 'new batch A-4', { stock: { ...stock, batch: 'A-4' } }],
    ['batch', 'new batch (none)', { stock: { ...stock, batch: '' } }],
    ['stock', 'the stock’s record changed', { stock: { ...stock, family: 'softwood' } }],
    ['stock', 'the stock’s record changed', { stock: { ...stock, type: 'beech' } }],
    ['stock', 'the stock’s record changed', { stock: { ...stock, coating: 'oil' } }],
    ['thickness', 'thickness 7 mm, was 6.02 mm', { stock: { ...stock, thicknessReadingsMm: [7] } }],
  ])('%s: %s', (cause, words, change) => {
    const now = { ...then, ...change };
    expect(stalenessReasons(then, now)).toEqual([words]);
    // It counts where that matters to the result, and nowhere else.
    expect(stalenessReasons(then, now, [cause])).toEqual([words]);
    const others = (['source', 'motion', 'power', 'lens', 'batch', 'stock', 'thickness'] as const).filter(
      (other) => other !== cause,
    );
    expect(stalenessReasons(then, now, others)).toEqual([]);
  });
  it('is nothing where only what makes no other mark differs', () => {
    const likedUnits = { ...machine.likedUnits, length: 'in' as const };
    const renamed = { ...machine, name: 'Other', likedUnits, topSpeedXMmPerS: 1, airAssist: 'none' as const };
    const now = { machine: renamed, lens: { ...lens, name: 'L' }, stock: { ...stock, name: 'S', sheetWidthMm: 50 } };
    expect(stalenessReasons(then, now)).toEqual([]);
    expect(stalenessReasons(then, then, [])).toEqual([]);
  });
  it('is a thickness more than a twentieth off, to either side', () => {
    const of = (mm: number) => ({ ...then, stock: { ...stock, thicknessReadingsMm: [mm] } });
    const reasons = (mm: number) => stalenessReasons(of(4), of(mm)).length;
    expect([3.79, 3.81, 4.19, 4.21].map(reasons)).toEqual([1, 0, 0, 1]);
  });
});
