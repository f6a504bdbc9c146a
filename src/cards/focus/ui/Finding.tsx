import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { FocusSketch } from '../../../components/FocusSketch';
import { PointChart } from '../../../components/PointChart';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { findFocus } from '../find';

const LEVELS = { sharp: 0, closed: 1, blurred: 2 } as const;
const WORDS = ['sharp', 'closed', 'blurred'] as const;

/** The focus: where it is sharp, and the least offset at which gaps close. */
export default function FocusFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findFocus(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { patches, waistMm, waistSigmaMm, fillMm, cellIndex, sigmaMm, flat } = finding;
  const said = new Map(
    patches.map((patch) => [patch.cellIndex, `${patch.word}, by ${patch.by === 'eye' ? 'eye' : 'the photo'}`]),
  );
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this offset"
      ringed={cellIndex === null ? [] : [cellIndex]}
      words={(cell) => said.get(cell.index) ?? ''}
      rows={
        fillMm === null
          ? []
          : [
              ['For fills', flat ? 'flat: stay at 0' : `${fillMm > 0 ? '+' : ''}${formatLength(fillMm, liked)}`],
              ['How sure', sigmaMm === null ? 'not known' : `± ${formatLength(2 * sigmaMm, liked, 2)}`],
              [
                'Sharpest at',
                waistMm === null
                  ? 'not bounded'
                  : `${formatLength(waistMm, liked)} ± ${formatLength(2 * (waistSigmaMm ?? 0), liked, 2)}`,
              ],
            ]
      }
      caption="Plus raises the head from the focus you set, minus lowers it."
      chart={
        patches.length > 0 && (
          <>
            <PointChart
              label="Looks over focus offset"
              x={{ title: 'focus offset, mm', show: (value) => plainNumber(value, 2) }}
              y={{ title: 'lines', show: (value) => WORDS[value] ?? '', from: -0.3, to: 2.3 }}
              points={patches.map((patch) => ({
                x: patch.offsetMm,
                y: LEVELS[patch.word],
                cellIndex: patch.cellIndex,
              }))}
              {...(fillMm === null ? {} : { pick: { x: fillMm } })}
              selected={props.selected}
              onSelect={props.onSelect}
            />
            {fillMm !== null && <FocusSketch offsetMm={fillMm} liked={liked} />}
          </>
        )
      }
    />
  );
}
