import { describe, expect, it } from 'vitest';
import { compared } from '../../scripts/proposals/compared';
import { SHOP } from '../../scripts/proposals/shop';
import { grid } from './grid';
import { layCard, planProblems } from '../core/card/lay';
import { estimateCard } from '../core/card/estimate';

describe('a first card for each pairing of a shop', () => {
  it.each(SHOP.map((one) => [one.name, one] as const))('%s', (_name, { pairing, expected }) => {
    const { plan, reasons } = grid.propose({ pairing, facts: [] });
    expect(planProblems(grid, plan, pairing)).toEqual([]);
    for (const one of compared(plan, pairing, expected)) expect(one.within, `${one.of}: ${one.proposed}`).toBe(true);
    for (const end of ['across.from', 'across.to', 'down.from', 'down.to', 'constants.intervalMm'])
      expect(reasons[end], end).toMatch(/\w{3}/);
    // No end past what the machine does, and a card that is burned in minutes.
    const { machine } = pairing;
    expect(plan.across.from).toBeGreaterThan(machine.lowestFiringCommand);
    expect(plan.across.to).toBeLessThanOrEqual(machine.powerCap);
    expect(plan.down.to).toBeLessThanOrEqual(machine.topSpeedXMmPerS);
    expect(plan.down.from).toBeLessThan(plan.down.to);
    const layout = layCard(grid, plan, pairing, { cardNumber: 1 });
    expect(estimateCard(layout, machine).totalS).toBeLessThan(180);
    expect(layout.cells.filter((cell) => !cell.leftOut).length).toBeGreaterThanOrEqual(0.6 * layout.cells.length);
  });
});
