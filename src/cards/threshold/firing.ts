import type { Pairing } from '../../core/card/contract';
import { crossingsOf, type BurnSettings } from '../../core/card/settings';
import { sweepLimits } from '../../core/machine/machine';
import { responseOf } from '../../core/stock/response';
import { proposeThreshold } from './propose';
import type { ThresholdPlan } from './plan';

/** A source whose least command nobody noted is looked for around this one. */
const UNSAID = 0.05;
/** The strip goes from this share of the command that the record has to this. */
const AROUND = { below: 0.5, above: 1.5, count: 15 } as const;
/** At this share of it there is light enough for as deep a mark as the stock takes. */
const DEEP_FROM = 0.7;

/** What a rated source would lay on an area at a command, were it to fire there: J/mm². */
function lightAt(command: number, settings: Omit<BurnSettings, 'powerFraction'>, { machine }: Pairing): number {
  const { speedMmPerS, intervalMm } = settings;
  return (machine.ratedPowerW * command * crossingsOf(settings)) / (speedMmPerS * intervalMm);
}

/** Whether a patch that stayed bare had light enough for a deep mark: then the source did not fire. */
export const wouldHaveMarked = (command: number, settings: Omit<BurnSettings, 'powerFraction'>, on: Pairing): boolean =>
  lightAt(command, settings, on) >= responseOf(on.stock, on.machine).energies.deep;

/**
 * A plan after the way it burns was changed by hand: a strip that asks for the source's own least command goes so slowly that whatever fires marks
 * deep, closely around the command that the record has; any other is proposed as usual.
 */
export function followWay(plan: ThresholdPlan, path: string, before: ThresholdPlan, on: Pairing): ThresholdPlan {
  if (path !== 'way' || plan.way === before.way) return plan;
  if (plan.way !== 'firing')
    return before.way === 'firing' ? { ...proposeThreshold({ pairing: on, facts: [] }).plan, way: plan.way } : plan;
  const { machine, stock } = on;
  const least = machine.lowestFiringCommand > 0 ? machine.lowestFiringCommand : UNSAID;
  const { deep } = responseOf(stock, machine).energies;
  const { constants } = plan;
  const wanted = lightAt(DEEP_FROM * least, { ...constants, speedMmPerS: 1 }, on) / deep;
  const top = sweepLimits(machine, constants.direction).topSpeedMmPerS;
  const round = (command: number): number => Math.round(command * 1e4) / 1e4;
  return {
    ...plan,
    power: {
      from: round(AROUND.below * least),
      to: round(Math.min(machine.powerCap, AROUND.above * least)),
      count: AROUND.count,
      spacing: 'even',
    },
    repeats: 1,
    constants: { ...constants, speedMmPerS: Math.max(0.5, Math.min(top, Math.floor(wanted * 10) / 10)) },
  };
}
