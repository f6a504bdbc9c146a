import { deliveredPowerW, type Machine } from './machine';

/** The command 0..1 that delivers `wantedW`, by bisection: delivered power never falls with the command. 1 when it cannot be had. */
export function commandFor(machine: Machine, wantedW: number): number {
  let low = 0;
  let high = 1;
  for (let step = 0; step < 30; step++) {
    const middle = (low + high) / 2;
    if (deliveredPowerW(machine, middle) < wantedW) low = middle;
    else high = middle;
  }
  return high;
}

/** The least command that is asked of a source: a tenth above the one that just fires, and half of a hundredth at the least. */
export const leastCommand = ({ lowestFiringCommand }: Pick<Machine, 'lowestFiringCommand'>): number =>
  Math.max(0.005, lowestFiringCommand * 1.1);
