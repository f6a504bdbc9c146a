import { MARKER_MODULES, markerModules } from '../card/markers';
import type { Rect } from '../geometry/point';

/** Modules of one row that follow each other are one bar; each reaches a little under the next row, so that no printer leaves a gap. */
const UNDERLAP_MM = 0.02;

/** The bars of a marker, row by row, in mm. */
export function markerBars(id: number, x: number, y: number, sizeMm: number): Rect[] {
  const modules = markerModules(id);
  const side = sizeMm / MARKER_MODULES;
  const bars: Rect[] = [];
  for (let row = 0; row < MARKER_MODULES; row++)
    for (let column = 0; column < MARKER_MODULES;) {
      let end = column;
      while (end < MARKER_MODULES && modules[row * MARKER_MODULES + end]) end++;
      const below = row < MARKER_MODULES - 1 ? UNDERLAP_MM : 0;
      if (end > column)
        bars.push({ x: x + column * side, y: y + row * side, width: (end - column) * side, height: side + below });
      column = end + 1;
    }
  return bars;
}
