import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { rippled, waveAt } from './ripple';

const random = seedrandom('ripple');
/** Places about 0.02 mm apart, none at its own, with a wave on a slope. */
const places = Float64Array.from({ length: 300 }, (_, k) => 0.02 * k + 0.006 * (random() - 0.5));
const across = (light: (mm: number) => number) => ({
  at: places,
  share: places.map(light),
  count: new Float64Array(places.length).fill(1),
});
const wave = (pitchMm: number, amplitude: number) => (mm: number) =>
  0.5 + 0.01 * mm + amplitude * Math.cos((2 * Math.PI * mm) / pitchMm);

describe('waves across lines', () => {
  it('are as high as they were put, one by one and many at once', () => {
    const light = rippled(across(wave(0.15, 0.04)));
    expect(light.amplitudeAt(0.15)).toBeCloseTo(0.04, 3);
    expect(light.meanShare).toBeCloseTo(0.53, 2);
    // From 2 to 12 waves a mm: each as it is by itself, and the highest where it was put.
    const [from, step, count] = [2, 0.05, 201];
    const all = light.amplitudes(from, step, count);
    for (const k of [0, 1, 77, 93, 200]) expect(all[k]).toBeCloseTo(light.amplitudeAt(1 / (from + k * step)), 12);
    const highest = all.indexOf(Math.max(...all));
    expect(from + highest * step).toBeCloseTo(1 / 0.15, 1);
    // By its own definition at one of them: the window's weights times a cosine and a sine, no slope to speak of.
    const flat = rippled(across((mm) => wave(0.15, 0.04)(mm) - 0.01 * mm));
    const span = places.at(-1)! - places[0]!;
    let [cosine, sine, total] = [0, 0, 0];
    for (const mm of places) {
      const weight = 0.5 - 0.5 * Math.cos((2 * Math.PI * (mm - places[0]!)) / span);
      const value = 0.04 * Math.cos((2 * Math.PI * mm) / 0.15);
      cosine += weight * value * Math.cos((2 * Math.PI * mm) / 0.17);
      sine += weight * value * Math.sin((2 * Math.PI * mm) / 0.17);
      total += weight;
    }
    expect(flat.amplitudeAt(0.17)).toBeCloseTo((2 * Math.hypot(cosine, sine)) / total, 4);
  });
  it('are never higher than all of the light that is left together', () => {
    const light = rippled(across((mm) => wave(0.15, 0.04)(mm) + 0.02 * Math.cos(40 * mm) + 0.01 * random()));
    expect(Math.max(...light.amplitudes(0.2, 0.05, 400))).toBeLessThan(light.mostAmplitude);
    // Of one wave alone the squares' mean is half of its own: no more than the root of two above it.
    const alone = rippled(across((mm) => wave(0.15, 0.04)(mm) - 0.01 * mm));
    expect(alone.mostAmplitude).toBeCloseTo(Math.SQRT2 * 0.04, 3);
    expect(rippled(across(() => 0.5)).mostAmplitude).toBeCloseTo(0, 6);
  });
  it('are no less sure for a slow bow of light, which is no neighbour of theirs', () => {
    // Nine turns over the span; the bow makes half of one.
    const pitchMm = 6 / 9;
    const bowed = (bow: number) =>
      waveAt(rippled(across((mm) => wave(pitchMm, 0.04)(mm) + bow * Math.sin((Math.PI * mm) / 6))), pitchMm);
    const [even, bent] = [bowed(0), bowed(0.1)];
    expect(bent.sigma).toBeLessThan(even.sigma + 0.1 * 0.01);
    expect(bent.amplitude).toBeCloseTo(0.04, 3);
  });
  it('are as sure as their neighbours are low: none but noise has a sigma of that noise', () => {
    const noise = 0.02;
    const sigmas = Array.from({ length: 40 }, () => {
      const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      return waveAt(rippled(across((mm) => wave(0.15, 0.04)(mm) + noise * normal())), 0.15).sigma;
    });
    // Of an amplitude by n places under a Hann window: noise times the root of 2 x 1.5 / n.
    const expected = noise * Math.sqrt((2 * 1.5) / places.length);
    const mean = sigmas.reduce((sum, sigma) => sum + sigma, 0) / sigmas.length;
    expect(mean / expected).toBeGreaterThan(0.9);
    expect(mean / expected).toBeLessThan(1.1);
    // Places that lie a little unevenly leave a hundredth of the wave itself.
    expect(waveAt(rippled(across(wave(0.15, 0.04))), 0.15).sigma).toBeLessThan(0.02 * 0.04);
  });
});
