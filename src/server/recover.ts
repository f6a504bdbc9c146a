import type { AppContext } from '../app/context';
import { interruptOpenBurns } from '../db/burns';

/** After a server that died: burns under way are marked interrupted, photos not yet read go back in line. */
export async function recover(ctx: AppContext): Promise<void> {
  const interrupted = await interruptOpenBurns(ctx.db, ctx.now());
  const waiting = await ctx.readings.resume();
  if (interrupted.length > 0) ctx.log.warn({ burns: interrupted }, 'burns were interrupted');
  if (waiting > 0) ctx.log.info({ photos: waiting }, 'photos go on being read');
}
