import type { Lens, Machine } from '../machine/machine';
import type { CellReading } from '../reading/observations';
import type { Stock } from '../stock/stock';
import type { Layout } from './layout';
import type { BurnSettings } from './settings';

export interface Pairing {
  readonly machine: Machine;
  readonly lens: Lens;
  readonly stock: Stock;
}

/** What is known when a card is planned. */
export interface Known {
  readonly pairing: Pairing;
}

/** A question of the ladder. */
export type Rung = 'grid';

export type OperatorOutcome = 'good' | 'no-mark' | 'charred' | 'burned-through' | 'flare-up' | 'residue';

export interface Verdict {
  readonly cellIndex: number;
  /** 1 (useless) to 5 (just right); null when the operator gave none. */
  readonly grade: number | null;
  readonly outcome: OperatorOutcome | null;
  readonly note: string;
}

export interface Observations {
  readonly cells: readonly CellReading[];
  readonly verdicts: readonly Verdict[];
}

/** A proposal: the plan and, for each value that was chosen, why. */
export interface Proposal<Plan> {
  readonly plan: Plan;
  readonly reasons: Readonly<Record<string, string>>;
}

export interface SettingDraft {
  readonly process: string;
  readonly settings: BurnSettings;
  readonly lightness: number | null;
  readonly lightnessSigma: number | null;
  readonly cellIndex: number;
}

/** What makes two layouts of one plan differ: the number the card was given. */
export interface CardIdentity {
  readonly cardNumber: number;
}

/**
 * A kind of test card: a frozen definition of pure steps. `find` never throws on poor data, it says what is missing.
 */
export interface CardKind<Plan, Finding, Wish> {
  /** Equals its folder's name. */
  readonly kind: string;
  readonly name: string;
  /** Which question of the ladder it answers. */
  readonly rung: Rung;
  propose(known: Known): Proposal<Plan>;
  /** Throws PlanError when the plan cannot be laid. */
  lay(plan: Plan, on: Pairing, identity: CardIdentity): Layout;
  find(layout: Layout, seen: Observations, on: Pairing, wish: Wish): Finding;
  settle(finding: Finding, layout: Layout, seen: Observations, cellIndex: number): SettingDraft | null;
}

export interface PlanProblem {
  /** Path of the plan's field, "power.from". */
  readonly field: string;
  readonly message: string;
}

/** A plan that cannot be laid, with a message for each field at fault. */
export class PlanError extends Error {
  override readonly name = 'PlanError';
  constructor(readonly problems: readonly PlanProblem[]) {
    super(problems.map((problem) => `${problem.field}: ${problem.message}`).join('; '));
  }
}
