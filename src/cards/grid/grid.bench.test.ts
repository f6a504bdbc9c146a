import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { LOW_CONFIDENCE } from '../../core/reading/observations';
import { readCard } from '../../core/reading/read-card';
import { layCard } from '../../core/card/lay';
import { grid } from '.';
import { tuples } from '../../../tests/support/tuples';

/** Dark on light, light on dark, and by mirrors; `npm run accuracy -- bench` has all stock. */
const PAIRINGS = tuples(['heron', 'leather'], ['marl', 'slate'], ['tern', 'twoLayer']);

/** A grid goes the whole way on the bench: plan, burn, photo, read, find. */
describe('a proposed grid', () => {
  it.each(PAIRINGS)('recovers the bench’s truth on %s with %s', (machine, stockName) => {
    const pairing = demoPairing(machine, stockName);
    const { plan } = grid.propose({ pairing, facts: [] });
    const layout = layCard(grid, JSON.parse(JSON.stringify(plan)) as typeof plan, pairing, { cardNumber: 321 });
    const piece = burnOnBench(layout, pairing, `suite ${stockName}`);
    const photo = photoOf(piece, `suite ${stockName}`, {
      tiltDegrees: 20,
      lightFall: 0.55,
      widthPx: 2600,
      heightPx: 1950,
    });
    const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
    expect(result.outcome).toBe('read');
    if (result.outcome !== 'read') return;
    expect(result.markers).toBe(4);
    const errors = result.cells.map((cell) => ({
      cell,
      error: cell.lightness - trueLightness(piece, layout, pairing, cell.cellIndex),
    }));
    expect(errors.filter(({ error }) => Math.abs(error) <= 2).length).toBeGreaterThanOrEqual(0.95 * errors.length);
    // Every cell that is off is marked, within the one in five hundred that may slip through.
    expect(errors.filter(({ error, cell }) => Math.abs(error) > 2 && cell.confidence >= LOW_CONFIDENCE)).toEqual([]);
    // What is stated as one sigma holds about as often as one sigma should, and a proposal stands within its tolerance.
    expect(
      errors.filter(({ error, cell }) => Math.abs(error) <= 2.5 * cell.lightnessSigma).length,
    ).toBeGreaterThanOrEqual(0.9 * errors.length);
    const finding = grid.find(
      layout,
      { readings: result.cells, answers: [] },
      { pairing, facts: [] },
      {
        lightness: null,
        powerCap: 1,
        pace: 'fast-and-strong',
      },
    );
    expect(finding.missing).toEqual([]);
    const proposed = finding.proposal!.cellIndex;
    expect(Math.abs(trueLightness(piece, layout, pairing, proposed) - finding.wantedLightness!)).toBeLessThan(5);
  });
});
