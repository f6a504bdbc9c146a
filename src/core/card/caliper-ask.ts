import type { Ask } from './asks';

/** Step of usual digital calipers, and the error that their makers usually state (common practice). */
export const CALIPER = { resolution: 0.01, statedError: 0.02 } as const;

type GaugeAsk = Extract<Ask, { by: 'gauge' }>;
type Jaws = Exclude<GaugeAsk['measures'], 'depth' | 'bend'>;

/** What a caliper is asked of a cell, under the name of what it measures. */
export const caliperAsk = (
  field: Jaws,
  question: string,
  rest: Pick<GaugeAsk, 'repeats' | 'near' | 'sides'>,
): GaugeAsk => ({
  field,
  by: 'gauge',
  of: 'cell',
  measures: field,
  question,
  unit: 'mm',
  resolution: CALIPER.resolution,
  ...rest,
});
