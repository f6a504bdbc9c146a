import { Figures } from '../../components/BenchFrame';
import { chancesAt, FIT_WORDS, FITS, keptBounds, movedBounds, USUAL_FITS } from '../../core/fit/fit-bounds';
import type { FactValues } from '../../core/book/fact-values';
import type { KeptJoints } from '../../views/views';
import type { SumsPartProps } from './sums-parts';

/** The fits that sums go by: those of the book that were chosen, or what is usual. */
export const keptOf = ({ fits, sums }: Pick<SumsPartProps, 'fits' | 'sums'>) =>
  fits.find(({ factId }) => factId === sums.fit);

/** Where fits of a joint begin by what is between hole and part once they are cut. */
export const trueBounds = (value: FactValues['mating']) =>
  movedBounds(keptBounds(value), value.holeKerfMm + value.partKerfMm);

interface Props extends Pick<SumsPartProps, 'fits' | 'sums'> {
  /** A joint that was tried, which tells more of a part and its hole than slots do; left out where none is chosen. */
  readonly joint?: KeptJoints[number] | undefined;
  readonly clearanceMm: number;
  /** Standard uncertainty of it. */
  readonly sigmaMm: number;
}

/** What comes out of a hundred joints that have so much between them once they are cut. */
export function Chances({ fits, sums, joint, clearanceMm, sigmaMm }: Props) {
  const kept = keptOf({ fits, sums });
  // Fits are kept by how slots were drawn; a cut makes them wider.
  const bounds = joint
    ? trueBounds(joint.value)
    : kept
      ? movedBounds(keptBounds(kept.value), sums.kerf ?? 0)
      : USUAL_FITS;
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
        {joint
          ? `By the holes and parts that were tried in ${joint.stock}.`
          : kept
            ? `By the slots that were tried in ${kept.stock}.`
            : 'By where fits begin on most stock, which differs by tenths of a millimetre: try a comb of slots to know yours.'}
      </p>
    </>
  );
}
