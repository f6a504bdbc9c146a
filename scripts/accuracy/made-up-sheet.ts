import { bandOfWavelength } from '../../src/bench/bench';
import { randomFrom } from '../../src/bench/random';
import { SPECIMENS, specimenOf, type Specimen } from '../../src/bench/specimens';
import { rayleighRangeMm } from '../../src/core/beam/gaussian';
import { USUAL_BEAM } from '../../src/core/beam/usual-beam';
import type { Pairing } from '../../src/core/card/contract';
import { deliveredBy } from '../../src/core/card/energy';
import type { BurnSettings } from '../../src/core/card/settings';
import { lightnessOfLuminance, luminanceOfLightness } from '../../src/core/color/lab';
import { assessPairing } from '../../src/core/stock/assess';
import { FAMILIES, familyOf, type Family } from '../../src/core/stock/families';
import { RECTANGLE } from '../../src/core/stock/outline';
import type { Stock } from '../../src/core/stock/stock';
import { DEMO_MACHINES } from '../../src/demo/world';

/** What a fill comes out as. */
export interface Toned {
  readonly lightness: number;
  /** Amplitude of the light's ripple across its lines over its mean. */
  readonly visibility: number;
}

/** A sheet of a family under a machine, by formulas alone: neither bench nor camera stands between it and what is read. */
export interface MadeUpSheet {
  readonly pairing: Pairing;
  readonly toneOf: (settings: BurnSettings) => Toned;
  /** How far beside the focus that the operator set the beam is narrowest. */
  readonly waistMm: number;
  /** How much later than it is told the beam answers, and what the way back stands off at every speed. */
  readonly lagS: number;
  readonly standingMm: number;
}

/** Places across one pitch, or across a lone line, that light is worked out at. */
const PLACES = 48;
/** Lines further away than so many of their standard deviations lay nothing down. */
const REACH = 4;

const luminance = ([red, green, blue]: readonly [number, number, number]): number =>
  0.2126 * red + 0.7152 * green + 0.0722 * blue;

/** Luminance that a fluence leaves, J/mm²: none below the threshold, saturating above it, paler or greyer where it spoils. */
function luminanceAfter({ bare, burned, spoiled, threshold, scale, spoil, shape }: Specimen, taken: number): number {
  if (taken <= threshold) return luminance(bare);
  const mark = 1 - Math.exp(-(((taken - threshold) / scale) ** shape));
  const ruin = 0.8 * Math.min(1, Math.max(0, taken / spoil - 1));
  const marked = luminance(bare) * (1 - mark) + luminance(burned) * mark;
  return marked + (luminance(spoiled) - marked) * ruin;
}

const OF_SHEETS = { coating: '', coatingSide: 'none', adhesiveBacking: false, grain: 'none', blanks: null } as const;

/** The machines of the workshop that mark a stock well enough to be tried. */
export const machinesFor = (stock: Stock) =>
  Object.values(DEMO_MACHINES).filter(
    ({ machine }) => !assessPairing(machine, stock).some(({ severity }) => severity === 'stop'),
  );

/** Families that some machine of the workshop marks. */
export const MARKED_FAMILIES: readonly Family[] = FAMILIES.filter(
  ({ id }) => id in SPECIMENS && machinesFor(stockOf(id, 0, 0)).length > 0,
);

/** Stock of a family: one of its types, as the bench has it, give or take so many L*. */
export function stockOf(id: string, turn: number, paler: number): Stock {
  const family = familyOf(id);
  const type = family.types[turn % family.types.length]!;
  const { bare } = specimenOf({ family: id, type: type.name });
  return {
    ...OF_SHEETS,
    name: family.name,
    family: id,
    type: type.name,
    colour: type.bareColour ?? family.bareColour,
    bareLightness: Math.min(97, Math.max(8, lightnessOfLuminance(luminance(bare)) + paler)),
    nominalThicknessMm: 3,
    thicknessReadingsMm: [3.02, 2.98, 3],
    batch: `readings ${turn}`,
    sheetWidthMm: 300,
    sheetDepthMm: 200,
    outline: RECTANGLE,
  };
}

/** A made-up sheet of a family; the same for the same seed and turn. */
export function madeUpSheet({ id }: Family, seed: string, turn: number): MadeUpSheet {
  const random = randomFrom(`${seed} ${id} ${turn}`);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const stock = stockOf(id, turn, between(-3, 3));
  const machines = machinesFor(stock);
  const { machine, lenses } = machines[turn % machines.length]!;
  const [lens] = lenses;
  const [stronger, thinner, steeper] = [between(0.8, 1.25), between(0.85, 1.2), between(0.85, 1.15)];
  const known = specimenOf(stock);
  const specimen = { ...known, threshold: known.threshold * between(0.8, 1.25), shape: known.shape * steeper };
  const takes = specimen.takes[bandOfWavelength(machine.wavelengthNm)];
  const rayleighMm = rayleighRangeMm(
    lens.spotYMm * thinner,
    machine.wavelengthNm / 1e6,
    USUAL_BEAM[machine.sourceKind].beamQuality,
  );
  const waistMm = between(-0.4, 0.4) * rayleighMm;
  const pairing = { machine, lens, stock };
  const bare = luminance(specimen.bare);
  return {
    pairing,
    waistMm,
    lagS: between(0.2e-4, 1.5e-4),
    standingMm: between(-0.03, 0.03),
    toneOf: (settings) => {
      const { intervalMm, focusOffsetMm } = settings;
      const joulesPerMm = deliveredBy(settings, pairing).arealJPerMm2 * intervalMm * stronger;
      // A beam's 1/e² width is four of its standard deviations.
      const sigmaMm = ((lens.spotYMm * thinner) / 4) * Math.hypot(1, (focusOffsetMm - waistMm) / rayleighMm);
      const lines = Math.ceil((REACH * sigmaMm) / intervalMm);
      let [sum, cosine, sine] = [0, 0, 0];
      for (let place = 0; place < PLACES; place++) {
        const share = place / PLACES;
        let fluence = 0;
        for (let line = -lines; line <= lines + 1; line++)
          fluence += Math.exp(-((((line - share) * intervalMm) / sigmaMm) ** 2) / 2);
        const light = luminanceAfter(specimen, ((fluence * joulesPerMm) / (Math.sqrt(2 * Math.PI) * sigmaMm)) * takes);
        sum += light;
        cosine += light * Math.cos(2 * Math.PI * share);
        sine += light * Math.sin(2 * Math.PI * share);
      }
      return {
        lightness: lightnessOfLuminance((luminanceOfLightness(stock.bareLightness) * sum) / PLACES / bare),
        visibility: (2 * Math.hypot(cosine, sine)) / sum,
      };
    },
  };
}
