import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { FIT_WORDS } from '../../../core/fit/fit-bounds';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { findPart, type MeasuredSize } from '../find';

/** How far each size came out off what was wanted, and how the part went into its slot. */
export default function PartFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findPart(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { sizes, off, stuck, goes, wantedFit } = finding;
  const rowOf = (size: MeasuredSize): [string, string] => {
    const { side, cellIndex, axis, wantedMm, offMm, expectedMm } = size;
    const by = `${offMm > 0 ? '+' : ''}${formatLength(Math.round(offMm * 1000) / 1000, liked, 2)}`;
    return [
      `${side} ${cellIndex + 1} along ${axis.toUpperCase()}`,
      `${formatLength(wantedMm, liked, 4)} wanted: ${by}, up to ${formatLength(expectedMm, liked, 2)} expected`,
    ];
  };
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this part"
      ringed={off.map(({ cellIndex }) => cellIndex)}
      words={(cell) => (stuck.includes(cell.index) ? 'did not drop' : '')}
      rows={[
        ...sizes.map(rowOf),
        ...(goes === null
          ? []
          : [['In its slot', `${FIT_WORDS[goes]}${goes === wantedFit ? ', as wanted' : ''}`] as [string, string]]),
        ['Expected', 'by the kerf’s own doubt, by how far axes usually go wrong, and by the caliper'],
      ]}
      caption="Each point is one size: how much it came out larger or smaller than wanted."
      chart={
        sizes.length > 0 && (
          <PointChart
            label="How far each size is off"
            x={{
              title: 'outline',
              show: (value) => (Number.isInteger(value) ? String(value) : ''),
              from: 0.5,
              to: card.layout.cells.length + 0.5,
            }}
            y={{ title: 'off, mm', show: (value) => plainNumber(value, 2) }}
            points={sizes.map(({ cellIndex, axis, offMm }) => ({
              x: cellIndex + 1 + (axis === 'x' ? -0.1 : 0.1),
              y: offMm,
              cellIndex,
            }))}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
