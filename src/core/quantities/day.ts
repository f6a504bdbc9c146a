import { endOfDay, lightFormat, parseISO } from 'date-fns';

/**
 * The day of a moment by the workshop's clock. Program, database and browser run on one machine, so its zone is the operator's; moments
 * are stored and exported in UTC. Throws RangeError where that is no moment.
 * Example: in a zone five hours ahead of UTC `dayOf('2026-05-01T20:00:00.000Z')` is `'2026-05-02'`.
 */
export const dayOf = (moment: string): string => lightFormat(parseISO(moment), 'yyyy-MM-dd');

/** Day and minute of a moment by the workshop's clock: `'2026-05-02 01:00'`. Throws RangeError where that is no moment. */
export const minuteOf = (moment: string): string => lightFormat(parseISO(moment), 'yyyy-MM-dd HH:mm');

/**
 * When what is noted of a day of the workshop happened: of today now, since what was kept this morning came before it, of another day at its
 * end, after all that was kept on it. Throws RangeError where either is none.
 */
export const momentOf = (day: string, now: string): string =>
  day === dayOf(now) ? now : endOfDay(parseISO(day)).toISOString();
