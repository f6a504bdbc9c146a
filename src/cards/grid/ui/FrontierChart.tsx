import { PointChart } from '../../../components/PointChart';
import { plainNumber } from '../../../core/quantities/format';
import type { GridFinding } from '../find';

/** Every cell's lightness against the time of a 10 x 10 cm fill, the frontier joined. The cells on the mat say the same in words. */
export function FrontierChart({
  finding: { candidates, frontier },
  selected,
  onSelect,
}: {
  finding: GridFinding;
  selected: number | null;
  onSelect: (cellIndex: number) => void;
}) {
  const points = candidates.map(({ cellIndex, timeS, lightness }) => ({
    x: timeS / 60,
    y: lightness,
    cellIndex,
    hollow: !frontier.includes(cellIndex),
  }));
  return (
    <PointChart
      label={`Lightness against time, ${frontier.length} cells on the frontier`}
      x={{ title: 'min for 10 × 10 cm', show: (value) => plainNumber(value, 2), log: true }}
      y={{ title: 'L*', show: (value) => plainNumber(value, 3) }}
      points={points}
      fit={points
        .filter(({ hollow }) => !hollow)
        .sort((a, b) => a.x - b.x)
        .map(({ x, y }) => ({ x, y, low: y, high: y }))}
      selected={selected}
      onSelect={onSelect}
    />
  );
}
