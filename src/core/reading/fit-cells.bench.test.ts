import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { grid } from '../../cards/grid';
import { layCard } from '../card/lay';
import type { OldCard } from '../card/old-card';
import { rectRing } from '../card/shape';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';

describe('an old card of the bench', () => {
  it('is read by its cells alone, and not taken for a part of itself by lettering and markers around them', () => {
    const on = demoPairing('marl', 'alder');
    const { plan } = grid.propose({ pairing: on, facts: [] });
    const lettered = layCard(grid, { ...plan, frame: { ...plan.frame, words: 'full' } }, on, { cardNumber: 77 });
    const piece = burnOnBench(lettered, on, 'full');
    const shot = photoOf(piece, 'full', { widthPx: 2400, heightPx: 1800 });
    const levels = (channel: 'power' | 'speed') => [
      ...new Set(lettered.cells.map((cell) => Number(cell.levels[channel]))),
    ];
    const old: OldCard = {
      across: { channel: 'power', values: levels('power') },
      down: { channel: 'speed', values: levels('speed') },
      cellMm: plan.cellMm,
      gapMm: plan.gapMm,
      constants: plan.constants,
    };
    const corners = rectRing(lettered.inner).map((corner) => shot.placeOf(corner.x + 0.4, corner.y - 0.3));
    const { layout: adopted } = grid.adopt(old, on, 900);
    const result = readCard({ photo: shot, layout: adopted, stock: on.stock, corners, cameraIsTrue: true });
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    const trusted = result.cells.filter((cell) => cell.confidence >= LOW_CONFIDENCE);
    expect(trusted.length).toBeGreaterThan(0.7 * result.cells.length);
    for (const cell of trusted)
      expect(Math.abs(cell.lightness - trueLightness(piece, lettered, on, cell.cellIndex))).toBeLessThan(2.5);
  });
});
