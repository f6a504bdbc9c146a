import { factOf, type FactNow } from '../../core/book/facts';
import { wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Layout } from '../../core/card/layout';
import type { BurnSettings } from '../../core/card/settings';
import { DROP } from '../../core/card/usual-asks';
import { cutShift, type CutShift, type TriedCut } from '../../core/fit/cut-shift';
import { formatSpeed, plainNumber } from '../../core/quantities/format';
import { thicknessOf } from '../../core/stock/stock';

export const CUT_CHECK_ASKS: readonly Ask[] = [DROP];

export type CutVerdict = 'holds' | 'slower' | 'again';

export interface CheckedDisc extends TriedCut {
  readonly cellIndex: number;
}

type KeptSetting = Extract<FactNow, { name: 'cut' }>;

export interface CutCheckFinding extends BaseFinding {
  readonly discs: readonly CheckedDisc[];
  readonly kept: KeptSetting | null;
  readonly shift: CutShift | null;
  /** What the kept cut lays down on this sheet, J/mm for each mm of thickness; null where nothing was checked. */
  readonly laidDown: number | null;
  /** How thick this sheet is. */
  readonly thicknessMm: number;
  /** Share of parts that drop with the kept cut on this sheet. */
  readonly chance: number | null;
  readonly verdict: CutVerdict | null;
  /** What to cut this sheet with; null where that is to be found anew. */
  readonly settings: BurnSettings | null;
}

const DROPPED: readonly string[] = ['clean', 'charred', 'tip'];
/** A kept cut still holds where so many drop, all doubt included. */
const HOLDS = 0.95;
/** With more energy than so many times the kept one, edges char: the cut is found anew. */
const MOST_MORE = 1.4;

/** The least energy at which so many drop, from the kept one on; null where it is past what is allowed. */
function energyFor(shift: CutShift, from: number, share: number): number | null {
  for (let times = 1; times <= MOST_MORE + 1e-9; times += 0.01)
    if (shift.dropsAt(from * times) >= share) return from * times;
  return null;
}

/** Whether a kept cut still holds on this sheet, by three discs; if not, how much slower it drops as surely, or that it must be found anew. */
export function findCutCheck(layout: Layout, seen: Seen, known: Known): CutCheckFinding {
  const { pairing, facts } = known;
  const thickness = thicknessOf(pairing.stock).meanMm;
  const liked = pairing.machine.likedUnits;
  const discs = layout.order
    .flatMap((cellIndex): CheckedDisc[] => {
      const word = wordOf(seen, DROP.field, cellIndex);
      const energy = deliveredBy(mainBurn(layout.cells[cellIndex]!).settings, pairing).lineJPerMm / thickness;
      return word === null ? [] : [{ cellIndex, energy, drops: DROPPED.includes(word) }];
    })
    .sort((a, b) => a.energy - b.energy);
  const kept = factOf(facts, 'cut') ?? null;
  const none = {
    discs,
    kept,
    shift: null,
    laidDown: null,
    thicknessMm: thickness,
    chance: null,
    verdict: null,
    settings: null,
  };
  if (!kept || !(kept.value.laidDown > kept.value.comesThrough))
    return { ...none, missing: ['No cut is kept here that could be checked: burn a card of cut squares.'], says: '' };
  if (discs.length < layout.order.length)
    return { ...none, missing: ['Tap the sheet under each disc and say what happens.'], says: '' };
  const first = discs.findIndex(({ drops }) => drops);
  if (first >= 0 && discs.slice(first).some(({ drops }) => !drops))
    return {
      ...none,
      missing: [
        'A disc with less energy dropped where one with more did not: a knot or glue may hold it. Burn the check once more beside.',
      ],
      says: '',
    };
  const shift = cutShift(discs, kept.value);
  const { certainty, settings } = kept.value;
  // On a thicker sheet the same cut lays down less for each millimetre of it.
  const laidDown = deliveredBy(settings, pairing).lineJPerMm / thickness;
  const chance = shift.dropsAt(laidDown);
  const isDropped = discs.at(-1)!.drops;
  if (chance >= HOLDS && isDropped)
    return {
      ...none,
      shift,
      laidDown,
      chance,
      verdict: 'holds',
      settings,
      missing: [],
      says: `The kept cut still holds: ${plainNumber(100 * chance, 2)} of 100 drop on this sheet.`,
    };
  // With none that dropped there is no telling how far off it is.
  const energy = discs.some(({ drops }) => drops) ? energyFor(shift, laidDown, Math.min(certainty, 0.98)) : null;
  if (energy === null)
    return {
      ...none,
      shift,
      laidDown,
      chance,
      verdict: 'again',
      missing: [],
      says: `Start again: with the kept cut ${plainNumber(100 * chance, 2)} of 100 drop on this sheet, at the most, and how much more it takes no three discs tell. Burn a card of cut squares.`,
    };
  const slower = { ...settings, speedMmPerS: Math.floor(((settings.speedMmPerS * laidDown) / energy) * 100) / 100 };
  return {
    ...none,
    shift,
    laidDown,
    chance,
    verdict: 'slower',
    settings: slower,
    missing: [],
    says: `Cut this sheet at ${formatSpeed(slower.speedMmPerS, liked)}, ${plainNumber(100 * (1 - laidDown / energy), 2)} % slower: with the kept cut ${plainNumber(100 * chance, 2)} of 100 drop.`,
  };
}
