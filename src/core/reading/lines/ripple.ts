import type { Across } from './across';

/** A wave in the light across lines. */
export interface Wave {
  readonly amplitude: number;
  /** Standard uncertainty of the amplitude: what waves of other pitches near by have, which no burned line makes. */
  readonly sigma: number;
}

/** Light across lines made ready to look for waves in it: without its mean and slope, and fading out towards the ends. */
export interface Rippled {
  readonly meanShare: number;
  /** mm from the first to the last place. */
  readonly spanMm: number;
  /** No wave of whatever pitch is higher than this. */
  readonly mostAmplitude: number;
  /** Amplitude of the wave of a pitch. */
  amplitudeAt(pitchMm: number): number;
  /** Amplitudes of waves evenly apart in frequency, in waves per mm: the same, and many times quicker than one by one. */
  amplitudes(fromPerMm: number, stepPerMm: number, count: number): Float64Array;
}

/**
 * Amplitudes of waves across lines, by a least-squares line taken out and a Hann window: a slope, or a smudge at an end, hardly leaks into
 * them. Source of the window: F. J. Harris, Proc. IEEE 66 (1978) 51.
 */
export function rippled({ at, share, count }: Across): Rippled {
  const places = at.length;
  const first = at[0] ?? 0;
  const spanMm = (at.at(-1) ?? 0) - first;
  const weights = new Float64Array(places);
  let [total, sumAt, sumShare] = [0, 0, 0];
  for (let k = 0; k < places; k++) {
    const weight = count[k]! * 0.5 * (1 - Math.cos((2 * Math.PI * (at[k]! - first)) / spanMm));
    weights[k] = weight;
    total += weight;
    sumAt += weight * at[k]!;
    sumShare += weight * share[k]!;
  }
  const meanAt = sumAt / total;
  const meanShare = sumShare / total;
  let [rise, run] = [0, 0];
  for (let k = 0; k < places; k++) {
    const along = at[k]! - meanAt;
    rise += weights[k]! * (along * (share[k]! - meanShare));
    run += weights[k]! * (along * along);
  }
  const slope = rise / run;
  const rest = new Float64Array(places);
  let squares = 0;
  for (let k = 0; k < places; k++) {
    const left = share[k]! - meanShare - slope * (at[k]! - meanAt);
    rest[k] = weights[k]! * left;
    squares += weights[k]! * left * left;
  }
  const amplitudes = (fromPerMm: number, stepPerMm: number, count: number): Float64Array => {
    const cosines = new Float64Array(count);
    const sines = new Float64Array(count);
    for (let k = 0; k < rest.length; k++) {
      const turn = 2 * Math.PI * at[k]!;
      // From one frequency to the next each place's own wave turns by the same angle.
      const ahead = Math.cos(turn * stepPerMm);
      const aside = Math.sin(turn * stepPerMm);
      let cosine = rest[k]! * Math.cos(turn * fromPerMm);
      let sine = rest[k]! * Math.sin(turn * fromPerMm);
      for (let j = 0; j < count; j++) {
        cosines[j]! += cosine;
        sines[j]! += sine;
        const turned = cosine * ahead - sine * aside;
        sine = sine * ahead + cosine * aside;
        cosine = turned;
      }
    }
    for (let j = 0; j < count; j++) cosines[j] = (2 * Math.sqrt(cosines[j]! ** 2 + sines[j]! ** 2)) / total;
    return cosines;
  };
  // By the inequality of Cauchy and Schwarz: as if all that is left were one wave.
  const mostAmplitude = 2 * Math.sqrt(squares / total);
  return { meanShare, spanMm, mostAmplitude, amplitudes, amplitudeAt: (pitchMm) => amplitudes(1 / pitchMm, 0, 1)[0]! };
}

/** Waves further from a pitch than this many whole turns over the span have nothing of it: the window's main lobe is two wide. */
const LOBE_TURNS = 2.5;
const NEAR_TURNS = 12;
/** Slower waves than this are what the slope was. */
const LEAST_TURNS = 2;

/** The wave of a pitch, with what waves of its neighbours have. */
export function waveAt(light: Rippled, pitchMm: number): Wave {
  const turns = light.spanMm / pitchMm;
  const aways = Math.floor(NEAR_TURNS - LOBE_TURNS) + 1;
  const beside = (fromTurns: number): number[] =>
    [...light.amplitudes(fromTurns / light.spanMm, 1 / light.spanMm, aways)].filter(
      (_, k) => fromTurns + k > LEAST_TURNS,
    );
  const others = [...beside(turns - LOBE_TURNS - aways + 1), ...beside(turns + LOBE_TURNS)];
  const squares = others.reduce((sum, one) => sum + one ** 2, 0);
  const amplitude = light.amplitudeAt(pitchMm);
  // Each neighbour's amplitude is of two parts, as wide each as the error of this one's.
  const sigma = Math.sqrt(squares / Math.max(1, others.length) / 2);
  // What noise alone would add to an amplitude is taken off. Source: H. Gudbjartsson, S. Patz, Magn. Reson. Med. 34 (1995) 910.
  return { amplitude: Math.sqrt(Math.max(0, amplitude ** 2 - 2 * sigma ** 2)), sigma };
}
