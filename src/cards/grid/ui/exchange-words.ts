import { CHANNELS } from '../../../core/card/channels';
import { plainNumber } from '../../../core/quantities/format';
import type { SurfaceFound } from '../find';

const HALVED: Readonly<Partial<Record<SurfaceFound['down'], string>>> = {
  power: 'Half the power',
  speed: 'Half the speed',
  interval: 'Half the line interval',
  passes: 'Half the passes',
  frequency: 'Half the frequency',
};

/**
 * What halving one setting is worth of the other at the wanted tone, with its 95 % range; null where it is not known.
 *
 * Power across and speed down, 0.6 times: "Half the speed looks the same with 40 % (36 to 44 %) less power."
 */
export function exchangeWords({ across, down, exchange }: SurfaceFound): string | null {
  const half = HALVED[down];
  if (!exchange || !half) return null;
  const { times, logSigma } = exchange;
  const share = (factor: number): number => Math.abs(1 - factor) * 100;
  const [low, high] = [times * Math.exp(-2 * logSigma), times * Math.exp(2 * logSigma)];
  const other = CHANNELS[across].name.toLowerCase();
  if (low < 1 && high > 1) return `${half} looks the same at about the same ${other}.`;
  const [least, most] = [share(low), share(high)].sort((a, b) => a - b) as [number, number];
  const less = times < 1;
  const word = across === 'passes' ? (less ? 'fewer' : 'more') : less ? 'less' : 'more';
  const percent = (value: number): string => plainNumber(value, 2);
  return `${half} looks the same with ${percent(share(times))} % (${percent(least)} to ${percent(most)} %) ${word} ${other}.`;
}
