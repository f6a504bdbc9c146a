import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { letterOf } from '../../../core/card/channels';
import { offsetSigmaAt } from '../../../core/fit/lag';
import { scanOffsetAt } from '../../../core/motion/lag';
import { formatLength, formatSpeed, plainNumber } from '../../../core/quantities/format';
import { findScanOffset } from '../find';

const STEPS = 24;

/** Scan offsets that pairs of bars ask for over speed, with the lag that explains them. */
export default function ScanOffsetFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findScanOffset(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { pairs, law, fastest, direction } = finding;
  const said = new Map(pairs.map((pair) => [pair.cellIndex, pair]));
  const length = (mm: number, digits = 2): string => `${mm > 0 ? '+' : ''}${formatLength(mm, liked, digits)}`;
  const within = (sigma: number): string => `± ${formatLength(2 * sigma, liked, 2)}`;
  const curve =
    law &&
    Array.from({ length: STEPS + 1 }, (_, step) => (law.toMmPerS * step) / STEPS).map((speed) => {
      const [y, reach] = [scanOffsetAt(law, speed), 2 * offsetSigmaAt(law, speed)];
      return { x: speed, y, low: y - reach, high: y + reach };
    });
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={fastest ? 'Keep this scan offset' : null}
      ringed={pairs.map(({ cellIndex }) => cellIndex)}
      words={(cell) => {
        const pair = said.get(cell.index);
        return pair ? `scan offset ${length(pair.offsetMm)} ${within(pair.sigmaMm)}` : '';
      }}
      rows={
        law && fastest
          ? [
              ['Lines run', direction === 'horizontal' ? 'along X' : 'along Y'],
              [
                `Scan offset at ${formatSpeed(fastest.speedMmPerS, liked)}`,
                `${length(fastest.offsetMm)} ${within(fastest.sigmaMm)}`,
              ],
              [
                law.lagS >= 0 ? 'The beam is late by' : 'The beam is early by',
                `${plainNumber(Math.abs(law.lagS) * 1000, 2)} ms ± ${plainNumber(2000 * law.lagSigmaS, 1)} ms`,
              ],
              ['At every speed', `${length(law.standingMm)} ${within(law.standingSigmaMm)}`],
              ['Pairs told', `${pairs.length} of ${card.layout.order.length}`],
            ]
          : []
      }
      caption="Each point is a pair of bars: by how much the lines of the way back must be laid further along to meet those of the way there. It holds for every stock on this machine, and new cards are planned with it."
      chart={
        pairs.length > 0 && (
          <PointChart
            label="Scan offset over speed"
            x={{ title: `speed, ${liked.speed}`, show: (value) => letterOf('speed', value, liked).text, from: 0 }}
            y={{ title: 'scan offset, mm', show: (value) => plainNumber(value, 2) }}
            points={pairs.map((pair) => ({
              x: pair.speedMmPerS,
              y: pair.offsetMm,
              sigma: pair.sigmaMm,
              cellIndex: pair.cellIndex,
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
