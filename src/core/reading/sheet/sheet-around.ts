import { invertHomography, project, type Homography } from '../../geometry/homography';
import type { SheetAround } from '../light/added-over-sheet';
import type { TonesBySheet } from './sheet-tones';

/** What a sheet in a photo tells, in mm of itself or of a card that lies on it as flat as it; `toPhoto` maps those to photo pixels. */
export function sheetAround(
  { paperLightAt, added }: Pick<TonesBySheet, 'paperLightAt' | 'added'>,
  toPhoto: Homography,
): SheetAround {
  const toCard = invertHomography(toPhoto);
  return {
    paperLight: (x, y) => paperLightAt(project(toPhoto, x, y)),
    greys: added.map((grey) => ({ ...grey, ...project(toCard, grey.x, grey.y) })),
  };
}
