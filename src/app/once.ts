import { brokenConstraint, type Tx } from '../db/client';
import { earlierAnswer, noteAnswer } from '../db/submissions';
import type { AppContext } from './context';
import { Problem } from './problems';

/** What a form with this key was answered before. Throws a Problem for a key that another action used. */
export async function answeredBefore<Result extends object>(
  { db }: AppContext,
  key: string,
  action: string,
): Promise<Result | undefined> {
  const earlier = await earlierAnswer(db, key);
  if (earlier && earlier.action !== action)
    throw new Problem('malformed-request', 'This Idempotency-Key belongs to another request: take a new one for each.');
  return earlier?.result as Result | undefined;
}

/**
 * Runs `work` in a transaction, at most once for each key: a form that is sent twice gets the first answer again. Without a
 * key it simply runs in a transaction.
 */
export async function once<Result extends object>(
  ctx: AppContext,
  key: string | undefined,
  action: string,
  work: (tx: Tx) => Promise<Result>,
): Promise<Result> {
  if (key === undefined) return ctx.db.transaction().execute(work);
  const earlier = await answeredBefore<Result>(ctx, key, action);
  if (earlier) return earlier;
  try {
    return await ctx.db.transaction().execute(async (tx) => {
      const result = await work(tx);
      await noteAnswer(tx, key, action, result);
      return result;
    });
  } catch (error) {
    // Two at the same moment: the one that came second finds the first one's answer, whichever constraint it met first.
    const first = brokenConstraint(error) === null ? undefined : await answeredBefore<Result>(ctx, key, action);
    if (first) return first;
    throw error;
  }
}
