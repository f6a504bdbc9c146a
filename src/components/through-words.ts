import { plainNumber } from '../core/quantities/format';
import { holeOf } from '../core/reading/backlit/holes';
import type { Backlit, CellThrough, ThroughDoubt } from '../core/reading/backlit/observations';

const percent = (share: number): string => `${plainNumber(100 * share, 2)} %`;

/** How much light comes through a cell, and what that says of its coat. */
export function throughWords(
  { through, sigma }: Pick<CellThrough, 'through' | 'sigma'>,
  cleared: boolean | null = null,
): string {
  const coat = cleared === null ? 'whether the coat is off is not told' : cleared ? 'the coat is off' : 'coat is left';
  return `${percent(through)} ± ${percent(2 * sigma)}: ${coat}`;
}

const DOUBTS: Readonly<Record<ThroughDoubt, string>> = {
  'blown-out': 'it is as bright as the camera can tell: take it darker',
  blurred: 'the photo shows too few pixels of it: take it nearer',
  'off-frame': 'the card is not quite where the markers say',
  'room-light':
    'bare stock sends more light than a coat lets through, and so may the cell: switch the room’s lamps off, or take the photo on a light table that is on',
  'tones-unknown': 'what this camera makes of tones so far from open light is not known',
  'half-open': 'it is neither open nor shut: a part may lie askew in its hole',
  'photos-disagree': 'photos of it contradict each other: leave the worse one aside, or take one more',
};

/** Whether a part has dropped out of a sheet on a light table. */
export const holeWords = (cell: Pick<CellThrough, 'through' | 'doubts'>): string =>
  ({ open: 'open: it has dropped', shut: 'shut: it is still there', unsure: 'neither open nor shut' })[holeOf(cell)];

/** Why what a light table shows of a cell is in doubt, each reason in words. */
export const throughDoubtWords = ({ doubts }: Pick<CellThrough, 'doubts'>): string =>
  doubts.map((doubt) => DOUBTS[doubt]).join('; ');

/** What a light table shows of the stock between the cells. */
export function bareThroughWords({ bareThrough, pinholes }: Pick<Backlit, 'bareThrough' | 'pinholes'>): string {
  const holes =
    pinholes.count === 0 ? 'no pinhole' : pinholes.count === 1 ? 'one pinhole' : `${pinholes.count} pinholes`;
  return `${percent(bareThrough)}, ${holes} on ${plainNumber(pinholes.areaMm2 / 100, 2)} cm²`;
}
