import { rectRing } from '../../card/shape';
import { fitHomography } from '../../geometry/homography';
import { grown } from '../../geometry/point';
import { meanAndSpread, quantile } from '../../stats/robust';
import { luminancesIn } from '../pixels-of-area';
import { isClockwiseQuad } from '../quad';
import { DRAGGED_ERROR_MM, LEAST_SIDE_PX } from '../read-card';
import { scaleAtCentre, straightened } from '../straighten';
import { OPEN_FROM, SHUT_TO } from './holes';
import type { CellThrough, ThroughDoubt } from './observations';
import type { BacklitRequest, BacklitResult } from './read-backlit';

/** The middle of a square, where no cut and no place set by hand a little beside it reaches. */
const INNER = 0.6;
/** The lit places of a card, cuts and holes, are its brightest hundredth at the least; its sheet the darkest tenth. */
const LIT_FROM = 0.99;
const SHEET_TO = 0.1;
/** Less light than so many times the sheet's is none of a table: nothing is cut through, or it is not lit. */
const LEAST_CONTRAST = 4;
/** Light of a table differs by about so much over a card. */
const SIGMA = 0.1;

/**
 * Reads a photo of a sheet with cut squares on a light table, its parts that dropped taken out: placed by the outer corners of its corner squares, set by
 * hand; a hole is as bright as the brightest of the card, a square that is still there as dark as its sheet. No open table need be seen: sheets are
 * larger than their cards, and a hole may be as bright as the camera can tell. Clear stock lets the light through by itself, and is refused for want
 * of contrast. Results and reasons as of `readBacklit`.
 */
export function readHoles({
  photo,
  layout,
  corners,
  onProgress,
}: Pick<BacklitRequest, 'photo' | 'layout' | 'corners' | 'onProgress'>): BacklitResult {
  if (Math.min(photo.width, photo.height) < LEAST_SIDE_PX) return { outcome: 'unreadable', reason: 'too-small' };
  if (!corners) return { outcome: 'needs-corners', markers: 0 };
  if (!isClockwiseQuad(corners)) return { outcome: 'unreadable', reason: 'bad-corners' };
  onProgress?.('straightening');
  const toPhoto = fitHomography(rectRing(layout.inner), corners).homography;
  const rectified = straightened(photo, toPhoto, layout);
  const all = luminancesIn(rectified, layout.inner);
  const [sheet, lit] = [quantile(all, SHEET_TO), quantile(all, LIT_FROM)];
  if (!(lit > LEAST_CONTRAST * Math.max(sheet, 1e-4))) return { outcome: 'unreadable', reason: 'no-holes' };

  onProgress?.('reading cells');
  const shareOf = (light: number): number => Math.min(1, Math.max(0, (light - sheet) / (lit - sheet)));
  const cells = layout.order
    .map((cellIndex): CellThrough => {
      const { box } = layout.cells[cellIndex]!;
      const side = Math.min(box.width, box.height);
      const light = luminancesIn(rectified, grown(box, (-(1 - INNER) * side) / 2));
      const through = shareOf(meanAndSpread(light).mean);
      const doubts: ThroughDoubt[] = through > SHUT_TO && through < OPEN_FROM ? ['half-open'] : [];
      return { cellIndex, through, sigma: SIGMA, ownSigma: SIGMA, darkestTenth: shareOf(quantile(light, 0.1)), doubts };
    })
    .sort((a, b) => a.cellIndex - b.cellIndex);
  return {
    outcome: 'read',
    cells,
    bareThrough: sheet / lit,
    // Nobody counts specks in a sheet that has no coat.
    pinholes: { count: 0, areaMm2: 0 },
    toPhoto,
    markers: 0,
    frameErrorMm: DRAGGED_ERROR_MM,
    photoPxPerMm: scaleAtCentre(toPhoto, layout),
    alsoSeen: [],
    rectified,
    open: { at: () => lit, sigma: SIGMA },
    // Whether there is a hole is told by light and dark alone.
    tones: { told: 'by-one-photo', cameraIsTrue: false },
  };
}
