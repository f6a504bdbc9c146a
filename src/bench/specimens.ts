import { randomFrom } from './random';

/** What a made-up stock really does under a beam. Linear sRGB reflectances. Open to tests and accuracy reports only. */
export interface Specimen {
  readonly bare: readonly [number, number, number];
  readonly burned: readonly [number, number, number];
  /** What is left when it is burned too far: ash, pits, melt. */
  readonly spoiled: readonly [number, number, number];
  /** Fluence in J/mm² at which a mark begins, over which it saturates, and at which it spoils, for 10.6 µm light. */
  readonly threshold: number;
  readonly scale: number;
  readonly spoil: number;
  /** Steepness of the response above the threshold. */
  readonly shape: number;
  /** Share of blue, near and far infrared and ultraviolet light that is absorbed, relative to far infrared. */
  readonly takes: { readonly blue: number; readonly near: number; readonly far: number; readonly ultraviolet: number };
  /** The same of what lies under the face, where that takes another share. */
  readonly below?: Partial<Specimen['takes']>;
  readonly texture: Texture;
  /** How much smoke it leaves around a burn, 0..1. */
  readonly smoke: number;
  readonly solid: Solid;
}

/** How a stock is removed in depth. */
export interface Solid {
  /** Absorbed J to remove a mm³ under full air; null when this light only changes its face. */
  readonly perMm3: number | null;
  /** Absorbed J/mm² of one crossing below which nothing is removed. */
  readonly onset: number;
  /** How much more of that char from an earlier crossing asks for. */
  readonly char: number;
  /** Readiness to flare up, 0..1. */
  readonly resin: number;
  /** How far a sheet's middle may stand off its edges. */
  readonly bowMm: number;
}

export interface Texture {
  /** Relative amplitude of streaks along the grain, and of broad and fine mottling. */
  readonly streaks: number;
  readonly mottle: number;
  readonly fine: number;
  /** Streak width and mottle size in mm. */
  readonly streakMm: number;
  readonly mottleMm: number;
  /** Mean number of knots or dark flecks on a card's area. */
  readonly knots: number;
  /** Mean number of glue or resin pockets inside, for each 10 cm². */
  readonly pockets: number;
}

const wood = (streaks: number, knots: number, pockets: number): Texture => ({
  streaks,
  mottle: 0.018,
  fine: 0.035,
  streakMm: 0.9,
  mottleMm: 14,
  knots,
  pockets,
});
const plain: Texture = { streaks: 0, mottle: 0.012, fine: 0.015, streakMm: 1, mottleMm: 18, knots: 0, pockets: 0 };

const solid = (perMm3: number | null, onset: number, char: number, resin: number, bowMm: number): Solid => ({
  perMm3,
  onset,
  char,
  resin,
  bowMm,
});

const ORGANIC = { blue: 0.72, near: 0.12, far: 1, ultraviolet: 0.55 };

export const SPECIMENS: Readonly<Record<string, Specimen>> = {
  plywood: {
    bare: [0.69, 0.52, 0.3],
    burned: [0.035, 0.02, 0.012],
    spoiled: [0.1, 0.085, 0.075],
    threshold: 0.085,
    scale: 0.52,
    spoil: 2.3,
    shape: 1.25,
    takes: ORGANIC,
    texture: wood(0.04, 0.25, 0.3),
    smoke: 0.5,
    solid: solid(3.1, 0.6, 0.5, 0.5, 0.15),
  },
  hardwood: {
    bare: [0.57, 0.33, 0.15],
    burned: [0.035, 0.018, 0.008],
    spoiled: [0.09, 0.075, 0.06],
    threshold: 0.1,
    scale: 0.6,
    spoil: 2.6,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.78 },
    texture: wood(0.05, 0.2, 0.08),
    smoke: 0.5,
    solid: solid(4.15, 0.67, 0.6, 0.35, 0.1),
  },
  softwood: {
    bare: [0.73, 0.54, 0.3],
    burned: [0.045, 0.024, 0.013],
    spoiled: [0.11, 0.09, 0.08],
    threshold: 0.075,
    scale: 0.46,
    spoil: 2.1,
    shape: 1.3,
    takes: ORGANIC,
    texture: wood(0.08, 0.6, 0.2),
    smoke: 0.7,
    solid: solid(2.32, 0.53, 0.45, 1, 0.15),
  },
  mdf: {
    bare: [0.45, 0.28, 0.145],
    burned: [0.025, 0.015, 0.009],
    spoiled: [0.07, 0.06, 0.055],
    threshold: 0.09,
    scale: 0.55,
    spoil: 2.5,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.84 },
    texture: { ...plain, mottle: 0.02, fine: 0.05, mottleMm: 6 },
    smoke: 0.7,
    solid: solid(4.23, 0.67, 0.5, 0.3, 0.08),
  },
  cork: {
    bare: [0.54, 0.32, 0.15],
    burned: [0.03, 0.016, 0.007],
    spoiled: [0.08, 0.07, 0.06],
    threshold: 0.055,
    scale: 0.34,
    spoil: 1.5,
    shape: 1.1,
    takes: { ...ORGANIC, blue: 0.85 },
    texture: { ...plain, mottle: 0.07, fine: 0.07, mottleMm: 2.4, knots: 1.5 },
    smoke: 0.4,
    solid: solid(1.55, 0.33, 0.7, 0.6, 0.1),
  },
  'acrylic-cast': {
    bare: [0.028, 0.042, 0.045],
    burned: [0.6, 0.65, 0.65],
    spoiled: [0.3, 0.32, 0.32],
    threshold: 0.06,
    scale: 0.34,
    spoil: 1.5,
    shape: 1.2,
    takes: { blue: 0.35, near: 0.01, far: 1, ultraviolet: 0.8 },
    texture: { ...plain, mottle: 0.008, fine: 0.01 },
    smoke: 0.1,
    solid: solid(3.66, 0.4, 0.1, 0.4, 0.05),
  },
  'acrylic-extruded': {
    bare: [0.03, 0.041, 0.048],
    burned: [0.42, 0.46, 0.48],
    spoiled: [0.2, 0.22, 0.23],
    threshold: 0.06,
    scale: 0.3,
    spoil: 1.2,
    shape: 1.1,
    takes: { blue: 0.35, near: 0.01, far: 1, ultraviolet: 0.8 },
    texture: { ...plain, mottle: 0.008, fine: 0.01 },
    smoke: 0.1,
    solid: solid(3.24, 0.4, 0.1, 0.4, 0.05),
  },
  'leather-vegetable': {
    bare: [0.58, 0.35, 0.19],
    burned: [0.024, 0.011, 0.006],
    spoiled: [0.05, 0.04, 0.035],
    threshold: 0.045,
    scale: 0.28,
    spoil: 1.3,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.86 },
    texture: { ...plain, mottle: 0.03, fine: 0.05, mottleMm: 5 },
    smoke: 0.5,
    solid: solid(2.68, 0.47, 0.6, 0.2, 0.3),
  },
  leatherette: {
    bare: [0.069, 0.042, 0.03],
    burned: [0.53, 0.4, 0.27],
    spoiled: [0.3, 0.22, 0.15],
    threshold: 0.035,
    scale: 0.16,
    spoil: 0.75,
    shape: 1.4,
    takes: { ...ORGANIC, blue: 0.8, near: 0.9 },
    below: { near: 0.12 },
    texture: { ...plain, mottle: 0.02, fine: 0.05, mottleMm: 2 },
    smoke: 0.2,
    solid: solid(2.04, 0.33, 0.4, 0.3, 0.15),
  },
  felt: {
    bare: [0.48, 0.45, 0.38],
    burned: [0.045, 0.03, 0.02],
    spoiled: [0.03, 0.025, 0.02],
    threshold: 0.024,
    scale: 0.13,
    spoil: 0.6,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.7 },
    texture: { ...plain, mottle: 0.04, fine: 0.1, mottleMm: 1.5 },
    smoke: 0.3,
    solid: solid(1.13, 0.2, 0.3, 0.3, 0.3),
  },
  cloth: {
    bare: [0.69, 0.61, 0.46],
    burned: [0.11, 0.062, 0.027],
    spoiled: [0.05, 0.04, 0.03],
    threshold: 0.018,
    scale: 0.1,
    spoil: 0.42,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.55 },
    texture: { ...plain, streaks: 0.04, fine: 0.09, streakMm: 0.5 },
    smoke: 0.2,
    solid: solid(1.2, 0.17, 0.2, 0.4, 0.2),
  },
  slate: {
    bare: [0.071, 0.083, 0.096],
    burned: [0.47, 0.49, 0.48],
    spoiled: [0.33, 0.33, 0.32],
    threshold: 0.1,
    scale: 0.62,
    spoil: 3.2,
    shape: 1.1,
    takes: { blue: 0.68, near: 0.8, far: 1, ultraviolet: 0.5 },
    texture: { ...plain, mottle: 0.045, fine: 0.09, mottleMm: 3.5 },
    smoke: 0,
    solid: solid(null, 0, 0, 0, 0),
  },
  tile: {
    bare: [0.77, 0.765, 0.72],
    burned: [0.018, 0.015, 0.013],
    spoiled: [0.2, 0.19, 0.18],
    threshold: 0.8,
    scale: 3.4,
    spoil: 17,
    shape: 1.6,
    takes: { blue: 0.9, near: 0.5, far: 1, ultraviolet: 0.4 },
    texture: { ...plain, mottle: 0.004, fine: 0.006 },
    smoke: 0.05,
    solid: solid(null, 0, 0, 0, 0),
  },
  card: {
    bare: [0.61, 0.54, 0.41],
    burned: [0.07, 0.037, 0.014],
    spoiled: [0.03, 0.025, 0.02],
    threshold: 0.018,
    scale: 0.09,
    spoil: 0.38,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.6 },
    texture: { ...plain, mottle: 0.015, fine: 0.03 },
    smoke: 0.3,
    solid: solid(1.34, 0.17, 0.2, 0.6, 0.2),
  },
  rubber: {
    bare: [0.35, 0.32, 0.31],
    burned: [0.026, 0.023, 0.022],
    spoiled: [0.05, 0.045, 0.04],
    threshold: 0.06,
    scale: 0.45,
    spoil: 2.8,
    shape: 1.1,
    takes: { ...ORGANIC, near: 0.3 },
    texture: plain,
    smoke: 0.8,
    solid: solid(3.8, 0.53, 0.8, 0.4, 0.05),
  },
  'two-layer': {
    bare: [0.019, 0.029, 0.024],
    burned: [0.79, 0.77, 0.7],
    spoiled: [0.4, 0.36, 0.3],
    threshold: 0.05,
    scale: 0.17,
    spoil: 0.85,
    shape: 2,
    takes: { blue: 0.6, near: 0.9, far: 1, ultraviolet: 0.8 },
    below: { near: 0.1 },
    texture: { ...plain, mottle: 0.006, fine: 0.01 },
    smoke: 0.1,
    solid: solid(3.45, 0.4, 0.15, 0.4, 0.05),
  },
  'light-wood': {
    bare: [0.75, 0.61, 0.38],
    burned: [0.045, 0.026, 0.014],
    spoiled: [0.12, 0.1, 0.09],
    threshold: 0.065,
    scale: 0.4,
    spoil: 1.8,
    shape: 1.25,
    takes: ORGANIC,
    texture: wood(0.03, 0.1, 0),
    smoke: 0.5,
    solid: solid(1.6, 0.45, 0.4, 0.8, 0.2),
  },
  bamboo: {
    bare: [0.71, 0.53, 0.26],
    burned: [0.04, 0.022, 0.01],
    spoiled: [0.1, 0.08, 0.07],
    threshold: 0.095,
    scale: 0.56,
    spoil: 2.5,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.78 },
    texture: wood(0.06, 0, 0.3),
    smoke: 0.5,
    solid: solid(4.1, 0.65, 0.55, 0.4, 0.08),
  },
  veneer: {
    bare: [0.61, 0.39, 0.18],
    burned: [0.035, 0.019, 0.009],
    spoiled: [0.09, 0.075, 0.06],
    threshold: 0.075,
    scale: 0.45,
    spoil: 1.7,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.78 },
    texture: wood(0.06, 0.2, 0),
    smoke: 0.4,
    solid: solid(3.2, 0.5, 0.5, 0.5, 0.3),
  },
  corrugated: {
    bare: [0.48, 0.3, 0.13],
    burned: [0.07, 0.037, 0.014],
    spoiled: [0.03, 0.025, 0.02],
    threshold: 0.018,
    scale: 0.1,
    spoil: 0.42,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.65 },
    texture: { ...plain, streaks: 0.03, fine: 0.03, streakMm: 3.5 },
    smoke: 0.3,
    solid: solid(0.7, 0.17, 0.2, 0.7, 0.4),
  },
  fleece: {
    bare: [0.27, 0.32, 0.37],
    burned: [0.07, 0.09, 0.11],
    spoiled: [0.03, 0.03, 0.035],
    threshold: 0.02,
    scale: 0.09,
    spoil: 0.3,
    shape: 1.2,
    takes: { ...ORGANIC, blue: 0.5 },
    texture: { ...plain, mottle: 0.04, fine: 0.1, mottleMm: 1.5 },
    smoke: 0.2,
    solid: solid(1, 0.15, 0.05, 0.6, 0.4),
  },
  'solid-surface': {
    bare: [0.73, 0.74, 0.7],
    burned: [0.88, 0.88, 0.86],
    spoiled: [0.5, 0.45, 0.4],
    threshold: 0.25,
    scale: 1.1,
    spoil: 5.5,
    shape: 1.2,
    takes: { blue: 0.3, near: 0.3, far: 1, ultraviolet: 0.5 },
    texture: { ...plain, fine: 0.02 },
    smoke: 0.1,
    solid: solid(6, 0.7, 0.05, 0.1, 0.02),
  },
  'light-stone': {
    bare: [0.62, 0.58, 0.52],
    burned: [0.86, 0.85, 0.82],
    spoiled: [0.7, 0.69, 0.66],
    threshold: 0.4,
    scale: 1.5,
    spoil: 6.5,
    shape: 1.1,
    takes: { blue: 0.25, near: 0.5, far: 1, ultraviolet: 0.5 },
    texture: { ...plain, mottle: 0.05, fine: 0.04, mottleMm: 6 },
    smoke: 0,
    solid: solid(null, 0, 0, 0, 0),
  },
  glass: {
    bare: [0.1, 0.13, 0.145],
    burned: [0.62, 0.67, 0.69],
    spoiled: [0.4, 0.43, 0.44],
    threshold: 0.5,
    scale: 1.3,
    spoil: 4.6,
    shape: 1.4,
    takes: { blue: 0.02, near: 0.03, far: 1, ultraviolet: 0.6 },
    texture: { ...plain, mottle: 0.006, fine: 0.008 },
    smoke: 0,
    solid: solid(null, 0, 0, 0, 0),
  },
  'coated-clear': {
    bare: [0.025, 0.028, 0.033],
    burned: [0.55, 0.58, 0.6],
    spoiled: [0.3, 0.31, 0.32],
    threshold: 0.08,
    scale: 0.3,
    spoil: 1.4,
    shape: 1.6,
    takes: { blue: 0.6, near: 0.5, far: 1, ultraviolet: 0.8 },
    texture: { ...plain, mottle: 0.006, fine: 0.01 },
    smoke: 0.1,
    solid: solid(3.6, 0.4, 0.1, 0.4, 0.05),
  },
  foam: {
    bare: [0.15, 0.16, 0.17],
    burned: [0.03, 0.033, 0.037],
    spoiled: [0.02, 0.02, 0.02],
    threshold: 0.02,
    scale: 0.12,
    spoil: 0.45,
    shape: 1.1,
    takes: { ...ORGANIC, blue: 0.5 },
    texture: { ...plain, mottle: 0.02, fine: 0.08, mottleMm: 1 },
    smoke: 0.3,
    solid: solid(0.4, 0.1, 0.1, 0.9, 0.3),
  },
};

/** Faces of types that are not their family's: which way they mark, and between which colours. */
const OF_TYPE: Readonly<Record<string, Pick<Specimen, 'bare' | 'burned' | 'spoiled'>>> = {
  'two-layer, acrylic based, light over dark': {
    bare: [0.79, 0.77, 0.7],
    burned: [0.019, 0.029, 0.024],
    spoiled: [0.06, 0.06, 0.05],
  },
  'leatherette, light over dark core': {
    bare: [0.46, 0.32, 0.18],
    burned: [0.017, 0.011, 0.008],
    spoiled: [0.03, 0.025, 0.02],
  },
  'cloth, denim': { bare: [0.042, 0.068, 0.125], burned: [0.45, 0.5, 0.6], spoiled: [0.05, 0.04, 0.03] },
  'leather-vegetable, dyed dark': {
    bare: [0.044, 0.023, 0.014],
    burned: [0.26, 0.16, 0.09],
    spoiled: [0.02, 0.015, 0.01],
  },
  'solid-surface, dark': { bare: [0.042, 0.045, 0.048], burned: [0.27, 0.28, 0.29], spoiled: [0.15, 0.14, 0.13] },
};

/** Batches that the numbers above were taken from; a sheet of no named batch is of one of them. */
const SAMPLED: ReadonlySet<string> = new Set(['', 'SG-14', 'A-3', 'hide 7', 'M-22']);
/** Sheets of other batches take more or less light, by so much as the standard deviation of a logarithm (from memory, without a source). */
const BATCHES_DIFFER = 0.06;

interface SheetName {
  readonly family: string;
  readonly type: string;
  readonly batch?: string;
}

/** How many times the light a sheet takes that the batch did which the numbers are of. */
export function takenBy({ family, type, batch = '' }: SheetName): number {
  if (SAMPLED.has(batch)) return 1;
  const random = randomFrom(`batch ${family} ${type} ${batch}`);
  return Math.exp(BATCHES_DIFFER * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()));
}

/** What a stock is made of. Throws RangeError for a family that the bench has none of. */
export function specimenOf(sheet: SheetName): Specimen {
  const { family, type } = sheet;
  const specimen = SPECIMENS[family];
  if (!specimen) throw new RangeError(`unknown specimen: ${family}`);
  const times = takenBy(sheet);
  const taken = <Takes extends Partial<Specimen['takes']>>(takes: Takes): Takes =>
    Object.fromEntries(Object.entries(takes).map(([band, share]) => [band, share * times])) as Takes;
  return {
    ...specimen,
    ...OF_TYPE[`${family}, ${type}`],
    takes: taken(specimen.takes),
    ...(specimen.below && { below: taken(specimen.below) }),
  };
}
