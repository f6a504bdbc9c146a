import { useMemo, useRef } from 'react';
import type { Rgb } from '../../core/color/srgb';
import { plainNumber } from '../../core/quantities/format';
import { pictureUrl } from '../picture-url';
import { RAMP_STEPS, rampOf } from './ramp';
import { saveDrawing, saveRows } from './save-text';
import { SaveButtons } from './SaveButtons';
import styles from './BlockMap.module.css';

interface Props {
  readonly label: string;
  /** Values row by row from the upper left; NaN where there is none. */
  readonly values: Float32Array;
  readonly columns: number;
  readonly rows: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly unit: string;
  /** Colours of the ends of the key, and the values they stand for: what lies beyond is shown as the end. */
  readonly from: { readonly value: number; readonly colour: string };
  readonly to: { readonly value: number; readonly colour: string };
  /** What is written on each block, a line each, where blocks are few; nothing where left out. */
  readonly texts?: readonly (readonly string[])[];
}

/** Of values that there are none of. */
const NONE: Rgb = [128, 128, 128];
/** Words on blocks of any colour, on screen and in a file. */
const INK = '#10241d';
const PAPER = '#ffffff';
/** Words on a block, as shares of its sides. */
const WORDS = { ofWidth: 0.2, ofHeight: 0.3 };
/** A key under the map, as shares of its width. */
const KEY = { gap: 0.04, height: 0.05, text: 0.05 };

/** Values over a picture, block by block, in one ramp with its key; saved as a drawing that stands by itself, and as data. */
export function BlockMap({ label, values, columns, rows, widthMm, heightMm, unit, from, to, texts }: Props) {
  const drawing = useRef<SVGSVGElement>(null);
  const [map, key] = useMemo(() => {
    const ramp = rampOf(from.colour, to.colour);
    const colourOf = (value: number): Rgb =>
      Number.isNaN(value)
        ? NONE
        : ramp[Math.round(RAMP_STEPS * Math.min(1, Math.max(0, (value - from.value) / (to.value - from.value))))]!;
    return [
      pictureUrl(columns, rows, (place) => [...colourOf(values[place]!), 255]),
      pictureUrl(RAMP_STEPS + 1, 1, (place) => [...ramp[place]!, 255]),
    ];
  }, [values, columns, rows, from.colour, from.value, to.colour, to.value]);
  const below = heightMm + KEY.gap * widthMm;
  const high = below + (KEY.height + 1.4 * KEY.text) * widthMm;
  const text = { fontSize: KEY.text * widthMm, y: below + (KEY.height + KEY.text) * widthMm, fill: 'currentColor' };
  const inBlock = Math.min((WORDS.ofWidth * widthMm) / columns, (WORDS.ofHeight * heightMm) / rows);
  const words = (value: number): string => `${plainNumber(value, 2)} ${unit}`;
  const told = Float32Array.from(values).filter((value) => !Number.isNaN(value));
  const data = (): (string | number)[][] => [
    ['x_mm', 'y_mm', label],
    ...Array.from(values, (value, place): (string | number)[] => [
      Number((((place % columns) + 0.5) * (widthMm / columns)).toFixed(3)),
      Number(((Math.floor(place / columns) + 0.5) * (heightMm / rows)).toFixed(3)),
      Number.isNaN(value) ? '' : Number(value.toFixed(2)),
    ]),
  ];
  return (
    <>
      <svg
        ref={drawing}
        xmlns="http://www.w3.org/2000/svg"
        className={styles.map}
        viewBox={`0 0 ${widthMm} ${high.toFixed(3)}`}
        role="img"
        aria-label={`${label}: ${told.length} blocks, ${words(from.value)} to ${words(to.value)}`}
      >
        {map && <image href={map} width={widthMm} height={heightMm} preserveAspectRatio="none" />}
        {texts?.map((lines, place) => (
          <text
            key={place}
            textAnchor="middle"
            fontSize={inBlock}
            fill={INK}
            stroke={PAPER}
            strokeWidth={0.2 * inBlock}
            paintOrder="stroke"
          >
            {lines.map((line, at) => (
              <tspan
                key={line}
                x={(((place % columns) + 0.5) * widthMm) / columns}
                y={
                  ((Math.floor(place / columns) + 0.5) * heightMm) / rows +
                  (at - lines.length / 2 + 0.8) * 1.2 * inBlock
                }
              >
                {line}
              </tspan>
            ))}
          </text>
        ))}
        {key && <image href={key} y={below} width={widthMm} height={KEY.height * widthMm} preserveAspectRatio="none" />}
        <text x={0} {...text}>
          {words(from.value)}
        </text>
        <text x={widthMm} textAnchor="end" {...text}>
          {words(to.value)}
        </text>
      </svg>
      <SaveButtons
        what="map"
        onSvg={() => saveDrawing(drawing.current!, label)}
        onCsv={() => void saveRows(data(), label)}
      />
    </>
  );
}
