import { beforeAll, describe, expect, it } from 'vitest';
import { trueLightness } from '../../../tests/support/reading';
import { demoPairing } from '../../../tests/support/demo';
import { burnOnBench, photoOf } from '../../../tests/support/burn';
import { casualShot, type Piece } from '../../bench/bench';
import { grid } from '../../cards/grid';
import { checkOldCard } from '../card/adopt';
import type { OldCard } from '../card/old-card';
import { layCard } from '../card/lay';
import type { Layout } from '../card/layout';
import { rectRing } from '../card/shape';
import { proposeConstants } from '../card/propose-constants';
import type { Point } from '../geometry/point';
import type { RgbImage } from '../image/raster';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';

const pairing = demoPairing('heron', 'leather');
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

let piece: Piece;
let photo: RgbImage & { placeOf: (x: number, y: number) => Point };
beforeAll(() => {
  piece = burnOnBench(layout, pairing, 'old');
  photo = photoOf(piece, 'old', { ...casualShot('old'), widthPx: 2400, heightPx: 1800, tiltDegrees: 14 });
});

/** The outer corners of the corner cells in the photo, missed by so many millimetres in four different ways. */
function dragged(missMm: number, of: Layout = layout): Point[] {
  const { x, y, width, height } = of.inner;
  const miss = [[-1, 0.4], [0.6, -1], [1, 0.7], [-0.5, 1]] as const; // prettier-ignore
  return [[x, y], [x + width, y], [x + width, y + height], [x, y + height]].map(([cx, cy], index) =>
    photo.placeOf(cx! + miss[index]![0] * missMm, cy! + miss[index]![1] * missMm),
  ); // prettier-ignore
}
const read = (missMm: number, of: Layout = layout) =>
  readCard({ photo, layout: of, stock: pairing.stock, corners: dragged(missMm) });

describe('an old card', () => {
  it('has a cell for each pair of values, with no markers and nothing lettered', () => {
    expect(layout.cells).toHaveLength(16);
    expect(layout.frame).toMatchObject({ markers: [], lettering: [] });
    expect(layout.cells[6]!.levels).toEqual({ speed: 60, power: 0.4 });
    expect(layout.cells[6]!.burns[0]!.settings).toMatchObject({ powerFraction: 0.4, speedMmPerS: 60 });
  });
  it('asks for corners, since it has no markers to be found by', () => {
    expect(readCard({ photo, layout, stock: pairing.stock, corners: null }).outcome).toBe('needs-corners');
  });
  it.each([0, 0.6, 1.1])('is read with corners missed by up to %f mm: its cells are found by themselves', (missMm) => {
    const result = read(missMm);
    expect(result.outcome).toBe('read');
    if (result.outcome !== 'read') return;
    const trusted = result.cells.filter((cell) => cell.confidence >= LOW_CONFIDENCE);
    expect(trusted.length).toBeGreaterThan(12);
    for (const cell of trusted)
      expect(Math.abs(cell.lightness - trueLightness(piece, layout, pairing, cell.cellIndex))).toBeLessThan(2.5);
  });
  it.each([
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
    [1, 1],
    [-1, -1],
  ])('is not read a column or row beside itself: %d, %d', (right, down) => {
    const pitch = OLD.cellMm + OLD.gapMm;
    const { x, y, width, height } = layout.inner;
    const corners = [[x, y], [x + width, y], [x + width, y + height], [x, y + height]].map(([cx, cy]) =>
      photo.placeOf(cx! + right * pitch, cy! + down * pitch),
    ); // prettier-ignore
    expect(readCard({ photo, layout, stock: pairing.stock, corners })).toMatchObject({
      outcome: 'unreadable',
      reason: 'more-cells',
    });
  });
  it('is not taken for a part of itself by lettering and markers around its cells', () => {
    const on = demoPairing('marl', 'alder');
    const { plan } = grid.propose({ pairing: on, facts: [] });
    const lettered = layCard(grid, { ...plan, frame: { ...plan.frame!, words: 'full' } }, on, { cardNumber: 77 });
    const shot = photoOf(burnOnBench(lettered, on, 'full'), 'full', { widthPx: 2400, heightPx: 1800 });
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
    const { x, y, width, height } = lettered.inner;
    const corners = rectRing({ x, y, width, height }).map((corner) => shot.placeOf(corner.x, corner.y));
    const { layout: adopted } = grid.adopt(old, on, 900);
    expect(readCard({ photo: shot, layout: adopted, stock: on.stock, corners }).outcome).toBe('read');
  });
  it('is not read where cells were told wider than they are, or are not there at all', () => {
    const { layout: wider } = grid.adopt({ ...OLD, cellMm: 6.4, gapMm: 0.6 }, pairing, 900);
    expect(read(0, wider)).toMatchObject({ outcome: 'unreadable', reason: 'other-cells' });
    const bare = { ...photo, data: new Uint8Array(photo.data.length).fill(140) };
    expect(readCard({ photo: bare, layout, stock: pairing.stock, corners: dragged(0) })).toMatchObject({
      outcome: 'unreadable',
      reason: 'no-cells',
    });
  });
  it('is refused where one edge is told twice or a value is none', () => {
    expect(checkOldCard(OLD, pairing)).toEqual([]);
    const twice = checkOldCard({ ...OLD, down: OLD.across }, pairing);
    expect(twice.map(({ field }) => field)).toContain('down.channel');
    const over = { ...OLD, down: { ...OLD.down, values: [0.5, 0.95] } };
    expect(checkOldCard(over, pairing).map(({ field }) => field)).toEqual(['down.values']);
  });
});
