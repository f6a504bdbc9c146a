import { logPage } from '../db/logbook';
import type { LogRow } from '../records/burn';
import type { Page } from '../views/views';
import type { AppContext } from './context';

export const BURNS_A_PAGE = 50;

/** A page of burns, newest first. */
export async function logbookView(ctx: AppContext, page: number): Promise<Page<LogRow>> {
  const limit = BURNS_A_PAGE;
  const offset = (page - 1) * limit;
  return { ...(await logPage(ctx.db, { limit, offset })), limit, offset };
}
