import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { layCard } from '../../core/card/lay';
import type { Pairing } from '../../core/card/contract';
import { readCard } from '../../core/reading/read-card';
import { bareFaceOf } from '../../core/stock/families';
import { grid } from '.';
import type { GridFinding } from './find';
import type { GridPlan } from './plan';

const marl = demoPairing('marl', 'twoLayer');

/** The pairing with another stock on its machine, as its record says, or with a wrong record. */
function withStock(family: string, type: string, said: { family: string; type: string } = { family, type }): Pairing {
  const { lightness, colour } = bareFaceOf({ family, type });
  return { ...marl, stock: { ...marl.stock, ...said, bareLightness: lightness, colour } };
}

/** A grid burned on one stock and judged as another: plan, burn, photo, read, find. */
function judged(real: Pairing, recorded: Pairing, change: (plan: GridPlan) => GridPlan = (plan) => plan): GridFinding {
  const { plan: whole } = grid.propose({ pairing: recorded, facts: [] });
  // Fewer cells between the same ends tell as much here.
  const plan = change({ ...whole, across: { ...whole.across, count: 5 }, down: { ...whole.down, count: 4 } });
  const layout = layCard(grid, plan, recorded, { cardNumber: 77 });
  const photo = photoOf(burnOnBench(layout, real, 'direction'), 'direction', { widthPx: 1800, heightPx: 1350 });
  const result = readCard({ photo, layout, stock: recorded.stock, corners: null, cameraIsTrue: true });
  if (result.outcome !== 'read') throw new Error(`not read: ${result.outcome}`);
  const seen = { readings: result.cells, answers: [] };
  return grid.find(layout, seen, { pairing: recorded, facts: [] }, grid.wish(recorded));
}

describe('the direction of marks on the bench', () => {
  it.each([
    ['two-layer', 'acrylic based, light over dark', 'darker'],
    ['leatherette', 'light over dark core', 'darker'],
    ['cloth', 'denim', 'brighter'],
  ] as const)('%s, %s: %s, with a cell to keep', (family, type, direction) => {
    const pairing = withStock(family, type);
    const finding = judged(pairing, pairing);
    expect(finding.missing).toEqual([]);
    const { bare, strongest } = finding.range!;
    expect(strongest < bare ? 'darker' : 'brighter').toBe(direction);
    expect(Math.abs(strongest - bare)).toBeGreaterThan(8);
    expect(finding.proposal).not.toBeNull();
    expect(finding.remark).toBeNull();
  });
  it('goes by the photo where the record is wrong, and says so', () => {
    const real = withStock('two-layer', 'acrylic based, light over dark');
    const wrong = withStock('two-layer', 'acrylic based, light over dark', {
      family: 'two-layer',
      type: 'acrylic based, dark over light',
    });
    const finding = judged(real, wrong);
    expect(finding.range!.strongest).toBeLessThan(finding.range!.bare);
    expect(finding.remark).toMatch(/darker than the bare stock.*expected to turn brighter/);
  });
  it('says that nothing marked, and proposes no cell, where no mark rises above the noise', () => {
    const pairing = withStock('two-layer', 'acrylic based, dark over light');
    // A hundred times too fast for the power: cells of next to no energy, markers as they were proposed.
    const finding = judged(pairing, pairing, (plan) => ({
      ...plan,
      leaveOutFailing: false,
      across: { ...plan.across, from: 0.081, to: 0.085 },
      down: { ...plan.down, from: 500, to: 590 },
      constants: { ...plan.constants, intervalMm: 1 },
    }));
    expect(finding.proposal).toBeNull();
    expect(finding.missing).toEqual([expect.stringMatching(/^Nothing marked/)]);
  });
});
