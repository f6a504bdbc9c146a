import { describe, expect, it } from 'vitest';
import { burnedCard } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { photographed } from '../../../stand-ins/observers/photographed';
import { contrastsOf } from '../../../stand-ins/observers/showpiece';
import { layCard } from '../../core/card/lay';
import { PLAIN_EXTRAS } from '../../core/card/settings';
import { showpiece } from '.';

describe.each([
  ['marl', 'alder', 4],
  ['marl', 'slate', 2],
] as const)('a showpiece burned by %s on %s, %i mm out of focus', (machine, stock, focusOffsetMm) => {
  it('is told by a photo as its face has it: each part’s contrast, against the drawing’s', () => {
    const pairing = demoPairing(machine, stock);
    const guess = showpiece.propose({ pairing, facts: [] }).plan.constants;
    const settings = {
      ...guess,
      ...PLAIN_EXTRAS,
      focusOffsetMm,
      powerFraction: Math.min(0.9, 1.5 * guess.powerFraction),
    };
    const known = {
      pairing,
      facts: [factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null })],
    };
    const layout = layCard(showpiece, showpiece.propose(known).plan, pairing, { cardNumber: 9 });
    const burned = burnedCard(layout, pairing, `showpiece ${stock}`);
    const finding = showpiece.find(layout, photographed(burned, 'showpiece', 3000), known);
    expect(finding.missing).toEqual([]);
    const truth = contrastsOf(burned);
    const off = finding.parts.map(
      ({ share, shareSigma, cellIndex }) => (share! - truth[cellIndex]! / truth[0]!) / shareSigma!,
    );
    for (const one of off) expect(Math.abs(one)).toBeLessThan(3);
    expect(off.filter((one) => Math.abs(one) < 2).length).toBeGreaterThanOrEqual(8);
    // Nothing is called sure that the face itself has on the other side.
    for (const { holds, cellIndex } of finding.parts)
      if (holds !== null) expect(holds).toBe(truth[cellIndex]! / truth[0]! >= 0.5);
    // Smaller parts stand out less, as they do on the face.
    const letters = finding.parts.filter(({ part }) => part === 'lettering').map(({ share }) => share!);
    expect(letters).toEqual([...letters].sort((a, b) => b - a));
  });
});
