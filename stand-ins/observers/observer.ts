import type { Piece } from '../../src/bench/piece';
import type { FactNow } from '../../src/core/book/facts';
import type { Seen } from '../../src/core/card/asks';
import type { BaseFinding, Pairing } from '../../src/core/card/contract';
import type { Layout } from '../../src/core/card/layout';

/** A card as it came off the bench. */
export interface Burned {
  readonly layout: Layout;
  readonly pairing: Pairing;
  readonly piece: Piece;
  /** Of a card that stands in several places, the piece of each; the one piece otherwise. */
  readonly pieces: readonly Piece[];
  /** Of the piece: the same card burned again is another piece of the same stock. */
  readonly seed: string;
}

/** Somebody who looks at a card of one kind as people do, and what the bench knows better than they. */
export interface Observer<Finding extends BaseFinding = never> {
  /** Machine and stock of the workshop, quick to burn. */
  readonly on: readonly [machine: string, stock: string];
  /** What stands in the book, for kinds that ask whether it still holds; nothing otherwise. */
  facts?(pairing: Pairing): readonly FactNow[];
  /** What one pair of eyes or one gauge of a workshop says of the piece; another seed is another pair. */
  look(burned: Burned, seed: string): Seen;
  /** All there is to see of the piece, for kinds whose looks take a part of it each; a look otherwise. */
  seeAll?(burned: Burned): Seen;
  /** What is wanted, for kinds whose finding depends on it; the kind's own wish otherwise. */
  wish?(burned: Burned, seed: string): object;
  /** The truth of this piece, from the bench's own state and never by way of the finding's code. */
  truth(burned: Burned, finding: Finding): readonly number[];
  /** What the finding claims to hold the truth with 95 %, one range for each number of the truth. */
  claims(finding: Finding): readonly (readonly [low: number, high: number])[];
  /** No claim is wider than this: one that is always true says nothing. */
  readonly widestClaim: number;
}
