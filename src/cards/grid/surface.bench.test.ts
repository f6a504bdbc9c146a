import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { layCard } from '../../core/card/lay';
import { readCard } from '../../core/reading/read-card';
import type { GridPlan } from './plan';
import { foretell, levelAt, surfaceOfGrid } from './surface';
import { grid } from '.';

/** What the surface of one burned card foretells between its cells comes true on another piece of the same stock. */
describe('the surface of a burned grid', () => {
  it.each([
    ['marl', 'alder'],
    ['marl', 'slate'],
  ] as const)('holds what the bench burns between the cells: %s on %s', (machine, stock) => {
    const pairing = demoPairing(machine, stock);
    const plan = { ...grid.propose({ pairing, facts: [] }).plan, sweeps: 'cells' as const };
    const layout = layCard(grid, plan, pairing, { cardNumber: 11 });
    const photo = photoOf(burnOnBench(layout, pairing, 'surface'), 'surface', { widthPx: 2600, heightPx: 1950 });
    const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
    if (result.outcome !== 'read') throw new Error(result.outcome);
    const surface = surfaceOfGrid(layout, { readings: result.cells, answers: [] }, pairing.stock.bareLightness)!;
    expect(surface.fit.trusted).toBe(true);
    // Another card whose levels lie half a step beside those of the first.
    const between = (edge: typeof surface.across): { from: number; to: number } => {
      const step = 0.5 / (edge.levels.length - 1);
      return { from: levelAt(edge, step), to: levelAt(edge, 1 - step) };
    };
    const other: GridPlan = {
      ...plan,
      across: { ...plan.across, ...between(surface.across), count: 3 },
      down: { ...plan.down, ...between(surface.down), count: 3 },
      leaveOutFailing: false,
    };
    const second = layCard(grid, other, pairing, { cardNumber: 12 });
    const piece = burnOnBench(second, pairing, 'another piece');
    const off = second.cells.map((cell) => {
      const { lightness, sigma } = foretell(surface, {
        across: Number(cell.levels.power),
        down: Number(cell.levels.speed),
      });
      return { by: trueLightness(piece, second, pairing, cell.index) - lightness, sigma };
    });
    expect(off.filter(({ by, sigma }) => Math.abs(by) <= 2.5 * sigma).length).toBeGreaterThanOrEqual(7);
    for (const { by } of off) expect(Math.abs(by)).toBeLessThan(6);
    expect(Math.sqrt(off.reduce((sum, { by }) => sum + by ** 2, 0) / off.length)).toBeLessThan(2.5);
  });
});
