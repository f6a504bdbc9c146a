import { Figures } from '../../components/BenchFrame';
import { chancesAt, FIT_WORDS, FITS, keptBounds, movedBounds, USUAL_FITS } from '../../core/fit/fit-bounds';
import type { SumsPartProps } from './sums-parts';

/** The fits that sums go by: those of the book that were chosen, or what is usual. */
export const keptOf = ({ fits, sums }: Pick<SumsPartProps, 'fits' | 'sums'>) =>
  fits.find(({ factId }) => factId === sums.fit);

interface Props extends Pick<SumsPartProps, 'fits' | 'sums'> {
  readonly clearanceMm: number;
  /** Standard uncertainty of it. */
  readonly sigmaMm: number;
}

/** What comes out of a hundred joints that have so much between them once they are cut. */
export function Chances({ fits, sums, clearanceMm, sigmaMm }: Props) {
  const kept = keptOf({ fits, sums });
  // Fits are kept by how slots were drawn; a cut makes them wider.
  const bounds = kept ? movedBounds(keptBounds(kept.value), sums.kerf ?? 0) : USUAL_FITS;
  const chances = chancesAt(bounds, clearanceMm, sigmaMm);
  return (
    <>
      <Figures
        rows={[
          [
            'Of 100',
            FITS.flatMap((fit) => {
              const share = Math.round(100 * chances[fit]);
              return share < 1 ? [] : `${share} ${FIT_WORDS[fit]}`;
            }).join(', '),
          ],
        ]}
      />
      <p>
        {kept
          ? `By the slots that were tried in ${kept.stock}.`
          : 'By where fits begin on most stock, which differs by tenths of a millimetre: try a comb of slots to know yours.'}
      </p>
    </>
  );
}
