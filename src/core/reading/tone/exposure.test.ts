import { describe, expect, it } from 'vitest';
import { exposureRatio, secondExposureOf, type Exposed, type Exposure } from './exposure';

const PLAIN: Exposure = { camera: 'Pond one', timeS: 1 / 60, iso: 100, fNumber: 2, biasStops: 0 };
const with_ = (change: Partial<Exposure>): Exposure => ({ ...PLAIN, ...change });

describe('how much more light a photo was given', () => {
  it('is told by time, gain and aperture: twice the f-number is a quarter of the light', () => {
    const ratio = (change: Partial<Exposure>) => Math.exp(exposureRatio(PLAIN, with_(change))!.logRatio);
    expect(ratio({})).toBe(1);
    expect(ratio({ timeS: 1 / 240 })).toBeCloseTo(4, 9);
    expect(ratio({ iso: 400 })).toBeCloseTo(1 / 4, 9);
    expect(ratio({ fNumber: 4 })).toBeCloseTo(4, 9);
    expect(ratio({ timeS: 1 / 30, iso: 50, fNumber: 2 })).toBeCloseTo(1, 9);
  });
  it('is as sure as what was changed: time best, then gain, then the aperture', () => {
    const sigma = (change: Partial<Exposure>) => exposureRatio(PLAIN, with_(change))!.logRatioSigma;
    expect(sigma({ timeS: 1 / 240 })).toBe(0.01);
    expect(sigma({ iso: 400 })).toBeCloseTo(Math.hypot(0.01, 0.03), 9);
    expect(sigma({ fNumber: 4 })).toBeCloseTo(Math.hypot(0.01, 0.06), 9);
  });
  it('is not known of two cameras, nor where one of them does not say its aperture', () => {
    expect(exposureRatio(PLAIN, with_({ camera: 'Pond two' }))).toBeNull();
    expect(exposureRatio(PLAIN, with_({ fNumber: null }))).toBeNull();
    expect(exposureRatio(with_({ fNumber: null }), PLAIN)).toBeNull();
    const blind = with_({ fNumber: null });
    expect(exposureRatio(blind, { ...blind, timeS: 1 / 120 })!.logRatio).toBeCloseTo(Math.log(2), 9);
  });
});

describe('the photo that tells most of another’s tones', () => {
  const photo = (stops: number, change: Partial<Exposed> = {}): Exposed => ({
    exposure: with_({ timeS: 2 ** stops / 60, biasStops: stops }),
    finish: null,
    ...change,
  });
  const chosen = (of: Exposed, ...others: Exposed[]) => secondExposureOf(of, others)?.photo ?? null;
  it('is the one nearest to two stops apart, darker or brighter', () => {
    const others = [photo(-1), photo(-1.7), photo(-3)];
    expect(chosen(photo(0), ...others)).toBe(others[1]);
    expect(chosen(photo(0), photo(2))).not.toBeNull();
    expect(secondExposureOf(photo(0), [photo(-1)])!.ratio.logRatio).toBeCloseTo(Math.log(2), 9);
    expect(secondExposureOf(photo(0), [photo(1)])!.ratio.logRatio).toBeCloseTo(-Math.log(2), 9);
  });
  it('is none less than half a stop or more than three stops and a third apart', () => {
    for (const stops of [0, 0.5, -0.5, 3.5, -3.5]) expect(chosen(photo(0), photo(stops)), `${stops}`).toBeNull();
    for (const stops of [0.6, -0.6, 3.3, -3.3]) expect(chosen(photo(0), photo(stops)), `${stops}`).not.toBeNull();
  });
  it('is one that was asked to be darker or brighter: where the camera changed it by itself the light was not alike', () => {
    const darker = (stops: number, biasStops: number | null) => ({
      ...photo(stops),
      exposure: with_({ timeS: 2 ** stops / 60, biasStops }),
    });
    expect(chosen(photo(0), darker(-1.5, -1.5))).not.toBeNull();
    expect(chosen(photo(0), darker(-1.5, -1.4))).not.toBeNull();
    for (const bias of [-1.3, -1.7, 0, 1.5, null]) expect(chosen(photo(0), darker(-1.5, bias)), `${bias}`).toBeNull();
    expect(chosen(darker(0, null), photo(-1.5))).toBeNull();
  });
  it('shows the piece as that one does, and was taken by the same camera', () => {
    expect(chosen(photo(0, { finish: 'before' }), photo(-1, { finish: 'after' }))).toBeNull();
    expect(chosen(photo(0, { finish: 'after' }), photo(-1, { finish: 'after' }))).not.toBeNull();
    expect(
      chosen(photo(0), { ...photo(-1), exposure: with_({ camera: 'Pond two', timeS: 1 / 120, biasStops: -1 }) }),
    ).toBeNull();
    expect(chosen(photo(0), { ...photo(-1), exposure: null })).toBeNull();
    expect(chosen(photo(0, { exposure: null }), photo(-1))).toBeNull();
  });
});
