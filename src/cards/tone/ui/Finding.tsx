import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { PICTURE_MODE_NAMES } from '../../../core/picture/mode';
import { formatStrength, plainNumber } from '../../../core/quantities/format';
import { findTone, gainWords } from '../find';

const STEPS = 64;

/** How strong each grey came out, the curve through it, and how far that lies off a straight line. */
export default function ToneFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const finding = useMemo(
    () => findTone(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { patches, fit, table, offL, gain, mode, corrected } = finding;
  const said = new Map(patches.map((patch) => [patch.cellIndex, patch]));
  const curve =
    fit &&
    Array.from({ length: STEPS + 1 }, (_, step) => step / STEPS).map((grey) => {
      const strength = fit.strengthAt(grey);
      return { x: 100 * grey, y: strength, low: strength, high: strength };
    });
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={table === null ? null : 'Keep this tone table'}
      ringed={[]}
      words={(cell) => {
        const patch = said.get(cell.index);
        return patch ? formatStrength(patch) : '';
      }}
      rows={
        fit && offL !== null
          ? [
              ['Greys', `${PICTURE_MODE_NAMES[mode]}${corrected ? ', corrected by the kept table' : ''}`],
              ['Black', `${plainNumber(fit.strongest, 3)} L* from bare stock`],
              [
                corrected ? 'Off a straight line' : 'Off a straight line, uncorrected',
                `${plainNumber(offL, 2)} L* rms`,
              ],
              ...(fit.scatter === null
                ? []
                : ([['Patches of one grey differ by', `${plainNumber(fit.scatter, 2)} L* rms`]] as const)),
              ...gain.map((one) => [`Burned as ${plainNumber(100 * one.asked)} %`, gainWords(one)] as const),
            ]
          : []
      }
      caption="Each point is a patch: by how much it differs from bare stock, over the grey that was burned. The table that is kept is this curve turned round: for each grey of a picture it says what to burn so that darkness grows in even steps."
      chart={
        patches.length > 0 && (
          <PointChart
            label="Strength of patches over grey"
            x={{ title: 'grey burned, %', show: (value) => plainNumber(value, 2), from: 0, to: 100 }}
            y={{ title: 'from bare stock, L*', show: (value) => plainNumber(value, 2) }}
            points={patches.map(({ grey, strength, sigma, cellIndex }) => ({
              x: 100 * grey,
              y: strength,
              sigma,
              cellIndex,
            }))}
            {...(curve ? { fit: curve } : {})}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
