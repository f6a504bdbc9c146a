import { useEffect, useRef, type KeyboardEvent } from 'react';
import type { Cell, Layout } from '../core/card/layout';
import { Button } from './Button';
import styles from './ComparePair.module.css';

interface Props {
  readonly layout: Layout;
  readonly question: string;
  readonly pair: readonly [left: number, right: number];
  /** Address of the straightened photo; null where the piece itself is to be looked at. */
  readonly photo: string | null;
  readonly stockColour: string;
  readonly wordsOf: (cell: Cell) => string;
  readonly busy: boolean;
  /** What was said: the better one, or null where neither is. */
  readonly onAnswer: (better: number | null) => void;
  readonly onUndo: (() => void) | null;
  readonly onClose: () => void;
}

/** Bare stock around a patch, as a share of its size. */
const MARGIN = 0.12;

/** Two patches side by side, as large as the screen lets them: one press, or an arrow key, says which is better. */
export function ComparePair(props: Props) {
  const { layout, question, pair, photo, stockColour, wordsOf, busy, onAnswer, onUndo, onClose } = props;
  const board = useRef<HTMLDivElement>(null);
  const [left, right] = pair;
  useEffect(() => board.current?.focus(), [left, right]);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (busy || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'ArrowLeft') onAnswer(left);
    else if (event.key === 'ArrowRight') onAnswer(right);
    else if (event.key === 'ArrowDown') onAnswer(null);
    else if (event.key.toLowerCase() === 'u') onUndo?.();
    else if (event.key === 'Escape') onClose();
    else return;
    event.preventDefault();
  };
  const side = (index: number, key: string) => {
    const cell = layout.cells[index]!;
    const { x, y, width, height } = cell.box;
    const margin = MARGIN * Math.min(width, height);
    return (
      <button type="button" className={styles.side} disabled={busy} onClick={() => onAnswer(index)}>
        <svg
          viewBox={`${x - margin} ${y - margin} ${width + 2 * margin} ${height + 2 * margin}`}
          aria-hidden="true"
          data-compared={index}
        >
          <rect
            x={x - margin}
            y={y - margin}
            width={width + 2 * margin}
            height={height + 2 * margin}
            fill={stockColour}
          />
          <clipPath id={`compared-${index}`}>
            <rect x={x - margin} y={y - margin} width={width + 2 * margin} height={height + 2 * margin} />
          </clipPath>
          {photo && (
            <image
              href={photo}
              width={layout.widthMm}
              height={layout.heightMm}
              preserveAspectRatio="none"
              clipPath={`url(#compared-${index})`}
            />
          )}
        </svg>
        <span>{`Cell ${index + 1}: ${wordsOf(cell)} (${key})`}</span>
      </button>
    );
  };
  return (
    <div ref={board} className={styles.board} tabIndex={-1} onKeyDown={onKeyDown} role="group" aria-label={question}>
      <h3>{question}</h3>
      {photo === null && <p>No photo was read: look at these two on the piece itself.</p>}
      <div className={styles.pair}>
        {side(left, '←')}
        {side(right, '→')}
      </div>
      <div className={styles.foot}>
        <Button shortcut="↓" disabled={busy} onClick={() => onAnswer(null)}>
          Neither
        </Button>
        {onUndo && (
          <Button shortcut="U" disabled={busy} onClick={onUndo}>
            Take the last one back
          </Button>
        )}
        <Button onClick={onClose}>Stop comparing</Button>
      </div>
    </div>
  );
}
