import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import { PLAIN_FILL } from '../../../tests/support/settings';
import type { Burn } from '../../core/card/shape';
import type { FaultName, PhotoFault } from '../../core/reading/photo-faults';
import { faultWords } from './fault-words';

const burn: Burn = { shape: { do: 'sweep', area: [] }, settings: PLAIN_FILL };
const cells = Array.from({ length: 12 }, (_, k) =>
  cellOf(k, burn, { box: { x: 5 * (k % 4), y: 5 * Math.floor(k / 4), width: 4, height: 4 } }),
);
const words = (fault: FaultName, amount: number, more: Partial<PhotoFault> = {}) =>
  faultWords({ fault, amount, area: null, line: null, cells: [], ...more }, { cells });

describe('a fault of a photo', () => {
  it('says what is wrong and where on the card', () => {
    expect(words('reflection', 0.1, { cells: [2, 3, 6, 7, 10, 11] }).what).toBe(
      'A lamp’s reflection over columns 3 and 4',
    );
    expect(words('reflection', 0.03, { cells: [0, 1, 3, 4, 5, 7, 8, 9, 11] })).toEqual({
      name: 'A veil of light, or bent tones',
      what: expect.stringMatching(/^A veil of light, or bent tones over columns 1 and 2, 4$/),
      so: expect.stringMatching(/up to 3 % of white.*stops darker/),
    });
    expect(words('shadow', 0.5, { cells: [4, 5, 6, 7] }).what).toBe('A shadow’s edge across row 2');
    expect(words('overexposed', 0.3).what).toBe('Overexposed');
  });
  it.each([
    ['overexposed', 0.312, /^31 % of the bare stock .* exposure set darker/],
    ['reflection', 0.124, /up to 12 % of white.*Turn the card/],
    ['shadow', 0.45, /there is 45 % of the light/],
    ['smoke', 0.08, /takes up to 8 % of the light/],
    ['too-far', 6.42, /with 6\.4 pixels for each millimetre, and 8 are wanted. Come closer/],
    ['out-of-focus', 0.48, /^Edges are 0\.48 mm wide.*focus/],
    ['too-dark', 3.1, /^It holds 3\.1 stops less light/],
    ['more-light', 0.006, /as if 0\.6 % of white lay over this one.*something dark behind the camera/],
    ['not-flat', 0.62, /lie 0\.62 mm beside.*flat/],
  ] as const)('says how much of %s there is, and what to do', (fault, amount, so) => {
    expect(words(fault, amount).so).toMatch(so);
  });
});
