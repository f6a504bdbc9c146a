import { gaussianProcess, type GaussianProcess, type Kernel } from '../../stats/gaussian-process';
import type { Point } from '../../geometry/point';
import { Lattice } from './lattice';

/** Light that was added as one square of bare stock tells it. `trust` is how many equal parts its noise is the mean of. */
export interface ToldLight extends Point {
  readonly added: number;
  readonly trust: number;
}

/** How sure the whole of what is told is, and each of it. */
export interface Unsure {
  /** Standard deviation of one part of a square. */
  readonly partSigma: number;
  /** Standard deviation of what all squares are off by alike. */
  readonly alikeSigma: number;
}

export interface ReflectionMap {
  /** Added light at a place, never below 0. */
  at(xMm: number, yMm: number): number;
  /** Standard deviation of what was added there about that. */
  sigmaAt(xMm: number, yMm: number): number;
}

/** What a reflection's law is chosen from, by the likelihood of what is told: how strong as a share of the strongest, how far it reaches, in mm, and how much noisier squares are than their parts say. */
const STRENGTHS = [0.1, 0.25, 0.6];
const REACHES_MM = [5, 8, 12, 18, 27];
const NOISIER = [1, 2.5];
/** The likelihood is asked where at least this share of the strongest was added: all the card where nothing was would make any reflection look weak and wide. */
const LIT = 0.1;
/** Of fewer squares no law can be asked: a thing on a corner lights one or two. */
const LEAST_LIT = 8;
/** The likelihood is asked of no more squares than this, evenly taken: it grows with their cube. */
const MOST_ASKED = 70;
/**
 * A reflection is not unsure by more than this share of the most that squares near by have of it: where there is none around a cell, none lies in it
 * alone. A law of one reach for all of the card does not know that where something with sharp edges, a scrap of paper, was taken for light.
 */
const OF_NEARBY = 0.5;
/** Near are squares within this distance, and twice and twice as far again until there are some. */
const NEAR_MM = 4.5;
const LEAST_NEAR = 6;
/**
 * A narrow reflection falls to 1/e within so many mm of its middle: a large cell may hide what bare stock around it does not have, and no law tells
 * how much. This share of what such a one would hide is unsure.
 */
const NARROWEST_MM = 6;
const HIDDEN = 0.25;
/** How far apart the map is worked out; between, it is straight. */
const LATTICE_MM = 2;

/** The law that makes what is told the likeliest, and what it makes of all of it. */
function likeliest(told: readonly ToldLight[], { partSigma, alikeSigma }: Unsure): GaussianProcess {
  const under = (some: readonly ToldLight[], kernel: Kernel, noisier: number): GaussianProcess =>
    gaussianProcess(
      some.map(({ x, y }) => [x, y]),
      some.map(({ added }) => added),
      some.map(({ trust }) => (noisier * partSigma) / Math.sqrt(trust)),
      some.map(() => [1]),
      kernel,
      [alikeSigma],
    );
  const strongest = Math.max(0, ...told.map(({ added }) => added));
  const lit = told.filter(({ added }) => added > LIT * strongest);
  const telling = lit.length < LEAST_LIT ? told : lit;
  const stride = Math.max(1, Math.ceil(telling.length / MOST_ASKED));
  const asked = telling.filter((_, index) => index % stride === 0);
  let best = { kernel: { amplitude: strongest, reach: REACHES_MM[0]! }, noisier: 1, logLikelihood: -Infinity };
  for (const strength of STRENGTHS)
    for (const reach of REACHES_MM)
      for (const noisier of NOISIER) {
        const kernel = { amplitude: strength * strongest, reach };
        const { logLikelihood } = under(asked, kernel, noisier);
        if (logLikelihood > best.logLikelihood) best = { kernel, noisier, logLikelihood };
      }
  return under(told, best.kernel, best.noisier);
}

interface Nearby {
  /** The most that squares near a place have. */
  readonly most: number;
  /** How far the nearest of them lies. */
  readonly nearestMm: number;
}

function nearby(told: readonly ToldLight[], x: number, y: number): Nearby {
  for (let within = NEAR_MM; ; within *= 2) {
    let [count, most, nearest] = [0, 0, Infinity];
    for (const square of told) {
      const squared = (square.x - x) ** 2 + (square.y - y) ** 2;
      if (squared > within ** 2) continue;
      count++;
      most = Math.max(most, square.added);
      nearest = Math.min(nearest, squared);
    }
    if (count >= Math.min(LEAST_NEAR, told.length)) return { most, nearestMm: Math.sqrt(nearest) };
  }
}

/**
 * A reflection over a card from squares of bare stock, cells bridged: a Gaussian process about nought, so that a peak between squares stands
 * higher than they do, and with its own sigma, larger the further from bare stock. What all squares are off by alike is told from it as far as a
 * reflection that ends somewhere lets it. Throws RangeError for fewer than two squares, and for sigmas that are not above 0.
 */
export function reflectionMap(
  told: readonly ToldLight[],
  unsure: Unsure,
  widthMm: number,
  heightMm: number,
): ReflectionMap {
  const process = likeliest(told, unsure);
  const lattice = new Lattice({ widthMm, heightMm }, LATTICE_MM);
  const here = lattice.map((x, y) => {
    const { value, sigma } = process.at([x, y], [0]);
    const { most, nearestMm } = nearby(told, x, y);
    const hidden = HIDDEN * (1 - Math.exp(-((nearestMm / NARROWEST_MM) ** 2))) * Math.max(0, value);
    return {
      added: Math.max(0, value),
      sigma: Math.hypot(Math.min(sigma, Math.hypot(OF_NEARBY * most, unsure.alikeSigma)), hidden),
    };
  });
  const added = Float64Array.from(here, (place) => place.added);
  const sigmas = Float64Array.from(here, ({ sigma }) => sigma);
  return {
    at: (x, y) => lattice.between(added, x, y),
    sigmaAt: (x, y) => lattice.between(sigmas, x, y),
  };
}
