import { useRef, type KeyboardEvent } from 'react';
import type { Point } from '../core/geometry/point';
import { markerRegion } from '../core/card/path';
import type { Cell, Layout } from '../core/card/layout';
import { isArea, linesOf } from '../core/card/shape';
import { PictureImage } from './PictureImage';
import { neighbourOf, type Step } from './neighbour';
import styles from './CardDrawing.module.css';

interface Props {
  readonly layout: Layout;
  readonly look: (cell: Cell) => {
    readonly fill: string;
    /** Of the whole cell under its marks; none where left out. */
    readonly ground?: string | undefined;
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

const STEPS: Readonly<Record<string, Step>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

const pathOf = (lines: readonly (readonly Point[])[], close: boolean): string =>
  lines
    .map(
      (line) =>
        line.map((p, place) => `${place === 0 ? 'M' : 'L'}${p.x.toFixed(3)} ${p.y.toFixed(3)}`).join('') +
        (close ? 'z' : ''),
    )
    .join('');

/** What a cell's burns do: areas are filled, lines drawn. */
function Burns({ cell, fill, markColour, lines }: { cell: Cell; fill: string; markColour: string; lines: boolean }) {
  return cell.burns.map(({ shape }, index) =>
    shape.do === 'picture' ? (
      fill === 'transparent' ? null : (
        <PictureImage key={index} shape={shape} markColour={markColour} />
      )
    ) : isArea(shape) ? (
      <path key={index} d={pathOf(linesOf(shape), true)} fill={fill} fillRule="evenodd" />
    ) : lines ? (
      <path key={index} d={pathOf(linesOf(shape), false)} className={styles.letters} stroke={markColour} />
    ) : null,
  );
}

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
  const focusable = selected ?? layout.order[0] ?? 0;

  const move = (event: KeyboardEvent, cell: Cell): void => {
    const step = STEPS[event.key];
    if (!step) return onCellKey?.(event, cell.index);
    event.preventDefault();
    const next = neighbourOf(layout.cells, cell, step);
    if (!next) return;
    onSelect(next.index);
    group.current?.querySelector<SVGGElement>(`[data-cell="${next.index}"]`)?.focus();
  };

  return (
    <g ref={group}>
      <defs>
        <pattern id="prediction" width="0.9" height="0.9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="0.3" height="0.9" className={styles.hatch} />
        </pattern>
      </defs>
      {layout.cells.map((cell) => {
        const { fill, ground, dim, ring } = look(cell);
        const { box } = cell;
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
            <rect {...box} fill={ground ?? 'transparent'} className={styles.box} />
            <Burns cell={cell} fill={fill} markColour={markColour} lines={marksVisible} />
            {cell.wanted?.comesOut && <path d={pathOf([cell.wanted.outline], true)} className={styles.wanted} />}
            {cell.wanted?.comesOut && cell.levels.side !== 'part' && (
              <path d={pathOf([cell.wanted.outline], true)} className={styles.opening} />
            )}
            {hatched && !cell.wanted?.comesOut && (
              <rect
                {...box}
                fill="url(#prediction)"
                // What a picture is of must be seen through it.
                opacity={cell.burns[0]?.shape.do === 'picture' ? 0.3 : 1}
                pointerEvents="none"
              />
            )}
            {(ring ?? (cell.index === selected ? 'selected' : undefined)) && <rect {...box} className={styles.under} />}
            {ring && <rect {...box} className={styles[ring]} />}
            {cell.index === selected && <rect {...box} className={styles.selected} />}
          </g>
        );
      })}
      {marksVisible && (
        <>
          {layout.frame.markers.map((marker) => (
            <path
              key={`${marker.corner} ${marker.id}`}
              d={pathOf(markerRegion(marker), true)}
              fill={markColour}
              className={styles.marker}
            />
          ))}
          {layout.frame.lettering.map((line, index) => (
            <path key={index} className={styles.letters} stroke={markColour} d={pathOf(line.strokes, false)} />
          ))}
          {[...layout.before, ...layout.after].map(({ shape }, index) => (
            <path
              key={`common ${index}`}
              className={styles.letters}
              stroke={markColour}
              d={pathOf(linesOf(shape), isArea(shape))}
            />
          ))}
        </>
      )}
    </g>
  );
}
