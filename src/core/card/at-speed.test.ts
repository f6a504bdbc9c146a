import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { FactNow } from '../book/facts';
import { powerAtSpeed } from './at-speed';

const machine = { ...demoPairing('heron', 'birch').machine, powerTable: null };
const floorAt = (speed: number | null, stale: readonly string[] = []) =>
  factNow('floor', { powerFraction: 0.04 }, { at: speed === null ? {} : { speed }, stale }) as Extract<
    FactNow,
    { name: 'floor' }
  >;

describe('a power that was found at one speed', () => {
  it('is itself there, and by equal energy along a line elsewhere', () => {
    expect(powerAtSpeed(floorAt(100), 100.4, machine)).toEqual({ powerFraction: 0.04, measured: true });
    expect(powerAtSpeed(floorAt(100), 200, machine)).toEqual({
      powerFraction: expect.closeTo(0.08, 6),
      measured: false,
    });
    expect(powerAtSpeed(floorAt(100), 50, machine)!.powerFraction).toBeCloseTo(0.02, 6);
    expect(powerAtSpeed(floorAt(100), 99, machine)!.measured).toBe(false);
    // No machine gives more than all of its power.
    expect(powerAtSpeed(floorAt(100), 9000, machine)!.powerFraction).toBe(1);
  });
  it('is not told where it is stale, unknown, or its speed is', () => {
    expect(powerAtSpeed(undefined, 100, machine)).toBeNull();
    expect(powerAtSpeed(floorAt(100, ['new batch']), 100, machine)).toBeNull();
    for (const speed of [null, 0]) expect(powerAtSpeed(floorAt(speed), 100, machine)).toBeNull();
  });
});
