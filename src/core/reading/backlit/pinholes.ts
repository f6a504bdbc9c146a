import type { Layout } from '../../card/layout';
import { luminance } from '../../color/srgb';
import { blobsOf } from '../../image/blobs';
import { MAD_TO_SIGMA, median } from '../../stats/robust';
import { bareMask } from '../light/bare-tiles';
import type { Rectified } from '../rectify';
import type { Pinholes } from './observations';
import type { OpenLight } from './open-light';

/** Kept off marks, besides the usual: their light spreads in the lens. */
const KEEP_OFF_MM = 0.4;
/** A speck is brighter than bare stock by this share of the open light, and by so many of its own scatters. */
const LEAST_SHARE = 0.03;
const SCATTERS = 8;
/** Larger than this it is no pinhole: a scratch, or another mark. */
const MOST_MM = 1;

/** Bright specks in bare stock between the marks of a straightened card on a light table. */
export function pinholesIn(image: Rectified, layout: Layout, open: OpenLight): Pinholes {
  const { width, height, pxPerMm, data } = image;
  const bare = bareMask(image, layout, KEEP_OFF_MM);
  const shares = new Float32Array(bare.length);
  const sample: number[] = [];
  for (let at = 0; at < bare.length; at++) {
    if (bare[at] !== 1) continue;
    const light = luminance(data[at * 3]!, data[at * 3 + 1]!, data[at * 3 + 2]!);
    shares[at] = light / open.at(((at % width) + 0.5) / pxPerMm, (Math.floor(at / width) + 0.5) / pxPerMm);
    if (at % 31 === 0) sample.push(shares[at]!);
  }
  if (sample.length === 0) return { count: 0, areaMm2: 0 };
  const usual = median(sample);
  const scatter = MAD_TO_SIGMA * median(sample.map((share) => Math.abs(share - usual)));
  const least = usual + Math.max(LEAST_SHARE, SCATTERS * scatter);
  const specks = new Uint8Array(bare.length);
  let area = 0;
  for (let at = 0; at < bare.length; at++) {
    if (bare[at] !== 1) continue;
    area++;
    if (shares[at]! > least) specks[at] = 1;
  }
  return {
    count: blobsOf(specks, width, height, 1, MOST_MM * pxPerMm).length,
    areaMm2: area / pxPerMm ** 2,
  };
}
