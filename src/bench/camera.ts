import { NoiseTable, randomFrom } from './random';
import type { Piece } from './piece';

/** How a photo is taken. Angles in degrees. */
export interface Shot {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Angle between the camera's axis and the sheet's normal, and the direction it leans in. */
  readonly tiltDegrees: number;
  readonly leanDegrees: number;
  readonly rollDegrees: number;
  /** Share of the picture's height that the card takes. */
  readonly fill: number;
  /** Light at the dim end of the card over light at the bright end. */
  readonly lightFall: number;
  readonly lightDegrees: number;
  /** Gains of the red, green and blue channels. */
  readonly cast: readonly [number, number, number];
  /** Share of light lost in the picture's corners. */
  readonly vignette: number;
  /** Standard deviation of the blur by lens and focus, in photo pixels: nearer, the same lens shows finer things. */
  readonly blurPx: number;
  /** Noise of a mid tone, relative. */
  readonly noise: number;
  /** Radial distortion at the picture's corner, relative. */
  readonly distortion: number;
  readonly exposure: number;
  /** What the operator taps on for the camera's meter. */
  readonly metersOn: 'piece' | 'around';
  /** How many stops less light than its meter says the camera was asked for. */
  readonly stopsLess: number;
  readonly seed: string;
}

/** A shot as an operator would take it: a little crooked, under one lamp; everything from the seed. */
export function casualShot(
  seed: string,
  limits: { tiltDegrees: number; lightFall: number } = { tiltDegrees: 25, lightFall: 0.5 },
): Shot {
  const random = randomFrom(`shot ${seed}`);
  const wide = random() < 0.5;
  return {
    widthPx: wide ? 4000 : 3648,
    heightPx: wide ? 3000 : 2736,
    tiltDegrees: limits.tiltDegrees * random(),
    leanDegrees: 360 * random(),
    rollDegrees: 16 * random() - 8,
    fill: 0.62 + 0.16 * random(),
    lightFall: limits.lightFall + (1 - limits.lightFall) * random(),
    lightDegrees: 360 * random(),
    cast: [1 + 0.16 * random(), 1, 0.8 + 0.25 * random()],
    vignette: 0.1 + 0.2 * random(),
    blurPx: 0.4 + 0.6 * random(),
    noise: 0.01 + 0.02 * random(),
    distortion: 0.006 * (random() - 0.5),
    exposure: 0.5 + 0.2 * random(),
    metersOn: 'piece',
    stopsLess: 0,
    seed,
  };
}

/** A shot of a piece on a light table: from further away, so that open light is seen all around it, and metered on that light. */
export function lightTableShot(seed: string): Shot {
  const random = randomFrom(`on the light table ${seed}`);
  const shot = casualShot(seed, { tiltDegrees: 15, lightFall: 0.8 });
  return { ...shot, fill: 0.48 + 0.12 * random(), metersOn: 'around' };
}

/** The same shot in the same light with so many stops less, by a hand that moved a little. */
export function exposedLess(shot: Shot, stops: number): Shot {
  if (stops === 0) return shot;
  const random = randomFrom(`again ${shot.seed}`);
  return {
    ...shot,
    exposure: shot.exposure / 2 ** stops,
    stopsLess: stops,
    tiltDegrees: shot.tiltDegrees + 2 * random(),
    rollDegrees: shot.rollDegrees + 3 * (random() - 0.5),
    fill: shot.fill * (1 - 0.04 * random()),
    seed: `${shot.seed} again`,
  };
}

export interface RawPhoto {
  readonly data: Uint8Array;
  readonly width: number;
  readonly height: number;
  /** By how much light on the piece was multiplied: what the camera calls its exposure. */
  readonly gain: number;
  /** What the operator asked for: as `Shot` has it. */
  readonly stopsLess: number;
  /** Place in the photo of a point in card millimetres. For tests and accuracy reports only. */
  readonly placeOf: (xMm: number, yMm: number) => { x: number; y: number };
}

/** No phone focuses nearer than where its picture is so wide (from memory): a small card takes a part of it. */
const NARROWEST_MM = 75;
/** Standard deviation of an even spread over a pixel's width. */
const PIXEL_SIGMA = 1 / Math.sqrt(12);

const ENCODED = Uint8Array.from({ length: 4096 }, (_, step) => {
  const linear = (step / 4095) ** 2;
  return Math.round(255 * (linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055));
});

/** Takes a picture of a piece: perspective, lens falloff and distortion, lamp, cast, blur, noise, 8-bit sRGB. */
export function photograph(piece: Piece, shot: Shot): RawPhoto {
  const { widthPx, heightPx } = shot;
  const pose = poseOf(piece, shot);
  const gain = exposureGain(piece, shot);
  const scene: Scene = {
    piece,
    shot,
    // A pixel sees all of its own width.
    face: blurred(piece, (Math.hypot(shot.blurPx, PIXEL_SIGMA) / pose.pxPerMm) * piece.pxPerMm),
    gains: shot.cast.map((cast) => cast * gain) as [number, number, number],
    back: pose.back as unknown as Scene['back'],
  };
  const noise = new NoiseTable(randomFrom(`noise ${shot.seed}`));
  const data = new Uint8Array(widthPx * heightPx * 3);
  const deviations = new Float32Array(widthPx * 3);
  const exposed = new Float64Array(widthPx * 3);
  for (let v = 0; v < heightPx; v++) {
    exposeRow(scene, v, exposed);
    noise.fill(deviations);
    develop(exposed, shot.noise, deviations, data, v * widthPx * 3);
  }
  return { data, width: widthPx, height: heightPx, gain, stopsLess: shot.stopsLess, placeOf: pose.placeOf };
}

interface Scene {
  readonly piece: Piece;
  readonly shot: Shot;
  /** The piece's face as sharp as the lens shows it. */
  readonly face: Float32Array;
  /** Of the channels: cast and exposure. */
  readonly gains: readonly [number, number, number];
  /** From a pixel to the sheet's plane. */
  readonly back: readonly [number, number, number, number, number, number, number, number, number];
}

/** The light that falls on a row of the sensor. One row at a time: the runtime makes better code of a short loop. */
function exposeRow({ piece, shot, face, gains, back }: Scene, v: number, exposed: Float64Array): void {
  const { width, height, pxPerMm } = piece;
  const { widthPx, heightPx, distortion, vignette, lightFall } = shot;
  const [redAround, greenAround, blueAround] = piece.around;
  const [gainRed, gainGreen, gainBlue] = gains;
  const [xx, xy, x1, yx, yy, y1, wx, wy, w1] = back;
  const lampX = Math.cos((shot.lightDegrees * Math.PI) / 180);
  const lampY = Math.sin((shot.lightDegrees * Math.PI) / 180);
  const lampSize = (width + height) / 2 / pxPerMm - 2 * piece.marginMm;
  const halfWidthMm = width / 2 / pxPerMm;
  const halfHeightMm = height / 2 / pxPerMm;
  const cornerSquared = (widthPx / 2) ** 2 + (heightPx / 2) ** 2;
  const middleLight = (1 + lightFall) / 2;
  const lastX = width - 1;
  const lastY = height - 1;
  const row = width * 3;
  const ry = v + 0.5 - heightPx / 2;
  for (let u = 0, at = 0; u < widthPx; u++, at += 3) {
    const rx = u + 0.5 - widthPx / 2;
    const radius = (rx * rx + ry * ry) / cornerSquared;
    const bend = 1 + distortion * radius;
    // Ray through the pixel onto the sheet's plane, in mm from the card's centre.
    const dx = rx * bend;
    const dy = ry * bend;
    const w = wx * dx + wy * dy + w1;
    const xMm = (xx * dx + xy * dy + x1) / w;
    const yMm = (yx * dx + yy * dy + y1) / w;
    const px = (xMm + halfWidthMm) * pxPerMm - 0.5;
    const py = (yMm + halfHeightMm) * pxPerMm - 0.5;
    const along = (xMm * lampX + yMm * lampY) / lampSize;
    // Linear fall with a little bow, from 1 at the bright end of the card to lightFall at the dim end.
    const fall = along < -0.8 ? -0.8 : along > 0.8 ? 0.8 : along;
    const lit = middleLight - (1 - lightFall) * fall * (1 - 0.15 * fall);
    const light = lit * (1 - vignette * radius * (1.4 - 0.4 * radius));
    let red = redAround;
    let green = greenAround;
    let blue = blueAround;
    if (px >= 0 && py >= 0 && px < lastX && py < lastY) {
      const x0 = Math.trunc(px);
      const y0 = Math.trunc(py);
      const fx = px - x0;
      const fy = py - y0;
      const p = y0 * row + x0 * 3;
      const q = p + row;
      const a = (1 - fx) * (1 - fy);
      const b = fx * (1 - fy);
      const c = (1 - fx) * fy;
      const d = fx * fy;
      red = face[p]! * a + face[p + 3]! * b + face[q]! * c + face[q + 3]! * d;
      green = face[p + 1]! * a + face[p + 4]! * b + face[q + 1]! * c + face[q + 4]! * d;
      blue = face[p + 2]! * a + face[p + 5]! * b + face[q + 2]! * c + face[q + 5]! * d;
    }
    exposed[at] = red * light * gainRed;
    exposed[at + 1] = green * light * gainGreen;
    exposed[at + 2] = blue * light * gainBlue;
  }
}

/** Photon noise grows with the root of the light; a small floor stands for the electronics. */
function develop(linear: Float64Array, amount: number, deviations: Float32Array, out: Uint8Array, from: number): void {
  for (let at = 0; at < linear.length; at++) {
    const light = linear[at]!;
    const noisy = light + deviations[at]! * amount * (0.03 + Math.sqrt(light * 0.2));
    const within = noisy <= 0 ? 0 : noisy >= 1 ? 1 : noisy;
    out[from + at] = ENCODED[(Math.sqrt(within) * 4095 + 0.5) | 0]!;
  }
}

/** Brings the brightest of bare and burned stock, or what is around it, to the wanted exposure at the bright end. */
function exposureGain(piece: Piece, shot: Shot): number {
  let brightest = 0;
  const step = 7 * 3;
  const sample: number[] = [];
  for (let index = 1; index < piece.after.length; index += step * 11) sample.push(piece.after[index]!);
  sample.sort((a, b) => a - b);
  brightest = shot.metersOn === 'around' ? Math.max(...piece.around) : sample[Math.floor(sample.length * 0.98)]!;
  return shot.exposure / Math.max(0.05, brightest) / Math.max(...shot.cast);
}

/** Plane-to-image map of a pinhole camera that looks at the piece's centre, and its inverse. */
function poseOf(piece: Piece, shot: Shot): { back: number[]; pxPerMm: number; placeOf: RawPhoto['placeOf'] } {
  const radians = Math.PI / 180;
  const tilt = shot.tiltDegrees * radians;
  const lean = shot.leanDegrees * radians;
  const roll = shot.rollDegrees * radians;
  const focal = shot.widthPx * 0.85;
  const cardHeightMm = piece.height / piece.pxPerMm - 2 * piece.marginMm;
  const cardWidthMm = piece.width / piece.pxPerMm - 2 * piece.marginMm;
  const scale = Math.min(
    (shot.heightPx * shot.fill) / cardHeightMm,
    (shot.widthPx * shot.fill) / cardWidthMm,
    shot.widthPx / NARROWEST_MM,
  );
  const distance = focal / scale;
  // Rotation of the plane about the axis in it that is square to the lean, then the roll of the camera.
  const ax = -Math.sin(lean);
  const ay = Math.cos(lean);
  const c = Math.cos(tilt);
  const s = Math.sin(tilt);
  const r00 = c + ax * ax * (1 - c);
  const r01 = ax * ay * (1 - c);
  const r11 = c + ay * ay * (1 - c);
  const r20 = -ay * s;
  const r21 = ax * s;
  const cr = Math.cos(roll);
  const sr = Math.sin(roll);
  const h = [
    focal * (cr * r00 - sr * r01),
    focal * (cr * r01 - sr * r11),
    0,
    focal * (sr * r00 + cr * r01),
    focal * (sr * r01 + cr * r11),
    0,
    r20,
    r21,
    distance,
  ];
  const cornerSquared = (shot.widthPx / 2) ** 2 + (shot.heightPx / 2) ** 2;
  const placeOf = (xMm: number, yMm: number): { x: number; y: number } => {
    const x = xMm - cardWidthMm / 2;
    const y = yMm - cardHeightMm / 2;
    const w = h[6]! * x + h[7]! * y + h[8]!;
    const ux = (h[0]! * x + h[1]! * y) / w;
    const uy = (h[3]! * x + h[4]! * y) / w;
    let px = ux;
    let py = uy;
    for (let turn = 0; turn < 5; turn++) {
      const bend = 1 + (shot.distortion * (px * px + py * py)) / cornerSquared;
      px = ux / bend;
      py = uy / bend;
    }
    return { x: px + shot.widthPx / 2 - 0.5, y: py + shot.heightPx / 2 - 0.5 };
  };
  return { back: invert(h), pxPerMm: scale, placeOf };
}

function invert(m: readonly number[]): number[] {
  const [a, b, c, d, e, f, g, h, i] = m as [number, number, number, number, number, number, number, number, number];
  return [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
}

/** The face after a Gaussian blur, three channels; beyond its edge it goes on as it is there. */
function blurred({ width, height, after }: Piece, sigmaPx: number): Float32Array {
  const reach = Math.max(1, Math.ceil(2.5 * sigmaPx));
  const kernel = Float32Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-0.5 * ((k - reach) / sigmaPx) ** 2));
  const total = kernel.reduce((sum, value) => sum + value, 0);
  for (let k = 0; k < kernel.length; k++) kernel[k]! /= total;
  const row = width * 3;
  const across = new Float32Array(after.length);
  // Each row with its ends repeated, so that no place asks whether it is near one.
  const padded = new Float32Array(row + 6 * reach);
  const starts = new Int32Array(kernel.length);
  for (let k = 0; k < kernel.length; k++) starts[k] = 3 * k;
  for (let y = 0; y < height; y++) {
    padded.set(after.subarray(y * row, (y + 1) * row), 3 * reach);
    for (let k = 0; k < 3 * reach; k++) {
      padded[k] = after[y * row + (k % 3)]!;
      padded[row + 3 * reach + k] = after[(y + 1) * row - 3 + (k % 3)]!;
    }
    weigh(padded, starts, kernel, across, y * row, row);
  }
  // Whole rows at a time: a column's own values lie far from each other.
  const out = new Float32Array(after.length);
  for (let y = 0; y < height; y++) {
    for (let k = 0; k < kernel.length; k++) starts[k] = Math.min(height - 1, Math.max(0, y + k - reach)) * row;
    weigh(across, starts, kernel, out, y * row, row);
  }
  return out;
}

/** Sums of values some steps apart times their weights: of each of `count` places from each of `starts` on, into `out` from `to` on. */
function weigh(
  values: Float32Array,
  starts: Int32Array,
  weights: Float32Array,
  out: Float32Array,
  to: number,
  count: number,
): void {
  // Four places at a time: the look-ups of a tap are then a small part of its work.
  let at = 0;
  for (; at + 3 < count; at += 4) {
    let first = 0;
    let second = 0;
    let third = 0;
    let fourth = 0;
    for (let k = 0; k < weights.length; k++) {
      const from = starts[k]! + at;
      const weight = weights[k]!;
      first += values[from]! * weight;
      second += values[from + 1]! * weight;
      third += values[from + 2]! * weight;
      fourth += values[from + 3]! * weight;
    }
    out[to + at] = first;
    out[to + at + 1] = second;
    out[to + at + 2] = third;
    out[to + at + 3] = fourth;
  }
  for (; at < count; at++) {
    let sum = 0;
    for (let k = 0; k < weights.length; k++) sum += values[starts[k]! + at]! * weights[k]!;
    out[to + at] = sum;
  }
}
