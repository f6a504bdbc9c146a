import type { CellThrough } from './observations';

/**
 * What a clear sheet lets through at the least. Both faces of plastic of index 1.49 send 7.4 % of the light back, so that 92.6 % is left of it (Fresnel's
 * equations at right angles, all reflections counted); the rest is for sheets that are a little tinted or scratched.
 */
const CLEAR_SHEET = 0.8;
/** A cell is clear that lets so much of what the clearest one does through, and its darkest tenth so much. */
const AS_CLEAR = 0.95;
const DARKEST_AS_CLEAR = 0.85;

/**
 * Whether the coat is off each cell of a card that lay on a light table, by cell index: as clear as the clearest cell, evenly, where that lets through what
 * a clear sheet does. Null where the photo leaves it open: in doubt, or not sure enough to tell the one from the other.
 */
export function clearedCells(cells: readonly CellThrough[]): ReadonlyMap<number, boolean | null> {
  const sound = cells.filter(({ doubts }) => doubts.length === 0);
  const clearest = sound.reduce<CellThrough | null>(
    (best, cell) => (cell.through > (best?.through ?? 0) ? cell : best),
    null,
  );
  const isClear = clearest !== null && clearest.through + 2 * clearest.sigma >= CLEAR_SHEET;
  return new Map(
    cells.map((cell) => {
      if (cell.doubts.length > 0 || clearest === null) return [cell.cellIndex, null];
      if (!isClear) return [cell.cellIndex, false];
      const least = AS_CLEAR * clearest.through;
      const unsure = 2 * Math.hypot(cell.ownSigma, clearest.ownSigma);
      if (cell.through < least - unsure || cell.darkestTenth < DARKEST_AS_CLEAR * clearest.through)
        return [cell.cellIndex, false];
      return [cell.cellIndex, cell.through >= least && unsure <= clearest.through - least ? true : null];
    }),
  );
}
