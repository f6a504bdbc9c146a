import { useId, useMemo, useRef, type PointerEvent, type ReactNode } from 'react';
import type { Rgb } from '../../core/color/srgb';
import { plainNumber } from '../../core/quantities/format';
import { pictureUrl } from '../picture-url';
import { areasAbove, linesAt, pathOf, type Lattice } from './contour-lines';
import { RAMP_STEPS, rampOf } from './ramp';
import { saveDrawing, saveRows } from './save-text';
import { SaveButtons } from './SaveButtons';
import styles from './SurfaceMap.module.css';

/** One edge of the map. Shares go from 0 at the left, or at the bottom, to 1. */
export interface SurfaceAxis {
  readonly title: string;
  readonly ticks: readonly { readonly share: number; readonly text: string }[];
  /** A place along it in the axis' own number, for the data that is saved. */
  readonly at: (share: number) => number;
}

export interface SurfacePoint {
  readonly x: number;
  readonly y: number;
  readonly colour: string;
  /** Shown with a ring. */
  readonly ringed: boolean;
}

interface Props {
  readonly label: string;
  readonly x: SurfaceAxis;
  readonly y: SurfaceAxis;
  /** Values and their standard uncertainties, from edge to edge, row by row from the top. */
  readonly lattice: Lattice;
  readonly sigmas: readonly number[];
  readonly from: { readonly value: number; readonly colour: string };
  readonly to: { readonly value: number; readonly colour: string };
  /** Along whose line everything looks the same. */
  readonly wanted: number | null;
  /** Where the surface is less sure than this it is hatched. */
  readonly unsureFrom: number;
  readonly points: readonly SurfacePoint[];
  readonly place: { readonly x: number; readonly y: number } | null;
  readonly onPlace: (x: number, y: number) => void;
  readonly tools?: ReactNode;
}

const SIZE = { width: 600, height: 560 } as const;
const PLOT = { left: 84, top: 14, width: 484, height: 462 } as const;
const STEP = 10;
const INK = '#10241d';
const PAPER = '#ffffff';

/** A fitted surface over two settings: its tones, lines of equal tone, where one tone may lie, where it is unsure, and what was measured. */
export function SurfaceMap({
  label,
  x,
  y,
  lattice,
  sigmas,
  from,
  to,
  wanted,
  unsureFrom,
  points,
  place,
  onPlace,
  tools,
}: Props) {
  const drawing = useRef<SVGSVGElement>(null);
  const hatch = useId();
  const { columns, rows, values } = lattice;
  const picture = useMemo(() => {
    const ramp = rampOf(from.colour, to.colour);
    const colourOf = (value: number): Rgb =>
      ramp[Math.round(RAMP_STEPS * Math.min(1, Math.max(0, (value - from.value) / (to.value - from.value))))]!;
    return pictureUrl(columns, rows, (at) => [...colourOf(values[at]!), 255]);
  }, [columns, rows, values, from.colour, from.value, to.colour, to.value]);
  const tens = useMemo(() => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const first = Math.ceil(low / STEP) * STEP;
    const count = Math.max(0, Math.floor((high - first) / STEP) + 1);
    return Array.from({ length: count }, (_, at) => first + at * STEP).map((value) => ({
      value,
      lines: linesAt(lattice, value),
    }));
  }, [lattice, values]);
  const unsure = useMemo(
    () => areasAbove({ columns, rows, values: sigmas }, unsureFrom),
    [columns, rows, sigmas, unsureFrom],
  );
  const same = useMemo(() => {
    if (wanted === null) return { line: [], band: [] };
    const within = values.map((value, at) => 2 * sigmas[at]! - Math.abs(value - wanted));
    return { line: linesAt(lattice, wanted), band: areasAbove({ columns, rows, values: within }, 0) };
  }, [lattice, columns, rows, values, sigmas, wanted]);

  const path = (outlines: Parameters<typeof pathOf>[0], closed: boolean): string =>
    pathOf(outlines, PLOT.width, PLOT.height, closed);
  const choose = (event: PointerEvent<SVGRectElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    onPlace((event.clientX - box.left) / box.width, 1 - (event.clientY - box.top) / box.height);
  };
  const data = (): (string | number)[][] => [
    [x.title, y.title, label, 'standard uncertainty'],
    ...values.map((value, at) => [
      Number(x.at((at % columns) / (columns - 1)).toPrecision(6)),
      Number(y.at(1 - Math.floor(at / columns) / (rows - 1)).toPrecision(6)),
      Number(value.toFixed(2)),
      Number(sigmas[at]!.toFixed(2)),
    ]),
  ];
  return (
    <div className={styles.board}>
      <svg
        ref={drawing}
        xmlns="http://www.w3.org/2000/svg"
        className={styles.map}
        viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
        role="img"
        aria-label={`${label} over ${x.title} and ${y.title}, from ${points.length} cells`}
        fill="currentColor"
        fontSize="15"
      >
        <defs>
          <pattern id={hatch} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="3" height="9" fill={PAPER} opacity="0.75" />
          </pattern>
        </defs>
        <g transform={`translate(${PLOT.left} ${PLOT.top})`}>
          {picture && <image href={picture} width={PLOT.width} height={PLOT.height} preserveAspectRatio="none" />}
          <path d={path(unsure, true)} fill={`url(#${hatch})`} fillRule="evenodd" />
          <path d={path(same.band, true)} fill={PAPER} fillOpacity="0.28" fillRule="evenodd" />
          {tens.map(({ value, lines }) => (
            <g key={value}>
              <path d={path(lines, false)} fill="none" stroke={INK} strokeWidth="1" strokeOpacity="0.7" />
              {lines.slice(0, 1).map((line) => {
                const [left, top] = line[Math.floor(line.length / 2)]!;
                return (
                  <text
                    key="value"
                    x={Math.min(0.95, Math.max(0.05, left)) * PLOT.width}
                    y={Math.min(0.97, Math.max(0.04, top)) * PLOT.height}
                    textAnchor="middle"
                    fill={INK}
                    stroke={PAPER}
                    strokeWidth="4"
                    paintOrder="stroke"
                  >
                    {plainNumber(value, 3)}
                  </text>
                );
              })}
            </g>
          ))}
          <path d={path(same.line, false)} fill="none" stroke={PAPER} strokeWidth="6" />
          <path d={path(same.line, false)} fill="none" stroke={INK} strokeWidth="3" />
          {points.map((point, at) => (
            <rect
              key={at}
              x={point.x * PLOT.width - 7}
              y={(1 - point.y) * PLOT.height - 7}
              width="14"
              height="14"
              fill={point.colour}
              stroke={point.ringed ? INK : PAPER}
              strokeWidth={point.ringed ? 3 : 1.5}
            />
          ))}
          <rect
            className={styles.ground}
            width={PLOT.width}
            height={PLOT.height}
            fill="transparent"
            stroke="currentColor"
            onPointerDown={choose}
          />
          {place && (
            <g
              transform={`translate(${(place.x * PLOT.width).toFixed(1)} ${((1 - place.y) * PLOT.height).toFixed(1)})`}
              fill="none"
              pointerEvents="none"
            >
              <circle r="11" stroke={PAPER} strokeWidth="7" />
              <circle r="11" stroke={INK} strokeWidth="3" />
              <path d="M-20 0H-5M5 0H20M0 -20V-5M0 5V20" stroke={INK} strokeWidth="3" />
            </g>
          )}
          {x.ticks.map(({ share, text }) => (
            <text key={share} x={share * PLOT.width} y={PLOT.height + 22} textAnchor="middle">
              {text}
            </text>
          ))}
          {y.ticks.map(({ share, text }) => (
            <text key={share} x={-8} y={(1 - share) * PLOT.height + 5} textAnchor="end">
              {text}
            </text>
          ))}
          <text x={PLOT.width / 2} y={PLOT.height + 52} textAnchor="middle">
            {x.title}
          </text>
        </g>
        <text transform={`translate(16 ${PLOT.top + PLOT.height / 2}) rotate(-90)`} textAnchor="middle">
          {y.title}
        </text>
      </svg>
      <div className={styles.foot}>
        <span>
          Squares: what was measured. Bold line: the wanted tone, and where it may lie. Hatched: unsure by more than{' '}
          {plainNumber(2 * unsureFrom, 2)} L*.
        </span>
        <SaveButtons
          what="map"
          onSvg={() => saveDrawing(drawing.current!, label)}
          onCsv={() => void saveRows(data(), label)}
        />
        {tools}
      </div>
    </div>
  );
}
