import type { Rect } from '../../geometry/point';
import { lightAcross, type LinesRun } from './across';
import type { Blur } from './blur';
import type { FineLight } from './fine-light';
import { rippled, waveAt, type Rippled, type Wave } from './ripple';

/** Photo pixels to a line's pitch below which a photo cannot show lines. */
const LEAST_PX_A_PITCH = 3;
const LEAST_LINES = 6;
/** A wave this many sigmas high is one of the lines. */
const CLEAR = 4;
/** How far beside the asked pitch lines are looked for. */
const BESIDE = 0.08;
/** Less contrast than this between a fill and bare stock tells no gap. */
const LEAST_CONTRAST = 0.05;
/** Where the camera takes more than all but this of a wave, what is left tells nothing of it. */
const LEAST_LEFT = 0.12;
/** Where it is less sure than this what the camera leaves of a wave, to a share of itself, nobody knows how strong it is. */
const MOST_UNSURE = 0.3;

/** Whether a photo has the pixels to show lines of a pitch at all. */
export const hasPixelsFor = ({ pxPerMm }: FineLight, pitchMm: number): boolean => pitchMm * pxPerMm >= LEAST_PX_A_PITCH;

/** What a photo shows of the lines of a fill. Each sigma is a standard uncertainty. */
export interface LinesSeen {
  /** Distance of the lines as they lie there; null where no line stands out. */
  readonly pitchMm: number | null;
  readonly pitchSigmaMm: number | null;
  /** Amplitude of the ripple across the lines over the fill's mean luminance, without what the camera blunts. */
  readonly visibility: number;
  readonly visibilitySigma: number;
  /** Bare stock left between lines, as if lines were of one tone with hard edges; null where the fill hardly differs from bare stock. */
  readonly gapMm: number | null;
  readonly gapSigmaMm: number | null;
}

/** How much the light across a fill goes up and down with its lines, as the camera shows it: nothing is told of what it blunts. */
export interface RippleSeen {
  /** Amplitude over the fill's mean luminance, with its standard uncertainty. */
  readonly amplitude: number;
  readonly sigma: number;
}

/**
 * The ripple of a filled area as a photo shows it: to be compared with those of other fills of one pitch in the same photo, which the camera blunts
 * alike. Null where the photo has too few pixels or lines for it.
 */
export function rippleOfFill(
  fine: FineLight,
  area: Rect,
  { intervalMm, run }: { readonly intervalMm: number; readonly run: LinesRun },
): RippleSeen | null {
  const light = lightOfLines(fine, area, intervalMm, run);
  if (!light) return null;
  const { amplitude, sigma } = pitchIn(light, intervalMm)?.wave ?? waveAt(light, intervalMm);
  return { amplitude: amplitude / light.meanShare, sigma: sigma / light.meanShare };
}

/** The light across an area's lines; null where there are too few pixels, or too few lines, for it. */
function lightOfLines(fine: FineLight, area: Rect, intervalMm: number, run: LinesRun): Rippled | null {
  const acrossMm = run === 'horizontal' ? area.height : area.width;
  if (!hasPixelsFor(fine, intervalMm) || acrossMm < LEAST_LINES * intervalMm) return null;
  const light = rippled(lightAcross(fine, narrowed(fine, area, run), run));
  return light.meanShare > 0 && light.spanMm > 0 ? light : null;
}

/**
 * The lines of a filled area as a photo shows them: their pitch, how strongly they show, and the gap between them. The gap is that of two-tone
 * lines of the same mean and the same first harmonic: lines that cover a share c of their pitch have a first harmonic of 2 sin(pi c) / (pi c)
 * of what the fill takes of bare stock's light. Null where the photo has fewer than three pixels to a pitch, or fewer than six lines, or is too
 * blurred for this pitch: then it tells nothing, neither that lines show nor that they do not.
 */
export function linesOfFill(
  fine: FineLight,
  area: Rect,
  { intervalMm, run, blur }: { readonly intervalMm: number; readonly run: LinesRun; readonly blur: Blur },
): LinesSeen | null {
  const light = lightOfLines(fine, area, intervalMm, run);
  if (!light) return null;
  const left = blur.leftOf(intervalMm);
  if (left.share < LEAST_LEFT || left.relativeSigma > MOST_UNSURE) return null;
  const found = pitchIn(light, intervalMm);
  const { amplitude, sigma } = found?.wave ?? waveAt(light, intervalMm);
  const height = amplitude / left.share;
  const heightSigma = Math.hypot(sigma / left.share, height * left.relativeSigma);
  const taken = Math.abs(1 - light.meanShare);
  const gap = taken < LEAST_CONTRAST ? null : gapOf(height / taken, heightSigma / taken, found?.pitchMm ?? intervalMm);
  return {
    pitchMm: found?.pitchMm ?? null,
    pitchSigmaMm: found?.sigmaMm ?? null,
    visibility: height / light.meanShare,
    visibilitySigma: heightSigma / light.meanShare,
    gapMm: gap?.mm ?? null,
    gapSigmaMm: gap?.sigmaMm ?? null,
  };
}

/** Pixels that are looked at in one fill: more tell no more than its grain lets them. */
const MOST_PIXELS = 12_000;

/** The middle part of an area along its lines, so that not too many pixels are looked at. */
function narrowed(fine: FineLight, area: Rect, run: LinesRun): Rect {
  const pixels = area.width * area.height * fine.pxPerMm ** 2;
  const part = Math.min(1, MOST_PIXELS / pixels);
  const [x, width] = [area.x + (area.width * (1 - part)) / 2, area.width * part];
  const [y, height] = [area.y + (area.height * (1 - part)) / 2, area.height * part];
  return run === 'horizontal' ? { ...area, x, width } : { ...area, y, height };
}

/** The pitch near the asked one whose wave is highest, by a parabola through its neighbours; null where none stands clear of the rest. */
function pitchIn(light: Rippled, intervalMm: number): { pitchMm: number; sigmaMm: number; wave: Wave } | null {
  const middle = light.spanMm / intervalMm;
  const step = 1 / 8;
  const steps = Math.ceil(Math.max(1.5, BESIDE * middle) / step);
  const heights = light.amplitudes((middle - steps * step) / light.spanMm, step / light.spanMm, 2 * steps + 1);
  const squares = heights.map((height) => height ** 2);
  const best = squares.indexOf(Math.max(...squares));
  if (best === 0 || best === squares.length - 1) return null;
  const [before, top, after] = [squares[best - 1]!, squares[best]!, squares[best + 1]!];
  const turns = middle + (best - steps + (0.5 * (before - after)) / (before - 2 * top + after)) * step;
  const pitchMm = light.spanMm / turns;
  const wave = waveAt(light, pitchMm);
  if (wave.amplitude < CLEAR * wave.sigma) return null;
  const turnsSigma = (HANN_FREQUENCY * wave.sigma) / wave.amplitude;
  return { pitchMm, sigmaMm: (pitchMm * turnsSigma) / turns, wave };
}

/**
 * Standard deviation of a tone's frequency, in turns over the span, times its amplitude over the noise of one. With no window it is
 * sqrt(3) / pi (D. C. Rife, R. R. Boorstyn, IEEE Trans. Inform. Theory 20 (1974) 591); with a window w over t from -1/2 to 1/2 it is
 * sqrt(I(w²t²) / I(w²)) I(w) / I(wt²) / (2 pi), I being the integral, which for Hann's is this.
 */
const HANN_FREQUENCY = 0.689;

/** The gap of two-tone lines whose first harmonic is so high beside what the fill takes of the light. */
function gapOf(ratio: number, ratioSigma: number, pitchMm: number): { mm: number; sigmaMm: number } {
  const covered = coverageOf(ratio);
  const byEnds = (coverageOf(Math.max(0, ratio - ratioSigma)) - coverageOf(ratio + ratioSigma)) / 2;
  return { mm: (1 - covered) * pitchMm, sigmaMm: byEnds * pitchMm };
}

/** The share c of which 2 sin(pi c) / (pi c) is a ratio, by halving: 1 for none, 0 for 2 and more. */
function coverageOf(ratio: number): number {
  let [low, high] = [0, 1];
  for (let turn = 0; turn < 40; turn++) {
    const middle = (low + high) / 2;
    if ((2 * Math.sin(Math.PI * middle)) / (Math.PI * middle) > ratio) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
