import { describe, expect, it } from 'vitest';
import { computedSpotMm, spotDoubt } from './usual-beam';

const tube = { sourceKind: 'co2-glass', wavelengthNm: 10600 } as const;
const diode = { sourceKind: 'blue-diode', wavelengthNm: 450 } as const;

describe('a spot computed from the beam', () => {
  it('is offered where the formulas hold, for the usual beam of the source', () => {
    // 4 M² lambda f / (pi D) with M² 1.2, D 6 mm: Self (1983); 0.11427 mm for M² 1, so 0.13713.
    expect(computedSpotMm(tube, 50.8)).toBeCloseTo(0.11427 * 1.2, 4);
  });
  it('is not offered for a diode, whose spot is the picture of its emitters, nor for what is no length', () => {
    expect(computedSpotMm(diode, 25)).toBeNull();
    expect(computedSpotMm(tube, NaN)).toBeNull();
    expect([computedSpotMm(tube, 0), computedSpotMm({ ...tube, wavelengthNm: 0 }, 50)]).toEqual([null, null]);
    expect(computedSpotMm({ ...tube, wavelengthNm: NaN }, 50)).toBeNull();
  });
});

describe('a spot that is hard to believe', () => {
  it.each([
    [tube, 50.8, 0.13, null],
    [tube, 50.8, 0.02, /finer than .* allow/],
    [tube, 50.8, 0.9, /wider than a sharp one/],
    [diode, 25, 0.05, null],
    [diode, 25, 0.001, /finer than/],
    [{ sourceKind: 'fibre', wavelengthNm: 1064 }, 160, 0.03, null],
    [{ sourceKind: 'fibre', wavelengthNm: 1064 }, 160, 0.004, /finer than/],
    [{ sourceKind: 'uv', wavelengthNm: 355 }, 160, 0.02, null],
  ] as const)('%o, f %f mm, spot %f mm: %s', (source, focalMm, spotMm, doubt) => {
    const said = spotDoubt(source, focalMm, spotMm);
    if (doubt === null) expect(said).toBeNull();
    else expect(said).toMatch(doubt);
  });
  it('says nothing about numbers that are not there yet', () => {
    expect(spotDoubt(tube, NaN, 0.1)).toBeNull();
    expect(spotDoubt(tube, 50, NaN)).toBeNull();
    expect([spotDoubt(tube, 0, 0.1), spotDoubt(tube, 50, 0), spotDoubt({ ...tube, wavelengthNm: 0 }, 50, 0.1)]).toEqual(
      [null, null, null],
    );
  });
});
