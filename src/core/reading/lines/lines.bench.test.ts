import { describe, expect, it } from 'vitest';
import { burnOnBench, photoOf } from '../../../../stand-ins/burn';
import { demoPairing } from '../../../../stand-ins/demo';
import { rippleAt } from '../../../../stand-ins/observers/measures';
import { interval } from '../../../cards/interval';
import { layCard } from '../../card/lay';
import { boxOfShape } from '../../card/shape';
import { readCard } from '../read-card';

describe('lines on the bench, whose beam and camera know nothing of how they are read', () => {
  const pairing = demoPairing('marl', 'alder');
  const { plan } = interval.propose({ pairing, facts: [] });
  const layout = layCard(interval, plan, pairing, { cardNumber: 5 });
  const piece = burnOnBench(layout, pairing, 'lines');
  const spot = { xMm: pairing.lens.spotXMm, yMm: pairing.lens.spotYMm };
  const look = (seed: string, widthPx: number, change = {}) => {
    const photo = photoOf(piece, seed, { widthPx, heightPx: (3 * widthPx) / 4, exposure: 0.45, ...change });
    const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true, spot });
    if (result.outcome !== 'read') throw new Error(`not read: ${result.outcome}`);
    return result;
  };
  const strongest = (cellIndex: number) => layout.cells[cellIndex]!.burns.at(-1)!;

  it('are as far apart and as plain as on the piece, within what the photo says of itself', () => {
    let pitches = 0;
    for (const seed of ['near', 'nearer', 'askew'])
      for (const { cellIndex, lines } of look(seed, 4000).cells) {
        const { shape, settings } = strongest(cellIndex);
        if (lines === null) continue;
        const truth = rippleAt(piece, boxOfShape(shape), settings.intervalMm, settings.direction);
        expect(Math.abs(lines.visibility - truth), `${seed} ${cellIndex}`).toBeLessThan(3 * lines.visibilitySigma);
        if (truth > 0.05) expect(lines.visibilitySigma / lines.visibility).toBeLessThan(0.4);
        if (lines.pitchMm === null) continue;
        pitches++;
        // The frame itself is placed to some hundredths of a millimetre in thirty.
        const slack = 0.001 * settings.intervalMm;
        expect(Math.abs(lines.pitchMm - settings.intervalMm)).toBeLessThan(4 * lines.pitchSigmaMm! + slack);
      }
    expect(pitches).toBeGreaterThan(8);
  });

  it('are not told where bare stock between them is blown out', () => {
    const blown = look('nearer', 2400, { exposure: 0.66 });
    expect(blown.faults.map(({ fault }) => fault)).toContain('overexposed');
    expect(blown.cells.every(({ lines }) => lines === null)).toBe(true);
  });

  it('are not told by a photo of fewer than three pixels to their pitch', () => {
    const far = look('far', 800);
    for (const { cellIndex, lines } of far.cells)
      if (strongest(cellIndex).settings.intervalMm * far.photoPxPerMm < 3) expect(lines).toBeNull();
    expect(far.cells.some(({ lines }) => lines === null)).toBe(true);
  });
});
