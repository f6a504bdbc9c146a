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
const worth = (of: Parameters<typeof readings>[0] = () => ({}), answers?: Seen['answers'], on = layout) =>
  worthOf(on, readings(of, answers));

describe('what a stock is worth under a machine', () => {
  it('is its strongest patch, how even patches are, and how many tones an eye tells between', () => {
    const plain = worth()!;
    const most = layout.order.length - 1;
    expect(plain.strongest).toMatchObject({ cellIndex: layout.order.at(-1), strength: most, sigma: 0.4 });
    expect(plain.patches.map(({ strength }) => strength)).toEqual(
      [...plain.patches.map(({ strength }) => strength)].sort((a, b) => b - a),
    );
    expect(Math.min(...plain.patches.map(({ strength }) => strength))).toBe(3);
    expect(plain.tones).toBe(Math.floor(most / 2));
    // Where a burn is uneven by more than an eye tells, that counts.
    expect(worth(() => ({ spread: 2 }))!.tones).toBe(Math.floor(most / 4));
    expect(plain).toMatchObject({ spread: 0.8, halo: -0.5 });
    // Smoke lies beside the stronger half.
    const smoky = worth((turn) => ({ edgeHalo: turn > most / 2 + 2 ? -4 : 0 }))!;
    expect(smoky.halo).toBeLessThan(-3.5);
  });
  it('goes by whichever way marks turn, by cells that a photo is sure of, and by even fills alone', () => {
    const bright = worth((turn) => ({ deltaLightness: turn }))!;
    expect(bright.strongest.strength).toBe(layout.order.length - 1);
    const doubted = worth((turn) => ({ confidence: turn > 10 ? 0.5 : 1 }))!;
    expect(doubted.strongest.strength).toBe(10);
    expect(worth((turn) => ({ confidence: turn < 3 ? 1 : 0 }))).toBeNull();
    expect(worth(() => ({ deltaLightness: -1 }))).toBeNull();
    expect(worth((turn) => ({ deltaLightness: -30 - turn / 4 }))).toBeNull();
    const spoiled = { field: 'outcome', cellIndex: layout.order.at(-1)!, repeat: 0, value: 'flare-up' };
    expect(worth(undefined, [spoiled])!.strongest.cellIndex).toBe(layout.order.at(-2));
    const dots = layCard(tone, { ...tone.propose({ pairing, facts: [] }).plan, mode: 'bayer' }, pairing, {
      cardNumber: 6,
    });
    expect(worth(undefined, [], dots)).toBeNull();
  });
  it('is compared at a darkness that all reach, by the patch that takes least time', () => {
    const strong = worth()!;
    const weak = worth((turn) => ({ deltaLightness: -turn / 2 }))!;
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
