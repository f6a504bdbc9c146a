import type { CellThrough } from './observations';

/** A square lets so much through where it has dropped, and so little where it is still there; between the two it may lie askew in its hole. */
export const OPEN_FROM = 0.6;
export const SHUT_TO = 0.25;

/** Whether a part has dropped, by how much of a light table's light comes through its middle. */
export function holeOf({ through, doubts }: Pick<CellThrough, 'through' | 'doubts'>): 'open' | 'shut' | 'unsure' {
  if (doubts.length > 0) return 'unsure';
  return through >= OPEN_FROM ? 'open' : through <= SHUT_TO ? 'shut' : 'unsure';
}
