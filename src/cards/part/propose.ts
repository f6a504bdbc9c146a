import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { kerfToGoBy, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import {
  clearanceFor,
  FIT_WORDS,
  keptBounds,
  middleOfFit,
  movedBounds,
  USUAL_FITS,
  WANTED_FITS,
  type FeltSlot,
} from '../../core/fit/fit-bounds';
import { feltShift } from '../../core/fit/felt-shift';
import { tag } from '../../core/part/tag';
import { formatLength, plainNumber } from '../../core/quantities/format';
import { thicknessOf } from '../../core/stock/stock';
import { PART_VERSION, type PartPlan } from './plan';

const GAP_MM = 5;
/** Thinner sheets bend, and are not stuck through anything on edge. */
const LEAST_ON_EDGE_MM = 1;

const thousandth = (mm: number): number => Math.round(mm * 1000) / 1000;

/** How parts that were kept went into their slots. */
const feltParts = (facts: Known['facts']): FeltSlot[] =>
  facts.flatMap((fact) =>
    fact.name === 'part' && fact.stale.length === 0 && fact.value.goes !== null && fact.value.slotMm !== null
      ? [{ clearanceMm: fact.value.slotMm, fit: fact.value.goes }]
      : [],
  );

/** A fit of which fewer come out so is not what a first part is drawn for. */
const LIKELY = 0.5;

const likeliest = <Slot extends { readonly chance: number | null }>(slots: readonly Slot[]): Slot =>
  slots.reduce((best, one) => ((one.chance ?? 0) > (best.chance ?? 0) ? one : best));

/**
 * A small part of our own and a slot for it, drawn by the kerf and the fits that were kept. Throws RangeError for stock that this source does not cut,
 * or not in this thickness.
 */
export function proposePart(known: Known): Proposal<PartPlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const { cut, reasons } = proposedCut(known);
  const kerf = kerfToGoBy(known);
  const fits = factOf(facts, 'fit');
  const thickness = thicknessOf(stock);
  const felt = feltParts(facts);
  const shift = fits ? feltShift(keptBounds(fits.value), felt) : null;
  const slots = WANTED_FITS.map((fit) => ({
    fit,
    ...(fits && shift
      ? clearanceFor(movedBounds(keptBounds(fits.value), shift.shiftMm), fit, thickness.spreadMm ?? 0)
      : { clearanceMm: middleOfFit(USUAL_FITS, fit) - kerf.xMm, chance: null }),
  }));
  // Nothing is known against a pressed one before somebody pushed.
  const wanted = slots.find(({ chance }) => chance === null || chance >= LIKELY) ?? likeliest(slots);
  const chanceWords = slots.flatMap(({ fit, chance }) =>
    chance === null ? [] : [`“${FIT_WORDS[fit]}” ${plainNumber(100 * chance, 2)} of 100`],
  );
  const frame = proposeFrame(pairing);
  const words = (mm: number): string => formatLength(mm, machine.likedUnits, 3);
  const fitWords = fits
    ? `by the fits that were kept${felt.length > 0 && shift ? `, moved by ${words(shift.shiftMm)} by how ${felt.length === 1 ? 'a part' : `${felt.length} parts`} went in` : ''}${fits.stale.length > 0 ? `, which are stale: ${fits.stale.join(', ')}` : ''}`
    : 'what goes on most stock, less the kerf: burn a comb of slots to know';
  return {
    plan: {
      version: PART_VERSION,
      drawing: tag(),
      scale: 1,
      kerf: { xMm: kerf.xMm, yMm: kerf.yMm, sigmaMm: kerf.sigmaMm },
      school: 'both',
      clearanceMm: 0,
      withSlot: thickness.meanMm >= LEAST_ON_EDGE_MM,
      thicknessMm: thousandth(thickness.meanMm),
      fit: wanted.fit,
      slotFor: Object.fromEntries(
        slots.map(({ fit, clearanceMm }) => [fit, thousandth(clearanceMm)]),
      ) as PartPlan['slotFor'],
      gapMm: Math.max(GAP_MM, Math.ceil(thickness.meanMm)),
      leadMm: 0,
      tabs: 0,
      tabMm: 0.6,
      cutsOpen: false,
      cut,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      drawing: 'a tag of our own to begin with: choose your drawing',
      'kerf.xMm': kerf.origin,
      'kerf.yMm': kerf.origin,
      thicknessMm:
        thickness.origin === 'measured'
          ? 'as measured'
          : 'the label’s: measure the sheet, labels are off by up to a tenth of a millimetre and more',
      ...Object.fromEntries(WANTED_FITS.map((fit) => [`slotFor.${fit}`, fitWords])),
      withSlot: `its largest part is pushed into it, on edge; drawn ${words(thickness.meanMm + wanted.clearanceMm)} wide for “${FIT_WORDS[wanted.fit]}”`,
      ...(chanceWords.length > 0 && {
        fit: `${(wanted.chance ?? 1) >= LIKELY ? 'the tightest of which more than half come out so' : 'the likeliest; of none do more than half come out so'}: ${chanceWords.join(', ')}`,
      }),
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}
