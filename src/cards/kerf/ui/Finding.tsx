import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { findKerf, type AxisKerf } from '../find';

/** The kerf along each axis, full width and per side, from what the squares measured. */
export default function KerfFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findKerf(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { x, y, stuck } = finding;
  const rows = (axis: AxisKerf | null, name: string): [string, string][] =>
    axis
      ? [
          [
            `Along ${name}, full width`,
            `${formatLength(axis.kerf.mean, liked, 3)} ± ${formatLength(axis.kerf.expanded95, liked, 2)}`,
          ],
          [`Along ${name}, per side`, formatLength(axis.kerf.mean / 2, liked, 3)],
          [`Along ${name}, readings`, String(axis.kerf.readings)],
          ...(axis.odd.length > 0
            ? [
                [`Along ${name}, look again at`, axis.odd.map((index) => `square ${index + 1}`).join(', ')] as [
                  string,
                  string,
                ],
              ]
            : []),
        ]
      : [];
  const points = [...(x?.points ?? []), ...(y?.points ?? [])].map((point, index) => ({
    x: point.cellIndex + 1 + (index < (x?.points.length ?? 0) ? -0.08 : 0.08),
    y: point.kerfMm,
    cellIndex: point.cellIndex,
  }));
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this kerf"
      ringed={[]}
      words={(cell) => (stuck.includes(cell.index) ? 'did not drop' : '')}
      rows={[...rows(x, 'X'), ...rows(y, 'Y')]}
      caption="Each point is one reading: drawn size less measured size. Left of each number along X, right of it along Y."
      chart={
        points.length > 0 && (
          <PointChart
            label="Kerf of each reading"
            x={{
              title: 'square',
              show: (value) => (Number.isInteger(value) ? String(value) : ''),
              from: 0.5,
              to: card.layout.cells.length + 0.5,
            }}
            y={{ title: 'kerf, mm', show: (value) => plainNumber(value, 3) }}
            points={points}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}
