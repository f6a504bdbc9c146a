import type { BaseFinding, BasePlan, CardKind, Known } from '../core/card/contract';
import type { RungId } from '../core/book/rungs';
import { withDotLength } from '../core/card/stored';
import { aB } from './a-b';
import { bed } from './bed';
import { ceiling } from './ceiling';
import { cut } from './cut';
import { cutCheck } from './cut-check';
import { cutFocus } from './cut-focus';
import { focus } from './focus';
import { grid } from './grid';
import { hinge } from './hinge';
import { interval } from './interval';
import { knobs } from './knobs';
import { lineWidth } from './line-width';
import { part } from './part';
import { passCount } from './pass-count';
import { passes } from './passes';
import { picture } from './picture';
import { runUp } from './run-up';
import { scanOffset } from './scan-offset';
import { sheetCheck } from './sheet-check';
import { score } from './score';
import { showpiece } from './showpiece';
import { kerf } from './kerf';
import { slots } from './slots';
import { threshold } from './threshold';
import { tone } from './tone';

/** Every kind of card there is. A new kind is a folder beside `grid`, one line here, and one in each of the two other registries. */
export const CARD_KINDS = {
  grid,
  'sheet-check': sheetCheck,
  'a-b': aB,
  threshold,
  ceiling,
  'line-width': lineWidth,
  interval,
  tone,
  showpiece,
  picture,
  focus,
  'scan-offset': scanOffset,
  'run-up': runUp,
  bed,
  cut,
  'cut-check': cutCheck,
  'pass-count': passCount,
  'cut-focus': cutFocus,
  passes,
  kerf,
  slots,
  knobs,
  part,
  hinge,
  score,
} as const;

export type CardKindName = keyof typeof CARD_KINDS;

/** A kind of which nothing more is known than the contract: plans, wishes and choices are what its own schemas let through. */
export type AnyCardKind = CardKind<BasePlan, unknown, BaseFinding, unknown>;

export const CARD_KIND_NAMES = Object.keys(CARD_KINDS) as CardKindName[];

export const isCardKind = (name: string): name is CardKindName => Object.hasOwn(CARD_KINDS, name);

/** The kind of a name. Throws RangeError `unknown card kind: …`. */
export function cardKind(name: string): AnyCardKind {
  if (!isCardKind(name)) throw new RangeError(`unknown card kind: ${name}`);
  return CARD_KINDS[name];
}

/** A plan as it was stored, brought up to the version in use. Throws RangeError for a kind or a version that this program does not know. */
export const storedPlan = (kind: string, stored: object): BasePlan => cardKind(kind).upgrade(withDotLength(stored));

/** The kinds that answer a rung, the usual one first. */
export function kindsOfRung(rung: RungId): AnyCardKind[] {
  return CARD_KIND_NAMES.map((name) => cardKind(name)).filter((kind) => kind.rung === rung);
}

/** Whether a card of a kind can be planned on a pairing at all. What is wrong with its plan, as too little room, is another question. */
function isPlannable(kind: AnyCardKind, known: Known): boolean {
  try {
    kind.propose(known);
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/**
 * The kind of card that a rung asks for on a pairing: of those that can be planned there, the one that asks least. That is a small one that renews
 * where something is known that went stale, else the usual one. Null where there is none, as of run-up under mirrors.
 */
export function kindAskedFor(rung: RungId, isStale: boolean, known: Known): AnyCardKind | null {
  const kinds = kindsOfRung(rung);
  const small = isStale ? kinds.filter((kind) => kind.renews) : [];
  return [...small, ...kinds.filter((kind) => !kind.renews)].find((kind) => isPlannable(kind, known)) ?? null;
}

/** The kind whose planner a rung leads to: the one that it asks for, or where none can be planned the usual one, which says why. */
export const kindFor = (rung: RungId, isStale: boolean, known: Known): AnyCardKind =>
  kindAskedFor(rung, isStale, known) ?? kindsOfRung(rung)[0]!;
