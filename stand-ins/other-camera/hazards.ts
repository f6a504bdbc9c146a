import seedrandom from 'seedrandom';
import type { FaceOptions } from './face';
import { usualSnap, type Snap } from './shoot';

export interface Hazard {
  readonly name: string;
  /** How a face is painted and photographed, from a seed. */
  readonly face?: (random: () => number) => Partial<FaceOptions>;
  readonly snap?: (random: () => number, card: { widthMm: number; heightMm: number }) => Partial<Snap>;
}

const between = (random: () => number, low: number, high: number): number => low + (high - low) * random();

const overexposed: NonNullable<Hazard['snap']> = (random) => ({ exposure: 1.05 * 2 ** between(random, 0.3, 0.8) });
const phoneCurve: NonNullable<Hazard['snap']> = (random) => ({ contrast: between(random, 0.4, 1) });
/** Weak and broad, as a bright wall makes it. */
const veil: NonNullable<Hazard['snap']> = (random, { widthMm, heightMm }) => ({
  veil: between(random, 0, 0.002),
  glare: {
    x: widthMm * random(),
    y: heightMm * random(),
    wide: between(random, 25, 60),
    high: between(random, 25, 60),
    adds: between(random, 0.003, 0.015),
  },
});
const lampGlare: NonNullable<Hazard['snap']> = (random, { widthMm, heightMm }) => ({
  glare: {
    x: widthMm * random(),
    y: heightMm * random(),
    wide: between(random, 6, 16),
    high: between(random, 6, 16),
    adds: between(random, 0.05, 0.3),
  },
});
const hardShadow: NonNullable<Hazard['snap']> = (random) => ({
  shadow: {
    angle: 360 * random(),
    offset: between(random, -8, 8),
    left: between(random, 0.35, 0.7),
    soft: between(random, 0.2, 2),
  },
});
/** Daylight from one side, a warm lamp at the other. */
const twoLamps: NonNullable<Hazard['snap']> = (random) => {
  const away = 2 * Math.PI * random();
  const [x, y] = [Math.cos(away), Math.sin(away)];
  return {
    lamp: { x: 200 * x, y: 200 * y, z: between(random, 180, 320) },
    cast: [0.95, 0.98, 1],
    otherLamp: {
      x: -150 * x,
      y: -150 * y,
      z: between(random, 150, 260),
      cast: [1, 0.72, 0.36],
      share: between(random, 0.4, 1.2),
    },
  };
};
const smoke: NonNullable<Hazard['face']> = (random) => ({
  smoke: { depth: between(random, 0.08, 0.3), reachMm: between(random, 0.8, 2.5) },
});

/** What goes wrong with photos of cards in workshops, one at a time and two at once. */
export const HAZARDS: readonly Hazard[] = [
  { name: 'ordinary' },
  { name: 'phone’s contrast curve', snap: phoneCurve },
  { name: 'overexposed by 0.3 to 0.8 stop', snap: overexposed },
  { name: 'veil', snap: veil },
  { name: 'lamp’s glare', snap: lampGlare },
  { name: 'hard shadow', snap: hardShadow },
  { name: 'smoke round strong cells', face: smoke },
  {
    name: 'sheet bowed by 0.4 to 1.6 mm',
    snap: (random) => ({ bow: between(random, 0.4, 1.6) * (random() < 0.5 ? -1 : 1) }),
  },
  {
    name: 'knots, strong grain',
    face: (random) => ({ grain: between(random, 0.03, 0.06), knots: 2 + Math.floor(3 * random()) }),
  },
  { name: 'wet or oily stock', face: (random) => ({ stains: between(random, 0.1, 0.3) }) },
  {
    name: 'printed or painted grain',
    face: (random) => ({ printed: { takes: between(random, 0.05, 0.2), pitchMm: between(random, 0.8, 4) } }),
  },
  {
    name: 'lines that beat with the pixels',
    face: (random) => ({ ripple: between(random, 0.2, 0.5) }),
    snap: (random) => ({ widthPx: 1200 + Math.floor(400 * random()), heightPx: 1000, blurPx: 0.4 }),
  },
  { name: 'cut flush at its markers', face: () => ({ marginMm: 0 }) },
  { name: 'patterned table', face: () => ({ marginMm: 2, patterned: true }) },
  { name: 'tilted to 50 degrees', snap: (random) => ({ tilt: between(random, 30, 50) }) },
  { name: 'small and squeezed', snap: () => ({ widthPx: 1200, heightPx: 900, quality: 40 }) },
  { name: 'tungsten', snap: () => ({ cast: [1, 0.72, 0.36] }) },
  { name: 'two lamps of two colours', snap: twoLamps },
  {
    name: 'finger in the frame',
    snap: (random, { widthMm, heightMm }) => ({
      finger: { x: -6 + widthMm * random(), y: heightMm + 6, wide: 8, high: 12 },
    }),
  },
  { name: 'glare and smoke', snap: lampGlare, face: smoke },
  {
    name: 'overexposed in a hard shadow',
    snap: (random, card) => ({ ...hardShadow(random, card), ...overexposed(random, card) }),
  },
];

/** What a hazard makes of a seed: how the face is painted and how it is photographed. */
export function staged(hazard: Hazard, seed: string, card: { widthMm: number; heightMm: number }) {
  const random = seedrandom(`${hazard.name} ${seed}`);
  const face: FaceOptions = { seed, ...hazard.face?.(random) };
  const shot: Snap = { ...usualSnap(seed), ...hazard.snap?.(random, card) };
  return { face, shot };
}
