import seedrandom from 'seedrandom';
import { probit } from 'simple-statistics';
import { linearToSrgb } from '../../src/core/color/srgb';
import type { Homography } from '../../src/core/geometry/homography';
import { AS_IT_IS } from '../../src/core/reading/light/light-of-card';
import { fineLight, type FineLight } from '../../src/core/reading/lines/fine-light';

/** A patch of gray stock under a camera straight above, drawn by what each pixel's own square sees. Lengths in mm, x right, y down. */
export interface DrawnPatch {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly pxPerMm: number;
  /** By how many degrees the camera is turned against the card. */
  readonly turned?: number;
  /** Standard deviation of the camera's blur, without its pixels' own width. */
  readonly blurMm?: number;
  /** Standard deviation of each pixel's light, as a share of white. */
  readonly noise?: number;
  readonly seed?: string;
  /** The share of bare stock's light that comes back from a place, before the camera. */
  readonly share: (xMm: number, yMm: number) => number;
}

const BARE = 0.5;
/** Looks for each pixel: where in its square, and how far aside by the blur. */
const LOOKS = 64;

/** The k-th number of a row that fills 0 to 1 evenly. Source: J. H. Halton, Numer. Math. 2 (1960) 84. */
function halton(k: number, base: number): number {
  let [value, share] = [0, 1 / base];
  for (let rest = k; rest > 0; rest = Math.floor(rest / base), share /= base) value += share * (rest % base);
  return value;
}
const ASIDE = Array.from({ length: LOOKS }, (_, k) => [2, 3, 5, 7].map((base) => halton(k + 1, base)));

/** The pixels of a patch's photo, as the reading has them. Blur is drawn in both directions by looks aside, so it knows nothing of waves or edges. */
export function drawnPatch(patch: DrawnPatch): FineLight {
  const { widthMm, heightMm, pxPerMm, turned = 0, blurMm = 0, noise = 0, seed = 'patch', share } = patch;
  const random = seedrandom(seed);
  const [c, s] = [Math.cos((turned * Math.PI) / 180), Math.sin((turned * Math.PI) / 180)];
  const side = Math.ceil(Math.hypot(widthMm, heightMm) * pxPerMm) + 8;
  // Photo pixels to card mm: the patch's middle in the picture's.
  const [midX, midY] = [widthMm / 2, heightMm / 2];
  const place = (u: number, v: number): [number, number] => {
    const [du, dv] = [(u - side / 2) / pxPerMm, (v - side / 2) / pxPerMm];
    return [midX + c * du + s * dv, midY - s * du + c * dv];
  };
  const toPhoto: Homography = [
    c * pxPerMm,
    -s * pxPerMm,
    side / 2 - pxPerMm * (c * midX - s * midY),
    s * pxPerMm,
    c * pxPerMm,
    side / 2 - pxPerMm * (s * midX + c * midY),
    0,
    0,
    1,
  ];
  const data = new Uint8Array(side * side * 3);
  // A look aside in each direction by the normal law: all looks together are spread as it is.
  const looks = ASIDE.map(([u, v, x, y]) => ({ u: u!, v: v!, x: blurMm * probit(x!), y: blurMm * probit(y!) }));
  for (let v = 0; v < side; v++)
    for (let u = 0; u < side; u++) {
      // What lies beside the patch is never looked at.
      const [middleX, middleY] = place(u, v);
      const outside = Math.max(Math.abs(middleX - midX) - midX, Math.abs(middleY - midY) - midY);
      if (outside > 2 / pxPerMm) continue;
      // Every pixel has its looks turned another way, so that what they miss is noise and not a pattern.
      const [turnU, turnV] = [random(), random()];
      let sum = 0;
      for (const aside of looks) {
        const [x, y] = place(u + ((aside.u + turnU) % 1) - 0.5, v + ((aside.v + turnV) % 1) - 0.5);
        sum += share(x + aside.x, y + aside.y);
      }
      const deviate = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      const light = (BARE * sum) / LOOKS + noise * deviate;
      // Light between two bytes is stored as one or the other, so that rounding is noise and not a step.
      const byte = Math.floor(255 * linearToSrgb(light) + random());
      data.fill(Math.min(255, byte), 3 * (v * side + u), 3 * (v * side + u) + 3);
    }
  const field = { at: () => [BARE, BARE, BARE] as const };
  return fineLight(
    { data, width: side, height: side },
    toPhoto,
    { field, levelling: () => AS_IT_IS } as unknown as Parameters<typeof fineLight>[2],
    [BARE, BARE, BARE],
    pxPerMm,
  );
}
