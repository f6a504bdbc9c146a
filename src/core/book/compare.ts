import { isArea } from '../card/shape';
import type { Layout } from '../card/layout';
import { squareFillTimeS } from '../card/fill-time';
import type { BurnSettings } from '../card/settings';
import type { Machine } from '../machine/machine';
import type { Seen } from '../card/asks';
import { isSpoiled } from '../card/usual-asks';
import { LOW_CONFIDENCE } from '../reading/observations';
import { median } from '../stats/robust';

/** A patch that a photo was sure of: how far it is from bare stock, and what it was burned with. */
export interface Patch {
  readonly cellIndex: number;
  readonly settings: BurnSettings;
  /** L* from bare stock, whichever way the burn turns. */
  readonly strength: number;
  readonly sigma: number;
  /** Standard deviation of L* over 0.25 mm parts of it. */
  readonly spread: number;
  /** L* of the ring around it less bare stock's: negative is a dark halo. */
  readonly halo: number;
}

/** What a stock is worth under a machine, by one card: for pictures and for plain marks. */
export interface Worth {
  readonly patches: readonly Patch[];
  /** The strongest patch. */
  readonly strongest: Patch;
  /** Median spread of patches: how even a burn comes out. */
  readonly spread: number;
  /** Mean halo of the stronger half: smoke and residue beside a burn. */
  readonly halo: number;
  /** Tones that an eye tells from each other between bare stock and the strongest. */
  readonly tones: number;
}

/** Two tones side by side that differ by fewer L* look alike (just noticeable, common practice), and so do those that differ by less than a burn itself is uneven. */
const LEAST_STEP_L = 2;
/** Patches of fewer L* tell nothing of a range. */
const LEAST_STRENGTH_L = 3;
const LEAST_PATCHES = 4;
/** Nor do patches of which even the weakest is stronger than this share of the strongest: they are about something else. */
const MOST_LEAST = 0.5;

/** What one card tells of its pairing: cells that are filled evenly, of which its photo is sure and which nobody called spoiled. Null where fewer than four of them marked, or all alike. */
export function worthOf(layout: Layout, seen: Seen): Worth | null {
  const told = seen.readings.flatMap((reading): (Patch & { readonly delta: number })[] => {
    const [burn, ...others] = layout.cells[reading.cellIndex]?.burns ?? [];
    if (!burn || others.length > 0 || !isArea(burn.shape) || burn.shape.do !== 'sweep') return [];
    if (reading.confidence < LOW_CONFIDENCE || isSpoiled(seen, reading.cellIndex)) return [];
    const { cellIndex, deltaLightness: delta, lightnessSigma: sigma, spread, edgeHalo: halo } = reading;
    return [{ cellIndex, settings: burn.settings, delta, strength: 0, sigma, spread, halo }];
  });
  if (told.length < LEAST_PATCHES) return null;
  const extreme = told.reduce((most, one) => (Math.abs(one.delta) > Math.abs(most.delta) ? one : most));
  const way = Math.sign(extreme.delta);
  const patches = told
    .map(({ delta, ...patch }): Patch => ({ ...patch, strength: way * delta }))
    .filter(({ strength }) => strength >= LEAST_STRENGTH_L)
    .sort((a, b) => b.strength - a.strength);
  if (patches.length < LEAST_PATCHES || patches.at(-1)!.strength > MOST_LEAST * patches[0]!.strength) return null;
  const strongest = patches[0]!;
  const spread = median(patches.map((patch) => patch.spread));
  const half = patches.slice(0, Math.ceil(patches.length / 2));
  return {
    patches,
    strongest,
    spread,
    halo: half.reduce((sum, { halo }) => sum + halo, 0) / half.length,
    tones: Math.floor(strongest.strength / Math.max(LEAST_STEP_L, 2 * spread)),
  };
}

/** A darkness that all of some pairings reach: four fifths of the weakest of their strongest, in whole L*. Null for none. */
export function commonStrength(worths: readonly Worth[]): number | null {
  return worths.length === 0 ? null : Math.floor(0.8 * Math.min(...worths.map(({ strongest }) => strongest.strength)));
}

/** The patch that is at least so far from bare stock and takes least time for a square of 10 cm; null where none is. */
export function quickestAt(
  { patches }: Worth,
  strength: number,
  machine: Machine,
): { readonly patch: Patch; readonly timeS: number } | null {
  return patches
    .filter((patch) => patch.strength >= strength)
    .map((patch) => ({ patch, timeS: squareFillTimeS(patch.settings, machine, 100) }))
    .reduce<{ patch: Patch; timeS: number } | null>(
      (best, one) => (best && best.timeS <= one.timeS ? best : one),
      null,
    );
}
