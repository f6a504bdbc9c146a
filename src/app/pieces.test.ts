import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { factNow } from '../../stand-ins/facts';
import { worthOf, worthWords } from '../core/book/worth';
import { squareFillTimeS } from '../core/card/fill-time';
import { mainBurn } from '../core/card/layout';
import { layCard } from '../core/card/lay';
import { grid } from '../cards/grid';
import { worthOfTest } from './pieces';

const pairing = demoPairing('heron', 'birch');
const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
const { settings } = mainBurn(layout.cells[0]!);
const engrave = factNow('engrave', { settings, lightness: 40 } as never);
const pieces = { count: 3, widthMm: 90, heightMm: 40 };

describe('what a test is worth', () => {
  it('is weighed by the time of a square as large as a piece with the kept setting, or by stock alone before there is one', () => {
    const test = { seconds: 400, areaMm2: 360 };
    const seconds = squareFillTimeS(settings, pairing.machine, 60);
    expect(test.seconds / seconds).toBeGreaterThan(0.1);
    const byTime = worthWords(worthOf(test, { seconds, areaMm2: 3600 }, 3), 3);
    expect(worthOfTest(test, pieces, pairing.machine, [engrave])).toBe(byTime);
    expect(worthOfTest(test, pieces, pairing.machine, [])).toBe(worthWords({ inPieces: 0.1, breakEven: 0.1 / 3 }, 3));
    expect(byTime).not.toBe(worthOfTest(test, pieces, pairing.machine, []));
  });
  it('is not said where nothing is burned, or nobody said for how many pieces', () => {
    expect(worthOfTest(undefined, pieces, pairing.machine, [engrave])).toBe('');
    expect(worthOfTest({ seconds: 1, areaMm2: 1 }, null, pairing.machine, [engrave])).toBe('');
  });
});
