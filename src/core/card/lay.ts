import { boundOfBurns, excessOf, excessWords, type Bound } from './bound';
import {
  PlanError,
  type BasePlan,
  type BaseFinding,
  type CardIdentity,
  type CardKind,
  type Drawn,
  type Pairing,
  type PlanProblem,
} from './contract';
import { frame } from './frame';
import { checkFrame } from './frame-settings';
import type { Layout } from './layout';

type Kind<Plan extends BasePlan> = Pick<
  CardKind<Plan, never, BaseFinding, never>,
  'kind' | 'version' | 'check' | 'draw' | 'fit'
>;

const burnsOf = (drawn: Drawn) => [
  ...drawn.before,
  ...drawn.after,
  ...drawn.cells.filter((cell) => !cell.leftOut).flatMap((cell) => cell.burns),
];

/** Upper bound of a plan's work. Expects a plan that `check` found no fault with. */
export function boundOfPlan<Plan extends BasePlan>(kind: Kind<Plan>, plan: Plan, on: Pairing): Bound {
  return boundOfBurns(burnsOf(kind.draw(plan, on)), on.machine);
}

/** Every reason why a plan cannot be laid: the kind's own, the frame's, and too much work, with what would fit. */
export function planProblems<Plan extends BasePlan>(kind: Kind<Plan>, plan: Plan, on: Pairing): PlanProblem[] {
  if (plan.version !== kind.version)
    return [{ field: 'version', message: `This plan is of version ${plan.version}; ${kind.version} is in use.` }];
  const problems = [...kind.check(plan, on), ...checkFrame(plan.frame, on)];
  if (problems.length > 0) return problems;
  const bound = boundOfPlan(kind, plan, on);
  const excess = excessOf(bound);
  if (excess === 1) return [];
  const { field, message } = kind.fit(plan, excess);
  return [{ field, message: `Too much for one card: ${excessWords(bound)}. ${message}` }];
}

/**
 * Lays a card: checks the plan and its bound, lets the kind draw its cells, and puts the frame around them. Deterministic.
 * Throws PlanError with every field at fault, RangeError for a card number the markers cannot carry.
 */
export function layCard<Plan extends BasePlan>(
  kind: Kind<Plan>,
  plan: Plan,
  on: Pairing,
  identity: CardIdentity,
): Layout {
  const problems = planProblems(kind, plan, on);
  if (problems.length > 0) throw new PlanError(problems);
  return frame(kind.kind, kind.draw(plan, on), plan.frame, identity, on);
}
