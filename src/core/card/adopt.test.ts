import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import { checkOldCard, OLD_CARD_LIMITS } from './adopt';
import type { OldCard } from './old-card';
import { boxOfShape } from './shape';
import { proposeConstants } from './propose-constants';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'leather');
const { constants } = proposeConstants({ pairing, facts: [] });
const OLD: OldCard = {
  across: { channel: 'speed', values: [150, 100, 60] },
  down: { channel: 'power', values: [0.25, 0.4, 0.6, 0.8] },
  cellMm: 5,
  gapMm: 2,
  constants: { ...constants, direction: 'horizontal' },
};
const faults = (change: Partial<OldCard>) => checkOldCard({ ...OLD, ...change }, pairing).map(({ field }) => field);
const powers = (...values: number[]) => ({ down: { channel: 'power', values } }) as const;

describe('an old card that is told', () => {
  it('is taken where all of it can be', () => expect(faults({})).toEqual([]));
  it('has two to twenty values along each edge', () => {
    const many = (count: number) => powers(...Array.from({ length: count }, (_, index) => 0.1 + 0.01 * index));
    expect(faults(many(OLD_CARD_LIMITS.least - 1))).toEqual(['down.values']);
    expect(faults(many(OLD_CARD_LIMITS.least))).toEqual([]);
    expect(faults(many(OLD_CARD_LIMITS.most))).toEqual([]);
    expect(faults(many(OLD_CARD_LIMITS.most + 1))).toEqual(['down.values']);
  });
  it('becomes cells that fill the very places which the photo is measured at', () => {
    const { cells, widthMm, heightMm } = grid.adopt(OLD, pairing, 900).layout;
    expect(cells).toHaveLength(12);
    for (const { box, burns } of cells) expect(boxOfShape(burns[0]!.shape)).toEqual(box);
    // Three of 5 mm and four of 5 mm, 2 mm apart.
    const [first, last] = [cells[0]!.box, cells.at(-1)!.box];
    expect([last.x + last.width - first.x, last.y + last.height - first.y]).toEqual([19, 26]);
    expect(grid.adopt(OLD, pairing, 900).layout).toMatchObject({
      frame: { markers: [], lettering: [] },
      before: [],
      after: [],
      together: [],
      adopted: true,
      cardNumber: 900,
    });
    expect(widthMm).toBeGreaterThanOrEqual(19);
    expect(heightMm).toBeGreaterThanOrEqual(26);
  });
  it('is refused in words', () => {
    const words = (change: Partial<OldCard>) =>
      checkOldCard({ ...OLD, ...change }, pairing).map(({ message }) => message);
    expect(words({ down: { ...OLD.down, channel: 'speed', values: [20, 30] } })).toEqual([
      'One edge is power and the other is speed.',
    ]);
    expect(words(powers(0.4))).toEqual(['2 to 20 values along an edge.']);
    expect(words(powers(0.4, 0.4))).toEqual(['One value stands there twice.']);
    expect(words({ cellMm: 0 })).toEqual(['Cells are 1 to 50 mm wide.']);
    expect(words({ gapMm: 0 })).toEqual(['Gaps are 0.3 to 50 mm: the reading needs bare stock between cells.']);
  });
  it('has each of them once', () => expect(faults(powers(0.3, 0.5, 0.3))).toEqual(['down.values']));
  it('has values that this machine has, with one word for each that it has not', () => {
    expect(faults(powers(0.3, 1.2))).toEqual(['down.values']);
    expect(faults(powers(-0.1, 0.3, 7))).toEqual(['down.values', 'down.values']);
    const fast = { across: { channel: 'speed', values: [100, 99_999] } } as const;
    expect(faults(fast)).toEqual(['across.values']);
  });
  it('checks speeds along the lines: this head is slower along Y', () => {
    const { topSpeedXMmPerS, topSpeedYMmPerS } = pairing.machine;
    expect(topSpeedXMmPerS).toBeGreaterThan(topSpeedYMmPerS);
    const speeds = { across: { channel: 'speed', values: [60, topSpeedXMmPerS] } } as const;
    expect(faults(speeds)).toEqual([]);
    expect(faults({ ...speeds, constants: { ...OLD.constants, direction: 'vertical' } })).toContain('across.values');
  });
  it('is power along one edge and speed along the other', () => {
    expect(faults({ down: OLD.across })).toContain('down.channel');
  });
  it('has cells and gaps that can be read', () => {
    for (const [field, within, beyond] of [
      ['cellMm', [1, 50], [0.9, 51]],
      ['gapMm', [0.3, 50], [0.2, 51]],
    ] as const) {
      for (const mm of within) expect(faults({ [field]: mm }), `${field} ${mm}`).toEqual([]);
      for (const mm of beyond) expect(faults({ [field]: mm }), `${field} ${mm}`).toEqual([field]);
    }
  });
  it('lies with as much bare stock around it as between its cells, three mm at the most', () => {
    for (const [gapMm, margin] of tuples([2, 2], [3, 3], [8, 3])) {
      const { layout } = grid.adopt({ ...OLD, gapMm }, pairing, 900);
      expect(layout.inner).toEqual({ x: margin, y: margin, width: 3 * 5 + 2 * gapMm, height: 4 * 5 + 3 * gapMm });
      expect([layout.widthMm, layout.heightMm]).toEqual([
        layout.inner.width + 2 * margin,
        layout.inner.height + 2 * margin,
      ]);
      expect(layout.cells[0]!.box).toEqual({ x: margin, y: margin, width: 5, height: 5 });
      expect(layout.cells.at(-1)!.levels).toEqual({ speed: 60, power: 0.8 });
    }
  });
});
