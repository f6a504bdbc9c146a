import { useMemo } from 'react';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { PointChart } from '../../../components/PointChart';
import { formatLength, plainNumber } from '../../../core/quantities/format';
import { findKerf, scaleWords, surerBy, thousandth, type AxisKerf, type KerfPoint } from '../find';

/** Where readings of a square and of its hole stand beside its number. */
const ASIDE = { part: -0.08, hole: 0.08 } as const;
/** Readings along Y stand further out than those along X. */
const FURTHER = 2.5;

/** The kerf along each axis, full width and per side, from what the squares and their holes measured. */
export default function KerfFindingScreen(props: FindingProps) {
  const { card, reading, answers, known } = props.view;
  const liked = card.madeFor.machine.likedUnits;
  const finding = useMemo(
    () => findKerf(card.layout, { readings: reading?.cells ?? [], answers }, known),
    [card, reading, answers, known],
  );
  const { x, y, stuck } = finding;
  const rows = (axis: AxisKerf | null, name: string): [string, string][] => {
    if (!axis) return [];
    const { mean, expanded95, readings } = axis.kerf;
    const goes = scaleWords(axis);
    const places = axis.odd.map((index) => `square ${index + 1}`).join(', ');
    return [
      [`Along ${name}, full width`, `${formatLength(mean, liked, 3)} ± ${formatLength(expanded95, liked, 2)}`],
      [`Along ${name}, per side`, formatLength(thousandth(mean / 2), liked, 3)],
      [`Along ${name}, readings`, `${readings}, of ${MEASURED[axis.sides]}`],
      ...(goes === null ? [] : [[`Axis ${name} goes`, goes] as [string, string]]),
      ...(axis.odd.length > 0 ? [[`Along ${name}, look again at`, places] as [string, string]] : []),
    ];
  };
  const pointsOf = (axis: AxisKerf | null, times: number) =>
    (axis?.points ?? []).map(({ cellIndex, side, kerfMm }: KerfPoint) => ({
      x: cellIndex + 1 + times * ASIDE[side],
      y: kerfMm,
      cellIndex,
    }));
  const points = [...pointsOf(x, 1), ...pointsOf(y, FURTHER)];
  const first = x ?? y;
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep this kerf"
      ringed={[]}
      words={(cell) => (stuck.includes(cell.index) ? 'did not drop' : '')}
      rows={[
        ...rows(x, 'X'),
        ...rows(y, 'Y'),
        ...(first ? [['Surer by', surerBy(first)] as [string, string]] : []),
        ['Measured at', 'the lower face, where a part is widest and its hole narrowest'],
      ]}
      caption="Each point is one reading: a square by what it lacks, its hole by what it has too much. Left of each number the square, right of it the hole; along Y further out."
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

const MEASURED = { both: 'squares and holes', part: 'squares alone', hole: 'holes alone' } as const;
