import fc from 'fast-check';
import { it } from 'vitest';

type Arbitraries<Values extends readonly unknown[]> = { [Index in keyof Values]: fc.Arbitrary<Values[Index]> };

/**
 * A test of what holds for all values, `prop([arbitraries])('what holds', (values) => ...)`. A value for which it does not is shown made small,
 * with the seed that brings it back. Ours, and not the package for it: that one takes three seconds to load in every worker.
 */
export const prop =
  <Values extends [unknown, ...unknown[]]>(arbitraries: Arbitraries<Values>, parameters?: fc.Parameters<Values>) =>
  (name: string, holds: (...values: Values) => void): void =>
    it(name, () => fc.assert(fc.property(...arbitraries, holds), parameters));
