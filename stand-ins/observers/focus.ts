import { GAPS_FIELD, type FocusFinding } from '../../src/cards/focus/find';
import { mainBurn } from '../../src/core/card/layout';
import { lineContrast, looksAtPhoto, normalOf } from './measures';
import { photographed } from './photographed';
import type { Burned, Observer } from './observer';

/** Gaps are plain, just close, or are gone, at these contrasts of lines; give or take a tenth. */
const SHARP_FROM = 0.12;
const CLOSED_FROM = 0.03;
const UNSURE = 0.1;

function patches({ piece, layout }: Burned): { cellIndex: number; offsetMm: number; contrast: number }[] {
  return layout.cells
    .map((cell) => ({
      cellIndex: cell.index,
      offsetMm: mainBurn(cell).settings.focusOffsetMm,
      contrast: lineContrast(piece, cell.box, mainBurn(cell).settings.direction),
    }))
    .sort((a, b) => a.offsetMm - b.offsetMm);
}

export const focusObserver: Observer<FocusFinding> = {
  on: ['marl', 'alder'],
  look: (burned, seed) =>
    looksAtPhoto(seed)
      ? photographed(burned, seed)
      : {
          readings: [],
          answers: patches(burned).map(({ cellIndex, contrast }) => {
            const seen = contrast * (1 + UNSURE * normalOf(`${seed} ${cellIndex}`));
            const value = seen > SHARP_FROM ? 'sharp' : seen > CLOSED_FROM ? 'closed' : 'blurred';
            return { field: GAPS_FIELD, cellIndex, repeat: 0, value };
          }),
        },
  // The offset of the strongest lines, by a parabola through the strongest patch and its neighbours.
  truth: (burned) => {
    const all = patches(burned);
    const top = all.reduce((best, patch, index) => (patch.contrast > all[best]!.contrast ? index : best), 0);
    const [below, at, above] = [all[top - 1], all[top], all[top + 1]];
    if (!below || !at || !above) return [NaN];
    const bend = below.contrast - 2 * at.contrast + above.contrast;
    return [at.offsetMm + ((at.offsetMm - below.offsetMm) * (below.contrast - above.contrast)) / (2 * bend)];
  },
  claims: ({ waistMm, waistSigmaMm }) => [[waistMm! - 2 * waistSigmaMm!, waistMm! + 2 * waistSigmaMm!]],
  widestClaim: 0.6,
};
