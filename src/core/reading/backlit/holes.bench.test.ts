import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../../stand-ins/burn';
import { demoPairing } from '../../../../stand-ins/demo';
import { lightTableShot, photograph } from '../../../bench/camera';
import { isLoose } from '../../../bench/gauges';
import { onLightTable, withoutLoose } from '../../../bench/light-table';
import { cut } from '../../../cards/cut';
import { layCard } from '../../card/lay';
import { rectRing } from '../../card/shape';
import { holeOf } from './holes';
import { readHoles } from './read-holes';

const ROOM_LIGHT = 0.012;

/** A card of few squares burned and laid on the light table, what has come loose taken out; seen with corners set so far beside their place. */
function lookedAt(stock: 'alder' | 'acrylic', besideMm = 0) {
  const pairing = demoPairing('marl', stock);
  const { plan } = cut.propose({ pairing, facts: [] });
  const few = { ...plan, speed: { ...plan.speed, count: 3 }, rows: { ...plan.rows, count: 3 } };
  const layout = layCard(cut, few, pairing, { cardNumber: 9 });
  const piece = burnOnBench(layout, pairing, 'holes');
  const parts = layout.cells.map(({ box }) => box);
  const laid = onLightTable(withoutLoose(piece, parts), ROOM_LIGHT);
  const photo = photograph(laid, { ...lightTableShot('holes'), widthPx: 1600, heightPx: 1200 });
  const corners = rectRing(layout.inner).map(({ x, y }, k) =>
    photo.placeOf(x + besideMm * (k % 2 === 0 ? 1 : -1), y + besideMm),
  );
  return { result: readHoles({ photo, layout, corners }), loose: parts.map((box) => isLoose(piece, box)) };
}

describe('squares on a light table', () => {
  it.each([0, 0.4])('are told open where they have dropped, with corners %s mm beside their place', (besideMm) => {
    const { result, loose } = lookedAt('alder', besideMm);
    expect(new Set(loose).size).toBe(2);
    if (result.outcome !== 'read') throw new Error(`not read: ${JSON.stringify(result)}`);
    expect(result.cells.map(holeOf)).toEqual(loose.map((is) => (is ? 'open' : 'shut')));
  });
  it('of a clear sheet are not told: light comes through it whether they dropped or not', () => {
    expect(lookedAt('acrylic').result).toEqual({ outcome: 'unreadable', reason: 'no-holes' });
  });
});
