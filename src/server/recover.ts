import type { AppContext } from '../app/context';
import { forgetOldLadders } from '../app/ladders';
import { interruptOpenBurns } from '../db/burns';

/**
 * After a server that died: burns under way are marked interrupted, photos not yet read go back in line. After one of another version: ladders that it
 * kept are forgotten.
 */
export async function recover(ctx: AppContext): Promise<void> {
  const interrupted = await interruptOpenBurns(ctx.db, ctx.now());
  await forgetOldLadders(ctx);
  const waiting = await ctx.readings.resume();
  if (interrupted.length > 0) ctx.log.warn({ burns: interrupted }, 'burns were interrupted');
  if (waiting > 0) ctx.log.info({ photos: waiting }, 'photos go on being read');
}
