import { useRef, type KeyboardEvent } from 'react';
import { MARKER_MODULES, markerModules } from '../core/card/markers';
import type { Cell, Layout } from '../core/card/layout';
import styles from './CardDrawing.module.css';

interface Props {
  readonly layout: Layout;
  readonly look: (cell: Cell) => {
    readonly fill: string;
    readonly dim?: boolean;
    readonly ring?: 'asked' | 'proposed' | 'kept' | 'meets';
  };
  readonly describe: (cell: Cell) => string;
  readonly selected: number | null;
  readonly onSelect: (cellIndex: number) => void;
  /** Predictions are hatched, so that they never look like a measurement. */
  readonly hatched?: boolean;
  /** Marks and lettering are left out where a photo shows them already. */
  readonly marksVisible?: boolean;
  /** Colour of markers and lettering: what a burn leaves on this stock. */
  readonly markColour?: string;
  readonly onCellKey?: (event: KeyboardEvent, cellIndex: number) => void;
}

const STEPS: Readonly<Record<string, readonly [columns: number, rows: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** A card at true scale, in card millimetres; arrows move over its cells. */
export function CardDrawing({
  layout,
  look,
  describe,
  selected,
  onSelect,
  hatched = false,
  marksVisible = true,
  markColour = '#2a211a',
  onCellKey,
}: Props) {
  const group = useRef<SVGGElement>(null);
  const columns = Math.max(...layout.cells.map((cell) => cell.column)) + 1;
  const focusable = selected ?? layout.order[0] ?? 0;

  const move = (event: KeyboardEvent, cell: Cell): void => {
    const step = STEPS[event.key];
    if (!step) return onCellKey?.(event, cell.index);
    event.preventDefault();
    const [dx, dy] = step;
    for (let column = cell.column + dx, row = cell.row + dy; ; column += dx, row += dy) {
      const next = column < 0 || column >= columns ? undefined : layout.cells[row * columns + column];
      if (!next) return;
      if (next.leftOut) continue;
      onSelect(next.index);
      group.current?.querySelector<SVGGElement>(`[data-cell="${next.index}"]`)?.focus();
      return;
    }
  };

  return (
    <g ref={group}>
      <defs>
        <pattern id="prediction" width="0.9" height="0.9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="0.3" height="0.9" className={styles.hatch} />
        </pattern>
      </defs>
      {layout.cells.map((cell) => {
        const { fill, dim, ring } = look(cell);
        const box = { x: cell.x, y: cell.y, width: cell.width, height: cell.height };
        if (cell.leftOut) return <rect key={cell.index} {...box} className={styles.leftOut} />;
        return (
          <g
            key={cell.index}
            data-cell={cell.index}
            data-grab=""
            role="button"
            tabIndex={cell.index === focusable ? 0 : -1}
            aria-label={describe(cell)}
            aria-pressed={cell.index === selected}
            className={`${styles.cell} ${dim ? styles.dim : ''}`}
            onClick={() => onSelect(cell.index)}
            onFocus={() => onSelect(cell.index)}
            onKeyDown={(event) => move(event, cell)}
          >
            <title>{describe(cell)}</title>
            <rect {...box} fill={fill} />
            {hatched && <rect {...box} fill="url(#prediction)" />}
            {(ring ?? (cell.index === selected ? 'selected' : undefined)) && <rect {...box} className={styles.under} />}
            {ring && <rect {...box} className={styles[ring]} />}
            {cell.index === selected && <rect {...box} className={styles.selected} />}
          </g>
        );
      })}
      {marksVisible && (
        <>
          {layout.markers.map((marker) => {
            const module = marker.sizeMm / MARKER_MODULES;
            const path = markerModules(marker.id)
              .map((burned, index) =>
                burned
                  ? `M${marker.x + (index % MARKER_MODULES) * module} ${marker.y + Math.floor(index / MARKER_MODULES) * module}h${module}v${module}h${-module}z`
                  : '',
              )
              .join('');
            return <path key={marker.corner} d={path} fill={markColour} className={styles.marker} />;
          })}
          {layout.lettering.map((line, index) => (
            <path
              key={index}
              className={styles.letters}
              stroke={markColour}
              d={line.strokes
                .map((stroke) =>
                  stroke.map((p, place) => `${place === 0 ? 'M' : 'L'}${p.x.toFixed(3)} ${p.y.toFixed(3)}`).join(''),
                )
                .join('')}
            />
          ))}
        </>
      )}
    </g>
  );
}
