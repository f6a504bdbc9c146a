import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { drawnPhoto } from '../../../tests/support/drawn-card';
import { grid } from '../../cards/grid';
import type { Layout } from '../card/layout';
import type { OldCard } from '../card/old-card';
import { proposeConstants } from '../card/propose-constants';
import { rectRing } from '../card/shape';
import type { Point } from '../geometry/point';
import { readCard } from './read-card';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'leather');
const { stock } = pairing;
const { constants } = proposeConstants({ pairing, facts: [] });
/** Speed along the top, power down the side, as somebody else's program once laid it. */
const OLD: OldCard = {
  across: { channel: 'speed', values: [150, 100, 60, 40] },
  down: { channel: 'power', values: [0.25, 0.4, 0.6, 0.8] },
  cellMm: 5,
  gapMm: 2,
  constants: { ...constants, direction: 'horizontal' },
};
const { layout } = grid.adopt(OLD, pairing, 900);
/** As energies make it: darker to the right and downwards, the first hardly to be seen. */
const lightnessOf = (index: number): number => stock.bareLightness - 2 - 5 * (index % 4) - 6 * Math.floor(index / 4);
const SHOT = { noise: 1, widthPx: 640, heightPx: 480 };
const photo = drawnPhoto(layout, stock, { ...SHOT, lightnessOf });

/** The outer corners of the corner cells in the photo, moved by so many mm. */
function dragged(moves: readonly (readonly [number, number])[], of: Layout = layout): Point[] {
  return rectRing(of.inner).map(({ x, y }, index) =>
    photo.placeOf(x + moves[index % moves.length]![0], y + moves[index % moves.length]![1]),
  );
}
const read = (corners: Point[], of: Layout = layout) =>
  readCard({ photo, layout: of, stock, corners, cameraIsTrue: true });

describe('an old card', () => {
  it('asks for corners, since it has no markers to be found by', () => {
    expect(readCard({ photo, layout, stock, corners: null, cameraIsTrue: true }).outcome).toBe('needs-corners');
  });
  it.each([0, 1.1])('is read with corners missed by up to %f mm: its cells are found by themselves', (miss) => {
    const result = read(
      dragged(tuples([-miss, 0.4 * miss], [0.6 * miss, -miss], [miss, 0.7 * miss], [-0.5 * miss, miss])),
    );
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    expect(result.cells).toHaveLength(16);
    for (const cell of result.cells) expect(Math.abs(cell.lightness - lightnessOf(cell.cellIndex))).toBeLessThan(0.8);
  });
  it.each([
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ] as const)('is not read a column or row beside itself: %d, %d', (right, down) => {
    const pitch = OLD.cellMm + OLD.gapMm;
    expect(read(dragged([[right * pitch, down * pitch]]))).toEqual({ outcome: 'unreadable', reason: 'more-cells' });
  });
  it('is not read where cells were told wider than they are, or are not there at all', () => {
    const { layout: wider } = grid.adopt({ ...OLD, cellMm: 6.4, gapMm: 0.6 }, pairing, 900);
    expect(read(dragged([[0, 0]], wider), wider)).toMatchObject({ outcome: 'unreadable', reason: 'other-cells' });
    const bare = drawnPhoto(layout, stock, { ...SHOT, lightnessOf: () => stock.bareLightness });
    expect(readCard({ photo: bare, layout, stock, corners: dragged([[0, 0]]), cameraIsTrue: true })).toMatchObject({
      outcome: 'unreadable',
      reason: 'no-cells',
    });
  });
  it('is not read where only columns stand out, as stripes do', () => {
    const { inner } = layout;
    const stripes = layout.cells.slice(0, 4).map((cell) => {
      const box = { ...cell.box, y: 0, height: layout.heightMm };
      return { ...cell, box, burns: [{ ...cell.burns[0]!, shape: { do: 'sweep' as const, area: [rectRing(box)] } }] };
    });
    const striped = drawnPhoto({ ...layout, cells: stripes, inner }, stock, { ...SHOT, lightnessOf: () => 40 });
    const result = readCard({ photo: striped, layout, stock, corners: dragged([[0, 0]]), cameraIsTrue: true });
    expect(result.outcome).toBe('unreadable');
  });
});
