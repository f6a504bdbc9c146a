import { deliveredPowerW, type Machine } from '../machine/machine';
import { formatLength, formatPower, formatSpeed, plainNumber } from '../quantities/format';
import { factOf } from '../book/facts';
import { cutEnergy, cutThroughJPerMm } from '../stock/cutting';
import { familyOf } from '../stock/families';
import { thicknessOf } from '../stock/stock';
import type { Known } from './contract';
import { PLAIN_EXTRAS, type BurnSettings } from './settings';

/** Slower than this a cut chars; more passes are taken instead (common practice). */
export const LEAST_CUT_SPEED = 4;
const MOST_PASSES = 8;
/** Sheets thicker than this are cut with the focus in their middle (common practice). */
const MIDDLE_FROM_MM = 3;
/** Lowered further than this, many heads come near the work. */
export const LOWEST_MM = 3;

/** The fastest that is proposed for cuts: past it a head is slowed down by every corner. */
export const fastestCutMmPerS = ({ topSpeedXMmPerS, topSpeedYMmPerS }: Machine): number =>
  Math.min(topSpeedXMmPerS, topSpeedYMmPerS) * 0.5;

/** Cutting speeds are told to a whole mm/s, below ten to a tenth, and never faster than asked for. */
export const roundedCutSpeed = (mmPerS: number): number =>
  mmPerS < 10 ? Math.floor(mmPerS * 10) / 10 : Math.floor(mmPerS);

/** The passes that keep fine detail, where a card told: one where none did, or where what it told holds no longer. */
function passesForDetail(facts: Known['facts']): number {
  const kept = factOf(facts, 'passes');
  return kept && kept.stale.length === 0 ? kept.value.settings.passes : 1;
}

/**
 * As few passes at the cap as lay down so much line energy, are not so slow that they char, and keep fine detail where a card of passes told. Throws
 * RangeError `invalid pairing: …` for more than eight.
 */
export function cutPasses({ pairing: { machine, stock }, facts }: Known, lineJPerMm: number): number {
  const slow = Math.ceil((lineJPerMm * LEAST_CUT_SPEED) / deliveredPowerW(machine, machine.powerCap));
  const passes = Math.max(passesForDetail(facts), slow);
  if (passes > MOST_PASSES)
    throw new RangeError(
      `invalid pairing: ${formatLength(thicknessOf(stock).meanMm, machine.likedUnits, 3)} ${familyOf(stock.family).name.toLowerCase()} would take ${passes} passes; not with this machine`,
    );
  return passes;
}

/** What every cut starts from: the cap, air, and the focus by the sheet's thickness; with reasons under `path`. */
export function cutConstants(
  { pairing: { machine, stock }, facts }: Known,
  path: string,
): { readonly settings: Omit<BurnSettings, 'speedMmPerS' | 'passes'>; readonly reasons: Record<string, string> } {
  const thickness = thicknessOf(stock).meanMm;
  const usual = thickness > MIDDLE_FROM_MM ? -Math.min(LOWEST_MM, Math.round((thickness / 2) * 10) / 10) : 0;
  const kept = factOf(facts, 'cutFocus');
  // What is stepped is one burn for each pass: a card of one focus takes the usual one.
  const told = kept && kept.stale.length === 0 && kept.value.way !== 'stepped' ? kept.value : null;
  const middle = told?.focusOffsetMm ?? usual;
  return {
    settings: {
      powerFraction: machine.powerCap,
      intervalMm: 0.1,
      focusOffsetMm: middle,
      air: machine.airAssist === 'none' ? 'off' : 'on',
      direction: 'horizontal',
      bothWays: true,
      ...PLAIN_EXTRAS,
    },
    reasons: {
      [`${path}.powerFraction`]: `the machine’s cap of ${formatPower(machine.powerCap)}`,
      [`${path}.focusOffsetMm`]: told
        ? 'where a card of cut focus found the straightest edge'
        : middle < 0
          ? 'in the middle of the sheet: lowered by half its thickness'
          : 'on the face: thin sheet',
      [`${path}.air`]: 'on for every cut',
    },
  };
}

/** Why so many passes are proposed. */
export const passesReason = (passes: number, { pairing: { machine }, facts }: Known): string =>
  passes > 1 && passes === passesForDetail(facts)
    ? 'as many as kept fine detail on a card of passes'
    : passes > 1
      ? `fewer would be slower than ${formatSpeed(LEAST_CUT_SPEED, machine.likedUnits)} and char`
      : 'one is enough by the table';

/** A beam burns about so much wider than its spot (from memory, without a source). */
const KERF_PER_SPOT = 1.3;

/** What a cut takes, full width, and how sure that is. */
export interface KerfToGoBy {
  readonly xMm: number;
  readonly yMm: number;
  /** Standard uncertainty; null where nobody measured it. */
  readonly sigmaMm: number | null;
  /** Where it comes from, in words. */
  readonly origin: string;
}

const thousandth = (mm: number): number => Math.max(0, Math.round(mm * 1000) / 1000);

/** The kerf that was kept, stale or not; about what the lens's spot burns where nobody measured it. An axis that was not measured is as the other. */
export function kerfToGoBy({ pairing, facts }: Known): KerfToGoBy {
  const fact = factOf(facts, 'kerf');
  const [xMm, yMm] = [fact?.value.xMm ?? fact?.value.yMm, fact?.value.yMm ?? fact?.value.xMm];
  if (fact && xMm != null && yMm != null) {
    const origin =
      fact.stale.length === 0 ? 'the kerf that was kept' : `a kerf that is stale: ${fact.stale.join(', ')}`;
    return { xMm: thousandth(xMm), yMm: thousandth(yMm), sigmaMm: fact.sigma, origin };
  }
  const guessed = (spotMm: number): number => Math.round(spotMm * KERF_PER_SPOT * 100) / 100;
  return {
    xMm: guessed(pairing.lens.spotXMm),
    yMm: guessed(pairing.lens.spotYMm),
    sigmaMm: null,
    origin: 'about what this lens’ spot burns: nobody measured the kerf yet',
  };
}

/** A cut is proposed with this much more than what is expected to just come through. */
const MARGIN = 1.4;

/**
 * The cut that was kept, or where none was one at what should come through with margin, which is a prediction; with reasons under `cut`.
 * Throws RangeError for stock that this source does not cut, or not in this thickness.
 */
export function proposedCut({ pairing, facts }: Known): {
  readonly cut: BurnSettings;
  readonly reasons: Readonly<Record<string, string>>;
} {
  const { machine, stock } = pairing;
  const through = cutThroughJPerMm(machine, stock);
  const family = familyOf(stock.family);
  if (through === null) throw new RangeError(`invalid pairing: ${family.name} is not cut through by this source`);
  const kept = factOf(facts, 'cut');
  if (kept && kept.stale.length === 0) {
    const drops = `as kept: what drops ${plainNumber(100 * kept.value.certainty)} of 100 parts`;
    return { cut: kept.value.settings, reasons: { 'cut.speedMmPerS': drops } };
  }
  const fallen = factOf(facts, 'burnedThrough');
  const wanted = through * MARGIN;
  const { settings, reasons } = cutConstants({ pairing, facts }, 'cut');
  const passes = cutPasses({ pairing, facts }, wanted);
  const speed = Math.min(fastestCutMmPerS(machine), (deliveredPowerW(machine, machine.powerCap) * passes) / wanted);
  const liked = machine.likedUnits;
  const wentThrough =
    fallen && fallen.stale.length === 0
      ? `; lines of ${plainNumber(fallen.value.lineJPerMm, 2)} J/mm went through where they lay ${formatLength(fallen.value.intervalMm, liked, 2)} apart`
      : '';
  return {
    cut: { ...settings, passes, speedMmPerS: roundedCutSpeed(speed) },
    reasons: {
      ...reasons,
      'cut.speedMmPerS': `${plainNumber(wanted, 2)} J/mm: 1.4 times what comes through ${formatLength(thicknessOf(stock).meanMm, liked, 3)} of ${family.name.toLowerCase()}, ${cutEnergy(stock.family).origin}${wentThrough}`,
      'cut.passes': passesReason(passes, { pairing, facts }),
    },
  };
}
