import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import { tone } from '../../cards/tone';
import { layCard } from '../card/lay';
import { mainBurn } from '../card/layout';
import { squareFillTimeS } from '../card/fill-time';
import type { Seen } from '../card/asks';
import type { CellReading } from '../reading/observations';
import { commonStrength, quickestAt, worthOf } from './compare';

const pairing = demoPairing('heron', 'birch');
const { plan } = grid.propose({ pairing, facts: [] });
const layout = layCard(grid, plan, pairing, { cardNumber: 5 });
/** Cells that get stronger with their turn, in L*. */
const readings = (of: (turn: number) => Partial<CellReading>, answers: Seen['answers'] = []): Seen => ({
  readings: layout.order.map(
    (cellIndex, turn) =>
      ({
        cellIndex,
        deltaLightness: -turn,
        lightnessSigma: 0.4,
        spread: 0.8,
        edgeHalo: -0.5,
        confidence: 1,
        ...of(turn),
      }) as CellReading,
  ),
  answers,
});

describe('what a stock is worth under a machine', () => {
  it('is its strongest patch, how even patches are, and how many tones an eye tells between', () => {
    const worth = worthOf(
      layout,
      readings(() => ({})),
    )!;
    const most = layout.order.length - 1;
    expect(worth.strongest).toMatchObject({ cellIndex: layout.order.at(-1), strength: most, sigma: 0.4 });
    expect(worth.patches.map(({ strength }) => strength)).toEqual(
      [...worth.patches.map(({ strength }) => strength)].sort((a, b) => b - a),
    );
    expect(Math.min(...worth.patches.map(({ strength }) => strength))).toBe(3);
    expect(worth.tones).toBe(Math.floor(most / 2));
    // Where a burn is uneven by more than an eye tells, that counts.
    expect(
      worthOf(
        layout,
        readings(() => ({ spread: 2 })),
      )!.tones,
    ).toBe(Math.floor(most / 4));
    expect(worth).toMatchObject({ spread: 0.8, halo: -0.5 });
    // Smoke lies beside the stronger half.
    const smoky = worthOf(
      layout,
      readings((turn) => ({ edgeHalo: turn > most / 2 + 2 ? -4 : 0 })),
    )!;
    expect(smoky.halo).toBeLessThan(-3.5);
  });
  it('goes by whichever way marks turn, by cells that a photo is sure of, and by even fills alone', () => {
    const bright = worthOf(
      layout,
      readings((turn) => ({ deltaLightness: turn })),
    )!;
    expect(bright.strongest.strength).toBe(layout.order.length - 1);
    const doubted = worthOf(
      layout,
      readings((turn) => ({ confidence: turn > 10 ? 0.5 : 1 })),
    )!;
    expect(doubted.strongest.strength).toBe(10);
    expect(
      worthOf(
        layout,
        readings((turn) => ({ confidence: turn < 3 ? 1 : 0 })),
      ),
    ).toBeNull();
    expect(
      worthOf(
        layout,
        readings(() => ({ deltaLightness: -1 })),
      ),
    ).toBeNull();
    expect(
      worthOf(
        layout,
        readings((turn) => ({ deltaLightness: -30 - turn / 4 })),
      ),
    ).toBeNull();
    const spoiled = { field: 'outcome', cellIndex: layout.order.at(-1)!, repeat: 0, value: 'flare-up' };
    expect(
      worthOf(
        layout,
        readings(() => ({}), [spoiled]),
      )!.strongest.cellIndex,
    ).toBe(layout.order.at(-2));
    const dots = layCard(tone, { ...tone.propose({ pairing, facts: [] }).plan, mode: 'bayer' }, pairing, {
      cardNumber: 6,
    });
    expect(
      worthOf(
        dots,
        readings(() => ({})),
      ),
    ).toBeNull();
  });
  it('is compared at a darkness that all reach, by the patch that takes least time', () => {
    const strong = worthOf(
      layout,
      readings(() => ({})),
    )!;
    const weak = worthOf(
      layout,
      readings((turn) => ({ deltaLightness: -turn / 2 })),
    )!;
    const strength = commonStrength([strong, weak])!;
    expect(strength).toBe(Math.floor(0.8 * weak.strongest.strength));
    expect(commonStrength([])).toBeNull();
    const { patch, timeS } = quickestAt(strong, strength, pairing.machine)!;
    expect(patch.strength).toBeGreaterThanOrEqual(strength);
    const times = layout.order
      .slice(strength)
      .map((index) => squareFillTimeS(mainBurn(layout.cells[index]!).settings, pairing.machine, 100));
    expect(timeS).toBe(Math.min(...times));
    expect(quickestAt(weak, strong.strongest.strength, pairing.machine)).toBeNull();
  });
});
