import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatLength, formatSpeed, plainNumber } from '../../../core/quantities/format';
import { findRunUp, judgedWords, SEEN_L } from '../find';

/** How much more bars are burned at their ends than in their middle, over run-up, and the least that makes them even. */
export default function RunUpFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findRunUp(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { bars, leastMm, shortMm, speedMmPerS, direction } = finding;
  const said = new Map(bars.flatMap((bar) => bar.cells.map((cellIndex) => [cellIndex, bar] as const)));
  const length = (mm: number): string => formatLength(mm, liked, 2);
  const ends = [bars[0]?.runUpMm ?? 0, bars.at(-1)?.runUpMm ?? 0];
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={leastMm === null ? null : 'Keep this run-up'}
      ringed={bars.find(({ runUpMm }) => runUpMm === leastMm)?.cells ?? []}
      words={(cell) => {
        const bar = said.get(cell.index);
        return bar ? judgedWords(bar) : '';
      }}
      rows={
        leastMm === null
          ? []
          : [
              ['Lines run', direction === 'horizontal' ? 'along X' : 'along Y'],
              [`Least run-up at ${formatSpeed(speedMmPerS, liked)}`, length(leastMm)],
              ['Too short', shortMm === null ? 'none that was tried' : length(shortMm)],
            ]
      }
      caption={`Each point is one run-up: by how much the worse end of its bars is burned more than the middle. Within the band of ${SEEN_L} L* no eye sees it. Faster lines need more, by the square of their speed; new cards on this machine are planned with it.`}
      chart={
        bars.some(({ strongerBy }) => strongerBy !== null) && (
          <PointChart
            label="Strength of the worse end over run-up"
            x={{ title: 'run-up, mm', show: (value) => plainNumber(value, 2), from: 0 }}
            y={{ title: 'end stronger by, L*', show: (value) => plainNumber(value, 2) }}
            points={bars.flatMap(({ runUpMm, strongerBy, sigma, cells }) =>
              strongerBy === null ? [] : [{ x: runUpMm, y: strongerBy, sigma: sigma!, cellIndex: cells[0]! }],
            )}
            fit={ends.map((x) => ({ x, y: 0, low: -SEEN_L, high: SEEN_L }))}
            {...(leastMm === null
              ? {}
              : { pick: { x: leastMm, ...(shortMm === null ? {} : { low: shortMm, high: leastMm }) } })}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
