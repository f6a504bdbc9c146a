import { useMemo } from 'react';
import { comparisonsOf, type ComparedCells, type Seen } from '../core/card/asks';
import { BETTER } from '../core/card/usual-asks';
import { nextPair } from '../core/stats/bradley-terry';
import { send } from '../views/send';
import { useAction } from '../views/use-action';

export interface Comparing {
  /** Cells that are compared. */
  readonly candidates: readonly number[];
  /** The two to look at now; null where enough is known. */
  readonly pair: readonly [number, number] | null;
  readonly busy: boolean;
  /** Why the last answer was not taken. */
  readonly problem: ReturnType<typeof useAction>['problem'];
  readonly answer: (better: number | null) => void;
  readonly undo: (() => void) | null;
}

/** Which two of some cells to look at next, by what was said of them; null where enough is known. */
export type NextOf = (said: readonly ComparedCells[]) => readonly [number, number] | null;

/** Two of some cells, so that a few comparisons tell the best of all of them. Only two change sides each time: a habit of the eye would pass for taste. */
export const bestOf =
  (candidates: readonly number[]): NextOf =>
  (said) => {
    const own = said
      .filter(({ better, worse }) => candidates.includes(better) && candidates.includes(worse))
      .map(({ better, worse, equal }) => ({
        better: candidates.indexOf(better),
        worse: candidates.indexOf(worse),
        equal,
      }));
    const next = nextPair(candidates.length, own);
    if (!next) return null;
    if (candidates.length === 2)
      return own.length % 2 === 0 ? [candidates[0]!, candidates[1]!] : [candidates[1]!, candidates[0]!];
    return [candidates[next[0]]!, candidates[next[1]]!];
  };

/** Comparisons of two cells at a time: which two next, and what was said of them put with the card's answers. */
export function useComparing(
  cardId: number,
  candidates: readonly number[],
  next: NextOf,
  seen: Pick<Seen, 'answers'>,
  onAnswered: () => Promise<void>,
): Comparing {
  const action = useAction();
  const all = useMemo(() => comparisonsOf(seen, BETTER.field), [seen]);
  const pair = useMemo(() => next(all), [all, next]);
  const put = (cellIndex: number, repeat: number, value: string | null): void =>
    action.run(async () => {
      await send(`/api/cards/${cardId}/answers`, {
        method: 'PUT',
        json: { field: BETTER.field, cellIndex, repeat, value },
      });
      await onAnswered();
    });
  const last = all.at(-1);
  return {
    candidates,
    pair,
    busy: action.busy,
    problem: action.problem,
    answer: (better) => {
      if (!pair) return;
      const [left, right] = pair;
      const repeat = (last?.repeat ?? -1) + 1;
      if (better === null) put(left, repeat, `=${right}`);
      else put(better, repeat, String(better === left ? right : left));
    },
    undo: last ? () => put(last.better, last.repeat, null) : null,
  };
}
