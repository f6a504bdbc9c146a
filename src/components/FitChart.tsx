import { chancesAt, FIT_WORDS, FITS, type Fit, type FitBounds } from '../core/fit/fit-bounds';
import { plainNumber } from '../core/quantities/format';
import { PointChart } from './PointChart';

const CURVE_STEPS = 40;

interface Props {
  readonly label: string;
  /** What stands across, in millimetres. */
  readonly across: string;
  readonly tried: readonly { readonly x: number; readonly fit: Fit; readonly cellIndex: number }[];
  readonly bounds: FitBounds | null;
  /** The drawn clearance at a place across. */
  readonly clearanceAt: (x: number) => number;
  readonly selected: number | null;
  readonly onSelect: (cellIndex: number) => void;
}

/** How each of several joints went, from too tight to too loose, and what is to be expected between them. */
export function FitChart({ label, across, tried, bounds, clearanceAt, selected, onSelect }: Props) {
  const places = tried.map(({ x }) => x);
  const [low, high] = [Math.min(...places), Math.max(...places)];
  const expected =
    bounds && tried.length > 1
      ? Array.from({ length: CURVE_STEPS + 1 }, (_, step) => {
          const x = low + ((high - low) * step) / CURVE_STEPS;
          const chances = chancesAt(bounds, clearanceAt(x));
          const y = FITS.reduce((sum, fit, rank) => sum + rank * chances[fit], 0);
          return { x, y, low: y, high: y };
        })
      : [];
  return (
    <PointChart
      label={label}
      x={{ title: across, show: (value) => plainNumber(value, 3) }}
      y={{
        title: '',
        show: (value) => (Number.isInteger(value) ? (FIT_WORDS[FITS[value] ?? 'no'] ?? '') : ''),
        from: 0,
        to: FITS.length - 1,
      }}
      points={tried.map(({ x, fit, cellIndex }) => ({ x, y: FITS.indexOf(fit), cellIndex }))}
      fit={expected}
      selected={selected}
      onSelect={onSelect}
    />
  );
}
