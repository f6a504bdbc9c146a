import type { Pairing } from '../../core/card/contract';
import { axisAround, fieldOf } from './axes';
import type { GridPlan } from './plan';

/**
 * A plan after one of its fields was changed by hand: another setting along an edge gets ends around what the card had, and where the other edge
 * varies it already, the two change places; rows are filled cell by cell where they can no longer be crossed in one sweep.
 */
export function followGrid(plan: GridPlan, path: string, before: GridPlan, { machine }: Pairing): GridPlan {
  const [edge, other] = path === 'across.channel' ? (['across', 'down'] as const) : (['down', 'across'] as const);
  let next = plan;
  if (path === 'across.channel' || path === 'down.channel') {
    const { channel } = plan[edge];
    next =
      channel === before[other].channel
        ? { ...plan, [edge]: before[other], [other]: before[edge] }
        : { ...plan, [edge]: axisAround(channel, plan.constants, machine) };
  }
  const inRows = next.across.channel === 'power' && next.placing === 'ordered';
  return next.sweeps === 'rows' && !inRows ? { ...next, sweeps: 'cells' } : next;
}

/** Which of the constants an axis varies, so that they are not asked for. */
export const variedFields = ({ across, down }: GridPlan): string[] => [across, down].map(fieldOf);
