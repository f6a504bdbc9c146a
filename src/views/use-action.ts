import { useState } from 'react';
import type { ProblemBody } from './problem';
import { RequestFailed } from './send';

/** Runs one action at a time, keeping whether it runs and how it failed. */
export function useAction(): {
  busy: boolean;
  problem: ProblemBody | null;
  run: (work: () => Promise<void>) => void;
  clear: () => void;
} {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemBody | null>(null);
  return {
    busy,
    problem,
    clear: () => setProblem(null),
    run: (work) => {
      if (busy) return;
      setBusy(true);
      setProblem(null);
      work()
        .catch((error: unknown) => {
          if (!(error instanceof RequestFailed)) throw error;
          setProblem(error.problem);
        })
        .finally(() => setBusy(false));
    },
  };
}
