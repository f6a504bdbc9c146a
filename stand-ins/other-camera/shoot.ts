import sharp from 'sharp';
import seedrandom from 'seedrandom';
import { encoded, type Linear } from './colour';
import type { Face } from './face';
import { normals } from './noise';

/** Everything that happens between a card and the bytes of its photo. Lengths in card mm, angles in degrees. */
export interface Snap {
  readonly seed: string;
  readonly widthPx?: number;
  readonly heightPx?: number;
  readonly tilt?: number;
  readonly lean?: number;
  readonly roll?: number;
  /** Light that comes back from white at the card's middle, 1 being the most the camera takes. */
  readonly exposure?: number;
  readonly cast?: Linear;
  /** Height of the one lamp above the card and where it stands beside its middle; light falls with the square of the distance. */
  readonly lamp?: { readonly x: number; readonly y: number; readonly z: number };
  /** Another lamp of another colour, which at the card's middle gives so much of what the first one does. */
  readonly otherLamp?: {
    readonly x: number;
    readonly y: number;
    readonly z: number;
    readonly cast: Linear;
    readonly share: number;
  };
  readonly vignette?: number;
  readonly blurPx?: number;
  readonly noise?: number;
  readonly quality?: number;
  /** Strength of a phone's contrast curve, 0 for none: an S through black, middle and white of the encoded value. */
  readonly contrast?: number;
  /** Light that is added everywhere, as a share of white. */
  readonly veil?: number;
  /** A lamp's reflection: where, how wide, and how much light it adds at its middle, as a share of white. */
  readonly glare?: {
    readonly x: number;
    readonly y: number;
    readonly wide: number;
    readonly high: number;
    readonly adds: number;
  };
  /** A hard shadow over one side of a line: its direction, where it runs, how much light is left, how soft its edge. */
  readonly shadow?: { readonly angle: number; readonly offset: number; readonly left: number; readonly soft: number };
  /** How high the middle of the sheet stands above its ends. */
  readonly bow?: number;
  /** A hand or finger that lies over a part of the card: centre and radii. */
  readonly finger?: { readonly x: number; readonly y: number; readonly wide: number; readonly high: number };
}

export interface Snapped {
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
}

/** A usual photo of a phone from a seed: some tilt, one lamp to a side, a cast, a little noise. */
export function usualSnap(
  seed: string,
): Required<Pick<Snap, 'tilt' | 'lean' | 'roll' | 'exposure' | 'cast' | 'lamp' | 'vignette' | 'blurPx' | 'noise'>> &
  Snap {
  const random = seedrandom(`snap ${seed}`);
  const away = 360 * random();
  return {
    seed,
    tilt: 18 * random(),
    lean: 360 * random(),
    roll: 20 * random() - 10,
    exposure: 0.62 + 0.2 * random(),
    cast: [1, 0.92 + 0.08 * random(), 0.7 + 0.3 * random()],
    lamp: { x: 180 * Math.cos(away), y: 180 * Math.sin(away), z: 280 + 200 * random() },
    vignette: 0.12 + 0.15 * random(),
    blurPx: 0.6 + 0.5 * random(),
    noise: 0.006 + 0.008 * random(),
  };
}

/** The eye's place and the picture's axes, from tilt, lean and roll: the camera looks at the card's middle. */
function camera({ tilt = 0, lean = 0, roll = 0 }: Snap, distance: number) {
  const [t, l, r] = [tilt, lean, roll].map((degrees) => (degrees * Math.PI) / 180) as [number, number, number];
  const eye = [
    distance * Math.sin(t) * Math.cos(l),
    distance * Math.sin(t) * Math.sin(l),
    distance * Math.cos(t),
  ] as const;
  const ahead = eye.map((value) => -value / distance) as unknown as Linear;
  // Picture's right and down for a camera straight above, turned with it by the least turn that brings it to its place, and by the roll.
  const turned = (v: Linear): Linear => {
    const axis: Linear = [-Math.sin(l), Math.cos(l), 0];
    const along = v[0] * axis[0] + v[1] * axis[1];
    const cross: Linear = [axis[1] * v[2], -axis[0] * v[2], axis[0] * v[1] - axis[1] * v[0]];
    return [0, 1, 2].map(
      (k) => v[k]! * Math.cos(t) + cross[k]! * Math.sin(t) + axis[k]! * along * (1 - Math.cos(t)),
    ) as unknown as Linear;
  };
  return { eye, ahead, right: turned([Math.cos(r), Math.sin(r), 0]), down: turned([-Math.sin(r), Math.cos(r), 0]) };
}

const SKIN: Linear = [0.45, 0.28, 0.2];
/** Encoded values over the square root of linear light: a step is a tenth of a byte at most. */
const STEPS = 16_383;
const ENCODED = Float64Array.from({ length: STEPS + 1 }, (_, step) => encoded((step / STEPS) ** 2));

/** Takes a picture of a face and stores it as JPEG, as a phone does. */
export function snap(face: Face, options: Snap): Promise<Buffer> {
  const {
    widthPx = 1600,
    heightPx = 1200,
    exposure = 0.75,
    cast = [1, 1, 1],
    lamp,
    vignette = 0,
    blurPx = 0.7,
    noise = 0.008,
    quality = 88,
    contrast = 0,
    veil = 0,
    glare,
    shadow,
    bow = 0,
    finger,
    seed,
    otherLamp,
  } = options;
  const random = normals(`noise ${seed}`);
  const deviates = Float32Array.from({ length: 65_521 }, random);
  const focal = widthPx * 1.1;
  const fill = 0.78;
  const view = face.viewMm ?? { width: face.widthMm, height: face.heightMm };
  const scale = Math.min((widthPx * fill) / view.width, (heightPx * fill) / view.height);
  const { eye, ahead, right, down } = camera(options, focal / scale);
  const light = new Float32Array(widthPx * heightPx * 3);
  const [middleX, middleY] = [face.widthMm / 2, face.heightMm / 2];
  const across = cast.map((share) => share * exposure);
  const span = Math.max(face.widthMm, face.heightMm) / 2;
  const sag = (x: number): number => bow * (1 - (x / span) ** 2);
  const lampAtMiddle = lamp ? lamp.z / Math.hypot(lamp.x, lamp.y, lamp.z) ** 3 : 1;
  const radians = ((shadow?.angle ?? 0) * Math.PI) / 180;

  const bothShares = 1 + (otherLamp?.share ?? 0);
  const { data: shares, width: faceWidth, height: faceHeight, pxPerMm, marginMm } = face;
  // A function of its own is compiled once for all rows.
  const exposeRow = (v: number): void => {
    const b = (v + 0.5 - heightPx / 2) / focal;
    for (let u = 0; u < widthPx; u++) {
      const a = (u + 0.5 - widthPx / 2) / focal;
      const rayX = ahead[0] + a * right[0] + b * down[0];
      const rayY = ahead[1] + a * right[1] + b * down[1];
      const rayZ = ahead[2] + a * right[2] + b * down[2];
      // Where the ray meets the sheet: a few turns where it is bowed.
      let z = 0;
      let x = 0;
      let y = 0;
      for (let turn = 0; turn < (bow === 0 ? 1 : 4); turn++) {
        const far = (z - eye[2]) / rayZ;
        x = eye[0] + far * rayX;
        y = eye[1] + far * rayY;
        if (bow !== 0) z = Math.abs(x) < 2.5 * span ? sag(x) : 0;
      }
      const px = (x + middleX + marginMm) * pxPerMm - 0.5;
      const py = (y + middleY + marginMm) * pxPerMm - 0.5;
      const column = Math.max(0, Math.min(faceWidth - 2, Math.floor(px)));
      const row = Math.max(0, Math.min(faceHeight - 2, Math.floor(py)));
      const fx = Math.max(0, Math.min(1, px - column));
      const fy = Math.max(0, Math.min(1, py - row));
      let lit = 1;
      if (lamp) {
        const squared = (x - lamp.x) ** 2 + (y - lamp.y) ** 2 + lamp.z ** 2;
        lit = lamp.z / (squared * Math.sqrt(squared)) / lampAtMiddle;
      }
      lit = 0.75 * lit + 0.25;
      let other = 0;
      if (otherLamp) {
        const squared = (x - otherLamp.x) ** 2 + (y - otherLamp.y) ** 2 + otherLamp.z ** 2;
        const atMiddle = otherLamp.z / Math.hypot(otherLamp.x, otherLamp.y, otherLamp.z) ** 3;
        other = (otherLamp.share * otherLamp.z) / (squared * Math.sqrt(squared)) / atMiddle;
      }
      if (shadow) {
        const beyond = x * Math.cos(radians) + y * Math.sin(radians) - shadow.offset;
        lit *= shadow.left + (1 - shadow.left) / (1 + Math.exp((-1.7 * beyond) / shadow.soft));
      }
      lit *= 1 - (vignette * ((a * focal) ** 2 + (b * focal) ** 2)) / ((widthPx / 2) ** 2 + (heightPx / 2) ** 2);
      const added =
        veil +
        (glare
          ? glare.adds *
            Math.exp(-(((x + middleX - glare.x) / glare.wide) ** 2) - ((y + middleY - glare.y) / glare.high) ** 2)
          : 0);
      const covered =
        finger && ((x + middleX - finger.x) / finger.wide) ** 2 + ((y + middleY - finger.y) / finger.high) ** 2 < 1;
      const at = (row * faceWidth + column) * 3;
      const next = at + faceWidth * 3;
      const to = (v * widthPx + u) * 3;
      const farX = 1 - fx;
      const farY = 1 - fy;
      for (let channel = 0; channel < 3; channel++) {
        const top = shares[at + channel]! * farX + shares[at + 3 + channel]! * fx;
        const low = shares[next + channel]! * farX + shares[next + 3 + channel]! * fx;
        const share = covered ? SKIN[channel]! : top * farY + low * fy;
        // A lamp's reflection has the lamp's colour, not the stock's.
        const own = across[channel]!;
        const both = otherLamp ? (lit * own + other * exposure * otherLamp.cast[channel]!) / bothShares : lit * own;
        light[to + channel] = share * both + added * own;
      }
    }
  };
  for (let v = 0; v < heightPx; v++) exposeRow(v);
  const soft = blurredPlanes(light, widthPx, heightPx, blurPx);
  const bytes = stored(soft, deviates, Math.abs(Math.round(1e4 * random())), { noise, contrast });
  return sharp(Buffer.from(bytes.buffer), { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .jpeg({ quality, chromaSubsampling: '4:2:0' })
    .toBuffer();
}

/** Light with a sensor's noise, as bytes: deviates are taken in turn, from one of them on. */
function stored(
  light: Float32Array,
  deviates: Float32Array,
  first: number,
  { noise, contrast }: Required<Pick<Snap, 'noise' | 'contrast'>>,
): Uint8ClampedArray {
  const bytes = new Uint8ClampedArray(light.length);
  let pick = first;
  for (let index = 0; index < light.length; index++) {
    pick += 7919;
    if (pick >= deviates.length) pick %= deviates.length;
    const noisy = light[index]! + deviates[pick]! * noise * Math.sqrt(Math.max(0.01, light[index]!));
    const held = noisy <= 0 ? 0 : noisy >= 1 ? 1 : noisy;
    bytes[index] = 255 * curved(ENCODED[(Math.sqrt(held) * STEPS + 0.5) | 0]!, contrast);
  }
  return bytes;
}

/** A photo as a reader gets it that opens its file. */
export async function opened(jpeg: Uint8Array): Promise<Snapped> {
  const { data, info } = await sharp(jpeg).raw().toBuffer({ resolveWithObject: true });
  return { data: new Uint8Array(data.buffer, data.byteOffset, data.length), width: info.width, height: info.height };
}

/** An S about the middle of the encoded value, as phones draw it: darker shadows, lighter lights. */
const curved = (value: number, strength: number): number =>
  strength === 0 ? value : value + strength * Math.sin(2 * Math.PI * value) * -0.16;

function blurredPlanes(from: Float32Array, width: number, height: number, sigma: number): Float32Array {
  const reach = Math.max(1, Math.ceil(2.5 * sigma));
  const shares = Float64Array.from({ length: reach + 1 }, (_, k) => Math.exp(-0.5 * (k / sigma) ** 2));
  const total = shares.reduce((sum, share) => sum + 2 * share, -shares[0]!);
  const law = shares.map((share) => share / total);
  const row = width * 3;
  const across = new Float32Array(from.length);
  const padded = new Float64Array(row + 6 * reach);
  for (let start = 0; start < from.length; start += row) {
    padded.set(from.subarray(start, start + row), 3 * reach);
    // Beyond its ends a row goes on as it ended.
    for (let at = 0; at < 3 * reach; at++) {
      padded[at] = from[start + (at % 3)]!;
      padded[3 * reach + row + at] = from[start + row - 3 + (at % 3)]!;
    }
    blurRow(padded, across.subarray(start, start + row), law);
  }
  const down = new Float32Array(from.length);
  const rowAt = (v: number): Float32Array => {
    const at = Math.max(0, Math.min(height - 1, v)) * row;
    return across.subarray(at, at + row);
  };
  for (let v = 0; v < height; v++) {
    const into = down.subarray(v * row, (v + 1) * row);
    for (let near = 0; near <= reach; near++)
      addRows(into, rowAt(v - near), rowAt(v + near), law[near]! / (near === 0 ? 2 : 1));
  }
  return down;
}

/** A row whose ends are drawn out, each value with its neighbours of the same channel. */
function blurRow(padded: Float64Array, into: Float32Array, law: Float64Array): void {
  const ends = 3 * (law.length - 1);
  for (let at = 0; at < into.length; at++) {
    let sum = law[0]! * padded[at + ends]!;
    for (let near = 1; near < law.length; near++)
      sum += law[near]! * (padded[at + ends - 3 * near]! + padded[at + ends + 3 * near]!);
    into[at] = sum;
  }
}

function addRows(into: Float32Array, one: Float32Array, other: Float32Array, share: number): void {
  for (let at = 0; at < into.length; at++) into[at]! += share * (one[at]! + other[at]!);
}
