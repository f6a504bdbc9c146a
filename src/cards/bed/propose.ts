import { rayleighRangeMm } from '../../core/beam/gaussian';
import { USUAL_BEAM } from '../../core/beam/usual-beam';
import { factOf } from '../../core/book/facts';
import type { Known, Pairing, Proposal } from '../../core/card/contract';
import { framedSize } from '../../core/card/frame';
import { proposeFrame } from '../../core/card/frame-settings';
import { CARD_CLEARANCE_MM } from '../../core/card/place';
import { sweepRunUpMm } from '../../core/card/path';
import { proposeFill } from '../../core/card/propose-fill';
import type { BurnSettings } from '../../core/card/settings';
import { fastestUsefulMmPerS } from '../../core/card/useful-speed';
import { proposeSetup } from '../../core/card/work-setup';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatLength } from '../../core/quantities/format';
import { BED_VERSION, leastSpanMm, patchesSize, RANGE_OVER_DEPTH, type BedPlan } from './plan';

const PATCH_MM = 3;
const GAP_MM = 1.5;
/** Lines this many spots apart leave gaps in focus, so that it shows how sharp they are. */
const GAP_SPOTS = 1.5;
/** Lowered further than this, many heads come near the work (common practice: look before the head goes down). */
const LOWEST_MM = 3;
/** Set by hand, offsets go no further, and in half millimetres: so spacers come. */
const BY_HAND = { mostMm: 2, stepMm: 0.5 } as const;
const BY_MOTOR = { mostMm: LOWEST_MM, stepMm: 0.1 } as const;
/** Where a sheet is usually laid: so far from the bed's edges. */
const FROM_EDGE_MM = 22;
/** Places along an axis, where there is room for them. */
const PLACES = 3;
const LEAST_PLACES = 2;

/** Marks this far from bare stock, in L*, are plain, and not yet so strong that their lines run together wherever the beam is wider. */
const PLAIN_L = 15;
/** What a kept setting is weakened by at the most: a guess from one tone is not trusted further. */
const LEAST_SHARE = 0.3;

/**
 * The settings of the fill for this: a kept setting weakened to a plain mark, by going faster as far as that pays and by less power for the rest.
 * Strong marks are no copy of the light, and hide where it is sharp.
 */
function plainFill(known: Known): { settings: BurnSettings; reasons: Record<string, string> } {
  const { settings, reasons } = proposeFill(known);
  const engrave = factOf(known.facts, 'engrave');
  const lightness = engrave?.value.lightness;
  if (lightness == null) return { settings, reasons };
  const { machine, stock } = known.pairing;
  const share = Math.min(1, Math.max(LEAST_SHARE, PLAIN_L / Math.abs(lightness - stock.bareLightness)));
  if (share === 1) return { settings, reasons };
  const { speedMmPerS, powerFraction, direction } = settings;
  const useful = Math.max(speedMmPerS, Math.floor(fastestUsefulMmPerS(machine, direction)));
  const faster = Math.min(useful, Math.round(speedMmPerS / share));
  const watts = (deliveredPowerW(machine, powerFraction) * share * faster) / speedMmPerS;
  const power = Math.round(commandFor(machine, watts) * 1000) / 1000;
  const why = 'a plain mark, weaker than the kept setting: strong ones hide where lines are sharp';
  return {
    settings: {
      ...settings,
      speedMmPerS: faster,
      powerFraction: Math.min(machine.powerCap, Math.max(leastCommand(machine), power)),
    },
    reasons: { ...reasons, 'constants.powerFraction': why, 'constants.speedMmPerS': why },
  };
}

/** The widest and deepest that stations may reach, from frame to frame. */
function roomOf({ machine, lens, stock }: Pairing, runUpMm: number): { width: number; depth: number } {
  const { outline, sheetWidthMm, sheetDepthMm } = stock;
  // A card's corners must lie on the piece: of a round one, and of a hexagon, about two thirds are left.
  const share = outline.shape === 'ellipse' || outline.shape === 'hexagon' ? 0.66 : 1;
  const rim = 2 * Math.max(CARD_CLEARANCE_MM, 0.3 * outline.radiusMm);
  const bed = (sideMm: number): number =>
    machine.head === 'galvo'
      ? (lens.fieldMm ?? sideMm) - 2 * CARD_CLEARANCE_MM
      : sideMm - 2 * FROM_EDGE_MM - 2 * runUpMm;
  return {
    width: Math.min(share * sheetWidthMm - rim, bed(machine.bedWidthMm)),
    depth: Math.min(share * sheetDepthMm - rim, bed(machine.bedDepthMm)),
  };
}

/**
 * Patches at the set focus and about one Rayleigh range above and below it, at three by three places as far apart as sheet and bed allow, two
 * where there is no room for three. Throws RangeError where not even two fit beside each other, or the wavelength cannot mark.
 */
export function proposeBed(known: Known): Proposal<BedPlan> {
  const { machine, lens } = known.pairing;
  const liked = machine.likedUnits;
  const { settings, reasons: fillReasons } = plainFill(known);
  const spotMm = settings.direction === 'horizontal' ? lens.spotYMm : lens.spotXMm;
  const intervalMm = Math.round(Math.min(0.4, GAP_SPOTS * spotMm) * 1000) / 1000;
  const { focusOffsetMm: _varies, ...constants }: BurnSettings = { ...settings, intervalMm };
  const { 'constants.focusOffsetMm': _said, ...reasons } = fillReasons;
  const frame = proposeFrame(known.pairing);
  const waist = factOf(known.facts, 'waist');
  const depthMm = waist && waist.stale.length === 0 ? waist.value.depthMm : null;
  const rayleighMm =
    depthMm !== null
      ? RANGE_OVER_DEPTH * depthMm
      : rayleighRangeMm(spotMm, machine.wavelengthNm / 1e6, USUAL_BEAM[machine.sourceKind].beamQuality);
  const { mostMm, stepMm } = machine.automaticFocus ? BY_MOTOR : BY_HAND;
  const offsetMm = Math.round(Math.max(1, Math.round(Math.min(mostMm, rayleighMm) / stepMm)) * stepMm * 10) / 10;

  const size = { patchMm: PATCH_MM, gapMm: GAP_MM };
  const framed = framedSize(patchesSize(size));
  const own = patchesSize(size);
  const room = roomOf(known.pairing, sweepRunUpMm(settings, machine));
  const spanOf = (roomMm: number, framedMm: number, ownMm: number): number => Math.floor(roomMm - framedMm + ownMm);
  const acrossMm = spanOf(room.width, framed.width, own.width);
  const downMm = spanOf(room.depth, framed.height, own.height);
  const countOf = (spanMm: number, axis: 'across' | 'down'): number =>
    [PLACES, LEAST_PLACES].find((count) => leastSpanMm(count, size, axis) <= spanMm) ?? 0;
  const [columns, rows] = [countOf(acrossMm, 'across'), countOf(downMm, 'down')];
  if (columns === 0 || rows === 0)
    throw new RangeError(
      `invalid pairing: the sheet is too small to show whether the bed is level: ${formatLength(leastSpanMm(LEAST_PLACES, size, 'across') + framed.width - own.width, liked, 2)} by ${formatLength(leastSpanMm(LEAST_PLACES, size, 'down') + framed.height - own.height, liked, 2)} are needed at the least`,
    );
  const asFarApart = 'as far apart as sheet and bed allow: a tilt shows by what is between them';
  return {
    plan: {
      version: BED_VERSION,
      columns,
      rows,
      acrossMm,
      downMm,
      offsetMm,
      ...size,
      constants,
      frame: { ...frame.settings, markers: 'burned' },
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      columns: columns === PLACES ? 'three tell a bent sheet from a tilted bed' : 'no room for three',
      rows: rows === PLACES ? 'three tell a bent sheet from a tilted bed' : 'no room for three',
      acrossMm: asFarApart,
      downMm: asFarApart,
      offsetMm:
        depthMm !== null
          ? `half as far again as the depth of focus that was measured, ${formatLength(depthMm, liked, 2)}: there lines have plainly faded, and still show`
          : `about one Rayleigh range (${formatLength(rayleighMm, liked, 2)} by the spot)${rayleighMm > mostMm ? `, no further than ${formatLength(mostMm, liked)}` : ''}: at one focus alone nothing tells up from down`,
      'constants.intervalMm': 'a spot and a half: gaps show how sharp lines are',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}
