import { formatInterval, formatLength, formatSpeed, type LikedUnits } from '../quantities/format';
import { valueAt, withValueAt } from './plan-fields';

/** A field of a plan whose change makes less work, in proportion at the least. */
export interface Ease {
  /** Path of the plan's field, "constants.intervalMm". */
  readonly path: string;
  /** Whether a larger or a smaller value makes less work. */
  readonly by: 'more' | 'less';
  /** The value is rounded to whole steps, to the side of less work. */
  readonly step: number;
  /** The value in words: "a line interval of 0.2 mm". */
  says(value: number, liked: LikedUnits): string;
}

export const EASES = {
  interval: (path: string): Ease => ({
    path,
    by: 'more',
    step: 0.001,
    says: (mm, liked) => `a line interval of ${formatInterval(mm, liked)}`,
  }),
  size: (path: string, what: string): Ease => ({
    path,
    by: 'less',
    step: 0.1,
    says: (mm, liked) => `${what} of ${formatLength(mm, liked)}`,
  }),
  passes: (path: string): Ease => ({
    path,
    by: 'less',
    step: 1,
    says: (passes) => (passes === 1 ? '1 pass' : `${passes} passes`),
  }),
  speed: (path: string): Ease => ({
    path,
    by: 'more',
    step: 1,
    says: (mmPerS, liked) => `a speed of ${formatSpeed(mmPerS, liked)}`,
  }),
};

/** How much more than in proportion is tried, since what does not shrink with a field (frame, travel) is work too. */
const MARGINS = [1.02, 1.2, 1.6, 3];

/** The field's value for `times` less work, at least one step. */
function easedValue({ path, by, step }: Ease, plan: object, times: number): number {
  const now = valueAt(plan, path) as number;
  // A value that is whole steps but for the last bit stays there.
  const steps =
    by === 'more' ? Math.ceil((now * times) / step - 1e-9) : Math.max(1, Math.floor(now / times / step + 1e-9));
  return Math.round(steps * step * 1e6) / 1e6;
}

/** A lighter plan, and the field that was changed for it first. */
export interface Lighter<Plan> {
  readonly plan: Plan;
  readonly field: string;
  readonly words: string;
}

/**
 * Lighter plans that fit: one for each field whose change alone is enough, or else one with all of them changed together; none when
 * not even that fits. `excess` says how many times too much the plan is, `fits` whether another one can be laid.
 */
export function lighterPlans<Plan extends object>(
  eases: readonly Ease[],
  plan: Plan,
  excess: number,
  fits: (plan: Plan) => boolean,
  liked: LikedUnits,
): Lighter<Plan>[] {
  const changed = (fields: readonly Ease[], times: number): Lighter<Plan> => {
    const values = fields.map((ease) => ({ ease, value: easedValue(ease, plan, times) }));
    return {
      plan: values.reduce((eased, { ease, value }) => withValueAt(eased, ease.path, value), plan),
      field: fields[0]!.path,
      words: values.map(({ ease, value }) => ease.says(value, liked)).join(', '),
    };
  };
  const first = (fields: readonly Ease[]): Lighter<Plan>[] => {
    const share = excess ** (1 / fields.length);
    const found = MARGINS.map((margin) => changed(fields, share * margin)).find((lighter) => fits(lighter.plan));
    return found ? [found] : [];
  };
  const single = eases.flatMap((ease) => first([ease]));
  if (single.length > 0 || eases.length < 2) return single;
  return first(eases).map((lighter) => ({ ...lighter, words: `${lighter.words} together` }));
}
