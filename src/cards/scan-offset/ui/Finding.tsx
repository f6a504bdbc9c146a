import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { letterOf } from '../../../core/card/channels';
import { offsetSigmaAt } from '../../../core/fit/lag';
import { shorterAt } from '../../../core/motion/dot-length';
import { scanOffsetAt } from '../../../core/motion/lag';
import { formatLength, formatSpeed, plainNumber } from '../../../core/quantities/format';
import { findScanOffset } from '../find';

const STEPS = 24;

/** A law from rest to its fastest speed, with twice its standard uncertainty to both sides. */
const overSpeeds = (
  { toMmPerS }: { readonly toMmPerS: number },
  at: (speedMmPerS: number) => readonly [mm: number, sigmaMm: number],
): { x: number; y: number; low: number; high: number }[] =>
  Array.from({ length: STEPS + 1 }, (_, step) => (toMmPerS * step) / STEPS).map((x) => {
    const [y, sigma] = at(x);
    return { x, y, low: y - 2 * sigma, high: y + 2 * sigma };
  });

/** Scan offsets that pairs of bars ask for over speed, with the lag that explains them. */
export default function ScanOffsetFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findScanOffset(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { pairs, law, fastest, direction, dots } = finding;
  const said = new Map(pairs.map((pair) => [pair.cellIndex, pair]));
  const longer = new Map(dots.pairs.map((pair) => [pair.cellIndex, pair]));
  // Less than a ten-thousandth of a millimetre is nothing that a photo tells.
  const length = (mm: number): string => {
    const told = Math.round(mm * 1e4) / 1e4 + 0;
    return `${told > 0 ? '+' : ''}${formatLength(told, liked, 2)}`;
  };
  const within = (sigma: number): string => `± ${formatLength(2 * sigma, liked, 2)}`;
  const curve = law && overSpeeds(law, (speed) => [scanOffsetAt(law, speed), offsetSigmaAt(law, speed)]);
  const dotLaw = dots.law;
  const dotCurve =
    dotLaw && overSpeeds(dotLaw, (speed) => [dotLaw.standingMm - shorterAt(dotLaw, speed), dotLaw.sigmaAt(speed)]);
  const speeds = {
    title: `speed, ${liked.speed}`,
    show: (value: number) => letterOf('speed', value, liked).text,
    from: 0,
  };
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={fastest ? 'Keep this scan offset' : null}
      ringed={pairs.map(({ cellIndex }) => cellIndex)}
      words={(cell) => {
        const pair = said.get(cell.index);
        const dot = longer.get(cell.index);
        return [
          pair ? `scan offset ${length(pair.offsetMm)} ${within(pair.sigmaMm)}` : '',
          dot ? `dots ${length(dot.longerMm)} longer than drawn ${within(dot.sigmaMm)}` : '',
        ]
          .filter(Boolean)
          .join(', ');
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
              ...(dotLaw && dots.fastest
                ? ([
                    [
                      `Dots at ${formatSpeed(dotLaw.toMmPerS, liked)} against rest`,
                      `${length(-dots.fastest.shorterMm)} ${within(dots.fastest.shorterSigmaMm)}`,
                    ],
                    ['Dots at rest against drawn', `${length(dotLaw.standingMm)} ${within(dotLaw.standingSigmaMm)}`],
                  ] as const)
                : []),
              ['Pairs told', `${pairs.length} of ${card.layout.order.length}`],
            ]
          : []
      }
      caption="Each point is a pair of bars: by how much the lines of the way back must be laid further along to meet those of the way there, and how much longer than drawn the bars came out along the sweep, all as if as deep as the fastest. Both hold for every stock on this machine, and new cards are planned with them."
      chart={
        pairs.length > 0 && (
          <>
            <PointChart
              label="Scan offset over speed"
              x={speeds}
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
            {dots.pairs.length > 0 && (
              <PointChart
                label="Length of a dot over speed"
                x={speeds}
                y={{ title: 'longer than drawn, mm', show: (value) => plainNumber(value, 2) }}
                points={dots.pairs.map((pair) => ({
                  x: pair.speedMmPerS,
                  y: pair.longerMm,
                  sigma: pair.sigmaMm,
                  cellIndex: pair.cellIndex,
                }))}
                {...(dotCurve ? { fit: dotCurve } : {})}
                selected={props.selected}
                onSelect={props.onSelect}
              />
            )}
          </>
        )
      }
    />
  );
}
