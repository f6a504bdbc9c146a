import { CHANNELS } from '../core/card/channels';
import type { LikedUnits } from '../core/quantities/format';
import styles from './FocusSketch.module.css';

/** The sense of a focus offset, drawn: plus raises the head and its sharp point above the face, minus lowers it into the stock. */
export function FocusSketch({ offsetMm, liked }: { offsetMm: number; liked: LikedUnits }) {
  const face = 74;
  const said = CHANNELS.focus.show(offsetMm, liked);
  const shift = Math.max(-18, Math.min(18, offsetMm * 8));
  const point = face - shift;
  const words =
    offsetMm === 0
      ? 'at the focus you set'
      : offsetMm > 0
        ? 'head raised: the sharp point hangs above the face'
        : 'head lowered: the sharp point lies inside the stock';
  return (
    <svg className={styles.sketch} viewBox="0 0 260 104" role="img" aria-label={`Focus offset ${said}: ${words}`}>
      <rect x="0" y={face} width="260" height="22" className={styles.stock} />
      <line x1="0" x2="260" y1={face} y2={face} className={styles.face} />
      <rect x="104" y={point - 66} width="52" height="16" rx="3" className={styles.head} />
      <path d={`M112 ${point - 50} L130 ${point} L148 ${point - 50} Z`} className={styles.beam} />
      <path d={`M130 ${point} L118 ${point + 30} L142 ${point + 30} Z`} className={styles.past} />
      <circle cx="130" cy={point} r="3.5" className={styles.point} />
      <text x="170" y={face - 8} className={styles.words}>
        {said}
      </text>
    </svg>
  );
}
