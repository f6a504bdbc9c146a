import { describe, expect, it } from 'vitest';
import { burnedCard } from '../../stand-ins/burn';
import { demoPairing } from '../../stand-ins/demo';
import { observerOf } from '../../stand-ins/observers';
import type { Burned } from '../../stand-ins/observers/observer';
import { layCard } from '../core/card/lay';
import { CARD_KIND_NAMES, cardKind } from './registry';

const PIECES = 4;
const LOOKS = 5;
const LEAST_HELD = 16;
const MOST_MISSED = PIECES * LOOKS - LEAST_HELD;

describe.each(CARD_KIND_NAMES)('what is found on a card of kind %s', (name) => {
  const kind = cardKind(name);
  const observer = observerOf(name);
  const pairing = demoPairing(observer.on[0] as never, observer.on[1] as never);
  const known = { pairing, facts: observer.facts?.(pairing) ?? [] };
  const { plan } = kind.propose(known);
  const layout = layCard(kind, plan, pairing, { cardNumber: 5 });
  // Each piece once, then each once more: what decides early has seen them all.
  const looks = (): { burned: Burned; seed: string }[] => {
    const pieces = Array.from({ length: PIECES }, (_, index) => burnedCard(layout, pairing, `truth ${index}`));
    return Array.from({ length: LOOKS }, (_, look) =>
      pieces.map((burned) => ({ burned, seed: `${burned.seed} look ${look}` })),
    ).flat();
  };

  it(`holds the truth, which the bench knows, in at least ${LEAST_HELD} of ${PIECES * LOOKS} looks`, () => {
    const missed: string[] = [];
    let held = 0;
    for (const { burned, seed } of looks()) {
      // What is left could change nothing any more.
      if (held === LEAST_HELD || missed.length > MOST_MISSED) break;
      const wish = observer.wish?.(burned, seed) ?? kind.wish(pairing);
      const finding = kind.find(layout, observer.look(burned, seed), known, wish);
      if (finding.missing.length > 0) {
        missed.push(`${seed}: ${finding.missing[0]!}`);
        continue;
      }
      const truth = observer.truth(burned, finding);
      const claims = observer.claims(finding);
      expect(claims.length).toBe(truth.length);
      for (const [low, high] of claims) expect(high - low > observer.widestClaim, seed).toBe(false);
      if (truth.every((value, index) => claims[index]![0] <= value && value <= claims[index]![1])) held++;
      else
        missed.push(
          `${seed}: ${truth.map((value) => value.toFixed(4)).join(', ')} in ${claims.map(([low, high]) => `${low.toFixed(4)} to ${high.toFixed(4)}`).join(', ')}`,
        );
    }
    expect(held, missed.join('\n')).toBe(LEAST_HELD);
  });
});
