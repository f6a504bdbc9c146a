import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { photographed } from '../../../stand-ins/observers/photographed';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { takenBy } from '../../bench/specimens';
import type { Pairing } from '../../core/card/contract';
import { layCard } from '../../core/card/lay';
import { proposeFill } from '../../core/card/propose-fill';
import { sheetCheck } from '.';

const old = demoPairing('marl', 'mdf');
const settings = { ...proposeFill({ pairing: old, facts: [] }).settings, powerFraction: 0.7 };

/** A check that is burned on a sheet, with the book as it stands. */
function checked(on: Pairing, lightness: number | null) {
  const kept = factNow('engrave', { settings, lightness, lightnessSigma: 0.3, confidence: 1 });
  const known = { pairing: on, facts: [kept] };
  const layout = layCard(sheetCheck, sheetCheck.propose(known).plan, on, { cardNumber: 9 });
  const piece = burnOnBench(layout, on, `check ${on.stock.batch}`);
  const tone = (trueLightness(piece, layout, on, 0) + trueLightness(piece, layout, on, 4)) / 2;
  const look = (): ReturnType<typeof sheetCheck.find> =>
    sheetCheck.find(layout, photographed({ layout, pairing: on, piece, seed: 'check' }, 'check'), known);
  return { tone, look };
}
/** The first batch that takes so much of the light that its own numbers say. */
const batchThat = (takes: (times: number) => boolean): Pairing => {
  const batch = Array.from({ length: 400 }, (_, k) => `M-${100 + k}`).find((name) =>
    takes(takenBy({ ...old.stock, batch: name })),
  )!;
  return { ...old, stock: { ...old.stock, batch } };
};

describe('a sheet check on sheets of the bench', () => {
  const { tone } = checked(old, null);

  it('shifts power on a sheet that takes less or more of the light, by as much as that', () => {
    for (const on of [
      batchThat((times) => times > 0.88 && times < 0.91),
      batchThat((times) => times > 1.09 && times < 1.12),
    ]) {
      const { verdict, powerFraction } = checked(on, tone).look();
      expect(verdict, on.stock.batch).toBe('shift');
      expect((powerFraction! / settings.powerFraction) * takenBy(on.stock), on.stock.batch).toBeGreaterThan(0.95);
      expect((powerFraction! / settings.powerFraction) * takenBy(on.stock), on.stock.batch).toBeLessThan(1.05);
    }
  });
  it('still holds on one that is as the old one was', () => {
    expect(
      checked(
        batchThat((times) => Math.abs(times - 1) < 0.005),
        tone,
      ).look().verdict,
    ).toBe('holds');
  });
});
