import type { FactName, FactValues } from '../src/core/book/fact-values';
import type { FactNow } from '../src/core/book/facts';

/** A fact as it stands in the book now, kept from a card, good unless said otherwise. */
export const factNow = <Name extends FactName>(
  name: Name,
  value: FactValues[Name],
  change: Partial<FactNow> = {},
): FactNow =>
  ({
    factId: 1,
    version: 1,
    name,
    at: {},
    value,
    sigma: null,
    origin: 'card',
    createdAt: '2026-05-01T10:00:00Z',
    stale: [],
    ...change,
  }) as FactNow;
