import type { FactNow } from '../../core/book/facts';
import type { Conditions } from '../../core/book/conditions';
import { isOfNewBatch } from '../../core/book/staleness';
import { eyeAsk, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known, Pairing } from '../../core/card/contract';
import { mainBurn, type Layout } from '../../core/card/layout';
import { settingsText, type BurnSettings } from '../../core/card/settings';
import { isSpoiled, OUTCOME } from '../../core/card/usual-asks';
import {
  HOLDS_L,
  sheetVerdict,
  type PatchAtTimes,
  type SheetVerdict,
  type Verdict,
} from '../../core/fit/sheet-verdict';
import { SAME_WATTS } from '../../core/machine/diary';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatPower, plainNumber } from '../../core/quantities/format';
import { PATCH_STEPS } from './plan';

export const MATCH_FIELD = 'match';

export const SHEET_CHECK_ASKS: readonly Ask[] = [
  { field: 'tone', by: 'photo', measure: 'tone' },
  eyeAsk(MATCH_FIELD, 'Beside the old piece, how does it look?', [
    ['same', 's', 'the same'],
    ['darker', 'd', 'darker'],
    ['lighter', 'p', 'paler'],
  ]),
  OUTCOME,
];

/** Two patches of one photo are compared to no better than this. */
const LEAST_SIGMA_L = 0.5;
/** What a tone was kept with, where nothing was said of it. */
const USUAL_SIGMA_L = 1;

export interface CheckedPatch extends PatchAtTimes {
  readonly cellIndex: number;
}

type KeptSetting = Extract<FactNow, { name: 'engrave' }>;

export interface SheetCheckFinding extends BaseFinding {
  readonly power: number;
  /** The tone that the setting was kept with, and where it stands in the book; null where none was. */
  readonly wanted: { readonly lightness: number; readonly sigma: number; readonly at: Conditions } | null;
  readonly patches: readonly CheckedPatch[];
  readonly photo: SheetVerdict | null;
  readonly verdict: Verdict | null;
  readonly by: 'eye' | 'photo';
  /** What the machine gives now over what it gave when the setting was kept, were this the very same sheet; null where that is no other. */
  readonly source: { readonly share: number; readonly sigma: number } | null;
  /** Power that gives the tone on this sheet; null where it has to be found anew. */
  readonly powerFraction: number | null;
}

/** A shift of so many of its own sigmas is one. */
const CLEAR = 2;

/** A kept power further from the card's own than by this factor is another shade, and not what was checked and shifted since. */
const SAME_SHADE = 1.5;

/** Everything that a setting says but its power, as text. */
const withoutPower = ({ powerFraction: _power, ...rest }: BurnSettings): string => settingsText(rest);

/**
 * The setting in the book that burns as this card does and whose power is nearest: shades of one speed differ by power alone, and a setting may have
 * been shifted since the card was made.
 */
function settingOf(layout: Layout, power: number, facts: readonly FactNow[]): KeptSetting | null {
  const own = withoutPower(mainBurn(layout.cells[0]!).settings);
  const away = ({ value }: KeptSetting): number => Math.abs(Math.log(value.settings.powerFraction / power));
  const alike = facts.filter(
    (fact): fact is KeptSetting => fact.name === 'engrave' && withoutPower(fact.value.settings) === own,
  );
  const nearest = alike.sort((x, y) => away(x) - away(y) || (x.createdAt < y.createdAt ? 1 : -1))[0];
  return nearest && away(nearest) <= Math.log(SAME_SHADE) ? nearest : null;
}

const change = (times: number): string => `${times >= 1 ? '+' : '−'}${plainNumber(100 * Math.abs(times - 1), 2)} %`;
/** A chance in words: nothing that was measured is certain. */
export const percent = (chance: number): string =>
  chance > 0.99 ? 'over 99 %' : chance < 0.01 ? 'under 1 %' : `${Math.round(100 * chance)} %`;

/**
 * Whether a kept setting still gives its tone on this sheet, by a photo or beside the old piece by eye, whose word counts: it holds, its power has to be
 * shifted, or a grid has to be burned again, with the chance of each where a photo tells it.
 */
export function findSheetCheck(layout: Layout, seen: Seen, { pairing, facts }: Known): SheetCheckFinding {
  const power = mainBurn(layout.cells[PATCH_STEPS.indexOf(0)]!).settings.powerFraction;
  const kept = settingOf(layout, power, facts);
  const lightness = kept?.value.lightness ?? null;
  const wanted =
    kept && lightness !== null ? { lightness, sigma: kept.value.lightnessSigma ?? USUAL_SIGMA_L, at: kept.at } : null;
  const timesOf = (index: number): number => mainBurn(layout.cells[index]!).settings.powerFraction / power;
  const readings = new Map(seen.readings.map((reading) => [reading.cellIndex, reading]));
  const patches = layout.order.flatMap((cellIndex): CheckedPatch[] => {
    const reading = readings.get(cellIndex);
    if (!reading || isSpoiled(seen, cellIndex)) return [];
    const sigma = Math.max(LEAST_SIGMA_L, reading.lightnessSigma);
    return [{ cellIndex, times: timesOf(cellIndex), lightness: reading.lightness, sigma }];
  });
  const photo = wanted && sheetVerdict(patches, wanted);
  const none = {
    power,
    wanted,
    patches,
    photo,
    verdict: null,
    by: 'photo' as const,
    source: null,
    powerFraction: null,
    says: '',
  };

  const words = layout.order.flatMap((index) => {
    const word = wordOf(seen, MATCH_FIELD, index);
    return word === null ? [] : [{ index, word }];
  });
  if (words.length > 0) return byEye(words, timesOf, power, none);
  if (seen.readings.length === 0)
    return {
      ...none,
      missing: [
        'No photo of this card was read yet. Or lay it beside the old piece, and say of each patch how it looks.',
      ],
    };
  if (!wanted)
    return {
      ...none,
      missing: [
        kept
          ? 'This setting was kept without a tone: lay the card beside the old piece, and say of each patch how it looks.'
          : 'No engraving setting that burns like this card is in the book: there is nothing to check.',
      ],
    };
  if (!photo)
    return {
      ...none,
      missing: ['Too few patches were read: at least four at three powers tell how tone follows power.'],
    };
  const { verdict, chances, times } = photo;
  const found = { ...none, verdict, missing: [] };
  const chance = `(chance ${percent(chances[verdict])})`;
  const off = photo.lightness - wanted.lightness;
  if (verdict === 'holds')
    return {
      ...found,
      powerFraction: power,
      says: `Still holds: ${formatPower(power)} comes out ${plainNumber(Math.abs(off), 2)} L* ${off > 0 ? 'lighter' : 'darker'} than it was kept, which no eye tells apart ${chance}.`,
    };
  const shifted = times === null ? null : Math.round(power * times * 1000) / 1000;
  if (verdict === 'again' || shifted === null)
    return {
      ...found,
      verdict: 'again',
      says: `Start again: ${formatPower(power)} comes out ${plainNumber(Math.abs(off), 2)} L* ${off > 0 ? 'lighter' : 'darker'} than it was kept, and ${times === null ? 'tone hardly follows power here' : `no power that was tried brings it back`} ${chance}. Burn a grid.`,
    };
  if (shifted > pairing.machine.powerCap)
    return {
      ...found,
      verdict: 'again',
      says: `${formatPower(shifted)} would bring the tone back, which is above this machine’s cap: go slower, and burn a grid.`,
    };
  return {
    ...found,
    powerFraction: shifted,
    // Stock of another batch takes more or less by itself.
    source: kept && !isOfNewBatch(kept.stale) ? sourceBy(photo, power, pairing) : null,
    says: `Shift power by ${change(times!)}, to ${formatPower(shifted)}: as it stands it comes out ${plainNumber(Math.abs(off), 2)} L* ${off > 0 ? 'lighter' : 'darker'} than it was kept ${chance}.`,
  };
}

/** By how much less, or more, light the same tone comes of, where that is clear, and more than a meter repeats itself to. */
function sourceBy(
  { times, timesSigma }: SheetVerdict,
  power: number,
  { machine }: Pairing,
): SheetCheckFinding['source'] {
  if (times === null || timesSigma === null) return null;
  const share = deliveredPowerW(machine, power) / deliveredPowerW(machine, Math.min(1, power * times));
  const clear = Math.abs(Math.log(share)) > CLEAR * timesSigma && Math.abs(share - 1) > SAME_WATTS;
  return clear ? { share, sigma: share * timesSigma } : null;
}

function byEye(
  words: readonly { readonly index: number; readonly word: string }[],
  timesOf: (index: number) => number,
  power: number,
  none: Omit<SheetCheckFinding, 'missing'>,
): SheetCheckFinding {
  const eye = { ...none, by: 'eye' as const };
  const same = words.filter(({ word }) => word === 'same').map(({ index }) => timesOf(index));
  if (same.length === 0) {
    const sides = new Set(words.map(({ word }) => word));
    if (words.length < PATCH_STEPS.length)
      return { ...eye, missing: ['No patch was called the same yet: say of each how it looks beside the old piece.'] };
    return {
      ...eye,
      verdict: 'again',
      missing: [],
      says: `Start again: no patch looks the same${sides.size === 1 ? `, all are ${sides.has('darker') ? 'darker' : 'paler'}` : ''}. Burn a grid.`,
    };
  }
  const holds = same.some((times) => times === 1);
  // Powers that look the same lie around the one that is: their middle, by ratio.
  const times = holds ? 1 : Math.exp(same.reduce((sum, one) => sum + Math.log(one), 0) / same.length);
  const powerFraction = Math.round(power * times * 1000) / 1000;
  return {
    ...eye,
    verdict: holds ? 'holds' : 'shift',
    powerFraction,
    missing: [],
    says: holds
      ? `Still holds by eye: ${formatPower(power)} looks the same as the old piece.`
      : `Shift power by ${change(times)}, to ${formatPower(powerFraction)}: by eye that looks the same as the old piece.`,
  };
}

/** What is seen of a patch, in words. */
export const checkedWords = ({ times, lightness, sigma }: CheckedPatch): string =>
  `L* ${plainNumber(lightness, 3)} ± ${plainNumber(2 * sigma, 2)} at ${times === 1 ? 'the setting' : change(times)}`;

export const HOLDS_WORDS = `within ${HOLDS_L} L*`;
