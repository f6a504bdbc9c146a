import type { CardKind } from '../core/card/contract';
import { grid } from './grid';

/** Every kind of card there is. A new kind is a folder beside `grid` and one line here. */
export const CARD_KINDS = { grid } as const;

export type CardKindName = keyof typeof CARD_KINDS;

/** The kind of a name. Throws RangeError `unknown card kind: …`. */
export function cardKind<Name extends CardKindName>(name: Name): (typeof CARD_KINDS)[Name];
export function cardKind(name: string): CardKind<never, unknown, never>;
export function cardKind(name: string): unknown {
  const kind = (CARD_KINDS as Record<string, unknown>)[name];
  if (kind === undefined) throw new RangeError(`unknown card kind: ${name}`);
  return kind;
}
