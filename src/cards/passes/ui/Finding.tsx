import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatSpeed, plainNumber } from '../../../core/quantities/format';
import { findPasses, type PassCount } from '../find';

/** How many of each count of passes dropped, and with their tips. */
export default function PassesFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findPasses(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { counts, best } = finding;
  const rowOf = ({ passes, settings, told, dropped, whole, blackEdges }: PassCount): [string, string] => [
    `${passes} ${passes === 1 ? 'pass' : 'passes'}, ${formatSpeed(settings.speedMmPerS, liked)}`,
    `${dropped} of ${told} dropped, ${whole} whole${blackEdges > 0 ? `, ${blackEdges} with black edges` : ''}`,
  ];
  const countOf = new Map(counts.flatMap((count) => count.cells.map((cell) => [cell, count] as const)));
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep these passes"
      ringed={best?.cells ?? []}
      words={(cell) => {
        const count = countOf.get(cell.index);
        return count ? rowOf(count)[1] : '';
      }}
      rows={counts.map(rowOf)}
      caption="Shapes that dropped whole, of those that were cut in as many passes: all with one energy."
      chart={
        counts.length > 0 && (
          <PointChart
            label="Dropped whole by passes"
            x={{
              title: 'passes',
              show: (value) => (Number.isInteger(value) ? String(value) : ''),
              from: 0.5,
              to: Math.max(...counts.map(({ passes }) => passes)) + 0.5,
            }}
            y={{ title: 'of 100', show: (value) => (value > 100 ? '' : plainNumber(value, 3)), from: 0, to: 110 }}
            points={counts.map(({ passes, told, whole, cells }) => ({
              x: passes,
              y: (100 * whole) / told,
              cellIndex: cells[0]!,
            }))}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
