import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { deliveredPowerW } from '../../../core/machine/machine';
import { formatLength, formatPower, plainNumber } from '../../../core/quantities/format';
import { findLineWidth, foretold } from '../find';

/** Widths of single lines over power, with the law that they follow, and what it says of the beam. */
export default function LineWidthFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const { machine } = card.madeFor;
  const liked = machine.likedUnits;
  const finding = useMemo(
    () => findLineWidth(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { lines, law, strongest } = finding;
  const said = new Map(lines.map((line) => [line.cellIndex, line]));
  const length = (mm: number, digits = 3): string => formatLength(mm, liked, digits);
  const ends = [lines[0]?.powerFraction ?? 0, lines.at(-1)?.powerFraction ?? 0] as const;
  const curve =
    law &&
    Array.from({ length: 40 }, (_, step) => ends[0] * (ends[1] / ends[0]) ** (step / 39)).map((fraction) => {
      const y = foretold(law, fraction, (power) => deliveredPowerW(machine, power));
      return { x: 100 * fraction, y, low: y, high: y };
    });
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep={strongest ? 'Keep this line width' : null}
      ringed={
        strongest
          ? lines
              .filter(({ powerFraction }) => powerFraction === strongest.powerFraction)
              .map(({ cellIndex }) => cellIndex)
          : []
      }
      words={(cell) => {
        const line = said.get(cell.index);
        return line ? `${length(line.widthMm)} wide, ragged by ${length(line.raggedMm, 2)}` : '';
      }}
      rows={[
        ...(strongest
          ? ([
              [
                `Line at ${formatPower(strongest.powerFraction)}`,
                `${length(strongest.widthMm)} ± ${length(2 * strongest.sigmaMm, 2)}`,
              ],
              ['Lines told', `${lines.length} of ${card.layout.order.length}`],
            ] as const)
          : []),
        ...(law
          ? ([
              ['Beam across the lines, 1/e²', `${length(law.spotMm)} ± ${length(2 * law.spotSigmaMm, 2)}`],
              [
                'Half of full strength from',
                `${formatPower(law.thresholdFraction)}, between ${formatPower(law.thresholdLow)} and ${formatPower(law.thresholdHigh)}`,
              ],
            ] as const)
          : []),
      ]}
      caption="Each point is a line: how wide it is where it has half of its own strength. The curve is what a Gaussian beam would mark, by the widths where lines have half of the strongest one’s strength: faint lines do not reach that, and lie beside it."
      chart={
        lines.length > 0 && (
          <PointChart
            label="Line width over power"
            x={{ title: 'power, %', show: (value) => plainNumber(value, 2), log: true }}
            y={{ title: 'width, mm', show: (value) => plainNumber(value, 2), from: 0 }}
            points={lines.map((line) => ({
              x: line.powerFraction * 100,
              y: line.widthMm,
              sigma: line.sigmaMm,
              cellIndex: line.cellIndex,
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
