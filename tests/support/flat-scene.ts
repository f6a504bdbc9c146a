import { grid } from '../../src/cards/grid';
import { layCard } from '../../src/core/card/lay';
import { mainBurn, type Cell, type Layout } from '../../src/core/card/layout';
import { linearToSrgb } from '../../src/core/color/srgb';
import { AS_IT_IS } from '../../src/core/reading/light/light-of-card';
import { fitLight } from '../../src/core/reading/light/light-on-bare';
import { blurBetween } from '../../src/core/reading/lines/blur';
import { fineLight } from '../../src/core/reading/lines/fine-light';
import type { PhotoContext } from '../../src/core/reading/photo-context';
import { RECTIFIED_PX_PER_MM } from '../../src/core/reading/straighten';
import { stockLinearColour } from '../../src/core/reading/stock-colour';
import { rectify } from '../../src/core/reading/rectify';
import { demoPairing } from '../../stand-ins/demo';
import { gridOfFew } from './few-cells';

const pairing = demoPairing('heron', 'mdf');
const small = { ...gridOfFew(pairing, 4, 3), cellMm: 4.5 };
/** A card of few cells on MDF, whose scenes these are. */
export const layout: Layout = layCard(grid, small, pairing, { cardNumber: 5 });
const PX = 18;
/** A pixel's own width, as the standard deviation of a normal law that blurs alike. */
const PIXEL_MM = 1 / Math.sqrt(12) / PX;

/** Light over the card: a slope, a bow and a twist, brightest 1. */
export const light = (x: number, y: number): number => {
  const u = x / layout.widthMm;
  const v = y / layout.heightMm;
  return 0.98 - 0.35 * u - 0.12 * v * v + 0.1 * u * v;
};

export interface Scene {
  /** Luminance ratio of a cell to bare stock. */
  readonly ratio: (cell: Cell) => number;
  readonly ripple?: number;
  /** Pitch of the ripple, where it is not the cell's own interval. */
  readonly intervalMm?: number;
  readonly edgeSigmaMm?: number;
  readonly knot?: { x: number; y: number; radius: number };
  /** Factors on the light that comes back, by place in mm. */
  readonly veil?: (x: number, y: number) => number;
}

/** sRGB bytes of linear light 0..1. */
const BYTES = Uint8Array.from({ length: 65_536 }, (_, step) => Math.round(255 * linearToSrgb(step / 65_535)));

/** How much of a soft-edged span from `from` over `size` lies under each pixel of a row or column. */
const softSpan = (count: number, from: number, size: number, sigma: number): Float64Array => {
  const step = (d: number): number => 1 / (1 + Math.exp(-1.702 * (d / sigma)));
  return Float64Array.from({ length: count }, (_, pixel) => {
    const at = (pixel + 0.5) / PX;
    return step(at - from) * step(from + size - at);
  });
};

/** A photo straight from above that a test draws itself: gray stock of reflectance 0.5, flat cells, no noise. */
export function draw(scene: Scene, of: Layout = layout) {
  const width = Math.round(layout.widthMm * PX);
  const height = Math.round(layout.heightMm * PX);
  const value = new Float64Array(width * height).fill(0.5);
  const { knot, veil } = scene;
  for (const cell of of.cells) {
    const { box } = cell;
    const { settings } = mainBurn(cell);
    const across = softSpan(width, box.x, box.width, scene.edgeSigmaMm ?? 0.01);
    const down = softSpan(height, box.y, box.height, scene.edgeSigmaMm ?? 0.01);
    const [left, top] = [Math.floor((box.x - 1) * PX), Math.floor((box.y - 1) * PX)];
    const [right, bottom] = [Math.ceil((box.x + box.width + 1) * PX), Math.ceil((box.y + box.height + 1) * PX)];
    const turns = (2 * Math.PI) / (scene.intervalMm ?? settings.intervalMm);
    for (let py = top; py < bottom; py++) {
      for (let px = left; px < right; px++) {
        const along = settings.direction === 'horizontal' ? (py + 0.5) / PX - box.y : (px + 0.5) / PX - box.x;
        const wave = scene.ripple ? 1 + scene.ripple * Math.cos(turns * along) : 1;
        const inside = across[px]! * down[py]!;
        value[py * width + px]! *= 1 - inside + inside * scene.ratio(cell) * wave;
      }
    }
  }
  const data = new Uint8Array(width * height * 3);
  for (let pixel = 0, byte = 0; pixel < value.length; pixel++) {
    const x = ((pixel % width) + 0.5) / PX;
    const y = (Math.floor(pixel / width) + 0.5) / PX;
    let bright = value[pixel]! * light(x, y);
    if (knot && Math.hypot(x - knot.x, y - knot.y) < knot.radius) bright *= 0.6;
    if (veil) bright *= veil(x, y);
    const encoded = BYTES[Math.round(bright * (BYTES.length - 1))]!;
    for (let channel = 0; channel < 3; channel++) data[byte++] = encoded;
  }
  return { data, width, height };
}

/** The map from card millimetres to this scene's pixels, centres at whole coordinates. */
export const TO_PHOTO = [PX, 0, -0.5, 0, PX, -0.5, 0, 0, 1] as const;

/** What holds of a scene's photo, as the reading of its cells is given it. */
export function contextOf(scene: Scene, of: Layout = layout): PhotoContext {
  const photo = draw(scene, of);
  const rectified = rectify(photo, TO_PHOTO, layout.widthMm, layout.heightMm, RECTIFIED_PX_PER_MM, 1);
  const field = fitLight(rectified, layout)!;
  const stockLinear = stockLinearColour({ bareLightness: 62, colour: '#808080' });
  const fine = fineLight(photo, TO_PHOTO, { field, levelling: () => AS_IT_IS }, stockLinear, PX);
  return {
    rectified,
    field,
    finePhoto: { fine, blur: () => blurBetween(PIXEL_MM, PIXEL_MM) },
    photoPxPerMm: PX,
    stockLinear,
    uncertainFrame: false,
    frameErrorMm: 0,
    addedSigma: () => 0,
    toneSigma: () => 0,
    tonesUnknown: false,
    lightIsTold: false,
    comparesRipples: false,
    throughSheet: false,
  };
}
