import { excessOf, excessWords, withFrame, type Bound } from './bound';
import {
  PlanError,
  type BasePlan,
  type BaseFinding,
  type CardIdentity,
  type CardKind,
  type Pairing,
  type PlanProblem,
} from './contract';
import { lighterPlans } from './ease';
import { frame } from './frame';
import { checkFrame } from './frame-settings';
import type { Layout } from './layout';
import { focusScatterMm } from './work-setup';

type Kind<Plan extends BasePlan> = Pick<
  CardKind<Plan, never, BaseFinding, never>,
  'kind' | 'version' | 'check' | 'bound' | 'eases' | 'draw'
>;

/** Upper bound of a plan's work, its frame included; nothing is drawn. Expects a plan that `check` found no fault with. */
export function boundOfPlan<Plan extends BasePlan>(kind: Kind<Plan>, plan: Plan, on: Pairing): Bound {
  return withFrame(kind.bound(plan, on));
}

/** Every reason why a plan cannot be laid: the kind's own, the frame's, and too much work, with what would fit. */
export function planProblems<Plan extends BasePlan>(kind: Kind<Plan>, plan: Plan, on: Pairing): PlanProblem[] {
  if (plan.version !== kind.version)
    return [{ field: 'version', message: `This plan is of version ${plan.version}; ${kind.version} is in use.` }];
  const faults = (of: Plan): PlanProblem[] => [...kind.check(of, on), ...checkFrame(of.frame, on)];
  const problems = faults(plan);
  if (problems.length > 0) return problems;
  const bound = boundOfPlan(kind, plan, on);
  const excess = excessOf(bound);
  if (excess === 1) return [];
  const fits = (other: Plan): boolean => faults(other).length === 0 && excessOf(boundOfPlan(kind, other, on)) === 1;
  const lighter = lighterPlans(kind.eases, plan, excess, fits, on.machine.likedUnits);
  const advice =
    lighter.length > 0
      ? `It would fit with ${lighter.map(({ words }) => words).join(', or with ')}.`
      : 'Take fewer and smaller cells.';
  const field = lighter[0]?.field ?? kind.eases[0]!.path;
  return [{ field, message: `Too much for one card: ${excessWords(bound)}. ${advice}` }];
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
  const layout = frame(kind.kind, kind.draw(plan, on), plan.frame, identity, on);
  const scatterMm = focusScatterMm(plan.setup);
  return scatterMm === null ? layout : { ...layout, focusScatterMm: scatterMm };
}
