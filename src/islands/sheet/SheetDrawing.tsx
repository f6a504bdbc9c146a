import { frameSheet, GREY_STEPS, type SheetFormat } from '../../core/sheet/frame-sheet';
import { markerBars } from '../../core/sheet/marker-bars';
import { byteOfLinear, hexColour } from '../../core/color/srgb';
import styles from './FrameSheets.module.css';

/** Ink as it looks on white, by the share of paper that stays bare. */
const inkColour = (bare: number): string => {
  const byte = byteOfLinear(0.04 + 0.96 * bare);
  return hexColour([byte, byte, byte]);
};

/** A frame sheet as it is printed, on its paper. */
export function SheetDrawing({ format }: { format: SheetFormat }) {
  const { paper, onPaper, window, markers, patches, rule } = frameSheet(format);
  return (
    <svg
      className={styles.drawing}
      viewBox={`${-onPaper.x} ${-onPaper.y} ${paper.widthMm} ${paper.heightMm}`}
      role="img"
      aria-label="The frame sheet: a window with greys along its sides and a marker in each corner"
    >
      <rect x={-onPaper.x} y={-onPaper.y} width={paper.widthMm} height={paper.heightMm} className={styles.paper} />
      {markers.map(({ id, x, y, sizeMm }) =>
        markerBars(id, x, y, sizeMm).map((bar) => (
          <rect key={`${id} ${bar.x} ${bar.y}`} {...bar} fill={inkColour(0)} />
        )),
      )}
      {patches.map(({ side, step, box }) => (
        <rect key={`${side} ${step}`} {...box} fill={inkColour(GREY_STEPS[step]!)} />
      ))}
      <rect {...window} className={styles.window} />
      <text x={window.x + window.width / 2} y={window.y + window.height / 2 + 3} className={styles.words}>
        the card lies here
      </text>
      <line x1={rule.x} x2={rule.x + rule.lengthMm} y1={rule.y} y2={rule.y} className={styles.rule} />
      <text x={rule.x + rule.lengthMm / 2} y={rule.y + 6} className={styles.small}>
        {rule.lengthMm} mm
      </text>
    </svg>
  );
}
