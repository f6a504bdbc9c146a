import { useMemo } from 'react';

const keyFor = (_intent: string): string => crypto.randomUUID();

/**
 * One idempotency key for one intent: pressing again sends the same request again, which the server answers once; another choice, value or
 * note is another request. A page that the browser brings back must not answer a new plan with the old card.
 */
export function useRequestKey(...intent: readonly unknown[]): string {
  const words = JSON.stringify(intent);
  return useMemo(() => keyFor(words), [words]);
}
