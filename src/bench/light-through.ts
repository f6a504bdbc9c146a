import { randomFrom } from './random';

/** How much light a stock lets through. Open to tests and accuracy reports only. */
export interface LetsThrough {
  /** Share that an untouched coat lets through; 1 for stock that has none. */
  readonly coat: number;
  /** Share that is left after both faces of what lies under it. */
  readonly faces: number;
  /** Depth of it over which light falls to 1/e. */
  readonly decayMm: number;
  /** Mean number of pinholes in the coat for each cm². */
  readonly pinholes: number;
}

/** Wood, cloth, leather and their like scatter light and are dark from a few tenths of a mm on. */
const SCATTERS: LetsThrough = { coat: 1, faces: 0.55, decayMm: 0.25, pinholes: 0 };
const CLEAR = { faces: 0.92, decayMm: 80 } as const;

const LETS_THROUGH: Readonly<Record<string, LetsThrough>> = {
  'acrylic-cast': { coat: 1, ...CLEAR, pinholes: 0 },
  'acrylic-extruded': { coat: 1, ...CLEAR, pinholes: 0 },
  glass: { coat: 1, ...CLEAR, pinholes: 0 },
  'coated-clear': { coat: 0.0015, ...CLEAR, pinholes: 0.8 },
};

/** Dyed through. */
const OPAQUE = /^opaque/;

export const letsThroughOf = ({ family, type }: { readonly family: string; readonly type: string }): LetsThrough =>
  (!OPAQUE.test(type) && LETS_THROUGH[family]) || SCATTERS;

/** Melt and residue where a burn went too far scatter light away from the camera. */
export const LOST_IN_RUIN = 0.4;

/**
 * Share of light that comes through a spot. A coat thins as it is marked, and its optical density with it: one that looks all but gone still takes
 * half of the light.
 */
export function throughAt(
  { coat, faces, decayMm }: LetsThrough,
  { mark, ruin, leftMm, thicknessMm }: { mark: number; ruin: number; leftMm: number; thicknessMm: number },
): number {
  if (leftMm <= 0.005 * thicknessMm) return 1;
  const plate = faces * Math.exp(-leftMm / decayMm);
  return plate * (coat === 1 ? 1 : coat ** (1 - mark)) * (1 - LOST_IN_RUIN * ruin);
}

/** Widths of pinholes, in mm, from the smallest to the largest. */
const PINHOLE_MM = [0.04, 0.16] as const;

/** The light that comes through a piece, pixel by pixel. */
export interface Pane {
  readonly width: number;
  readonly height: number;
  readonly pxPerMm: number;
  readonly through: Float32Array;
}

/** Pierces an untouched coat here and there, in place. */
export function pierce(pane: Pane, { pinholes, faces }: LetsThrough, seed: string): void {
  if (pinholes === 0) return;
  const random = randomFrom(`pinholes ${seed}`);
  const { width, height, pxPerMm, through } = pane;
  const count = Math.round((pinholes * width * height) / (10 * pxPerMm) ** 2);
  for (let hole = 0; hole < count; hole++) {
    const x = random() * width;
    const y = random() * height;
    const radius = ((PINHOLE_MM[0] + (PINHOLE_MM[1] - PINHOLE_MM[0]) * random() ** 2) / 2) * pxPerMm;
    const share = Math.PI * radius * radius;
    for (let v = Math.max(0, Math.floor(y - radius)); v <= Math.min(height - 1, y + radius); v++)
      for (let u = Math.max(0, Math.floor(x - radius)); u <= Math.min(width - 1, x + radius); u++) {
        const inside = share < 1 ? share : Math.hypot(u + 0.5 - x, v + 0.5 - y) <= radius ? 1 : 0;
        const at = v * width + u;
        through[at] = Math.max(through[at]!, faces * inside);
      }
  }
}
