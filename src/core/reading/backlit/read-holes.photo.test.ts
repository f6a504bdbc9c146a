import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { drawnPhoto } from '../../../../tests/support/drawn-card';
import { cut } from '../../../cards/cut';
import { layCard } from '../../card/lay';
import { rectRing } from '../../card/shape';
import { fitHomography, project } from '../../geometry/homography';
import { holeOf } from './holes';
import { readHoles } from './read-holes';
import { points } from '../../../../tests/support/points';

const pairing = demoPairing('marl', 'alder');
const layout = layCard(cut, cut.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 9 });
/** Every third square has dropped, one lies askew in its hole. */
const ASKEW = 7;
const SHARES = points([0.2, 0.2], [0.8, 0.22], [0.78, 0.85], [0.22, 0.8]);
const SIZE = { widthPx: 1000, heightPx: 800 };
const draw = (lightnessOf: (index: number) => number) =>
  drawnPhoto(layout, { bareLightness: 12, colour: '#303030' }, { ...SIZE, corners: SHARES, lightnessOf, noise: 0.7 });
const card = { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm };
const toPhoto = fitHomography(
  rectRing(card),
  SHARES.map(({ x, y }) => ({ x: x * SIZE.widthPx, y: y * SIZE.heightPx })),
).homography;
const corners = rectRing(layout.inner).map(({ x, y }) => project(toPhoto, x, y));

describe('holes in a sheet on a light table', () => {
  const photo = draw((index) => (index === ASKEW ? 66 : index % 3 === 0 ? 100 : 12));
  it('are told from squares that are still there; one that is neither is doubted', () => {
    const result = readHoles({ photo, layout, corners });
    if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
    expect(result.cells.map(({ cellIndex }) => cellIndex)).toEqual(layout.cells.map(({ index }) => index));
    for (const cell of result.cells)
      expect(holeOf(cell)).toBe(cell.cellIndex === ASKEW ? 'unsure' : cell.cellIndex % 3 === 0 ? 'open' : 'shut');
  });
  it('are looked for where a hand set the corners, and nowhere else', () => {
    expect(readHoles({ photo, layout, corners: null })).toEqual({ outcome: 'needs-corners', markers: 0 });
    expect(readHoles({ photo, layout, corners: [...corners].reverse() })).toMatchObject({ reason: 'bad-corners' });
    expect(readHoles({ photo: draw(() => 13), layout, corners })).toMatchObject({ reason: 'no-holes' });
    expect(readHoles({ photo: { ...photo, width: 150, data: photo.data }, layout, corners })).toMatchObject({
      reason: 'too-small',
    });
  });
});
