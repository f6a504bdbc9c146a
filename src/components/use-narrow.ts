import { useSyncExternalStore } from 'react';

/** The width below which ladder, mat and ticket stand under one another; the same as in BenchFrame.module.css. */
const NARROW = '(width <= 960px)';

function subscribe(changed: () => void): () => void {
  const query = window.matchMedia(NARROW);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** Whether the screen is a phone's, or as narrow as one. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(NARROW).matches,
    () => false,
  );
