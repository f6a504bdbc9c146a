import { Notice } from '../../components/Notice';
import type { MatView } from '../../components/Mat';
import type { Layout } from '../../core/card/layout';
import type { PhotoFault } from '../../core/reading/photo-faults';
import { faultWords } from './fault-words';
import styles from './PhotoFaults.module.css';

interface Props {
  readonly faults: readonly PhotoFault[];
  readonly layout: Layout;
}

/** What is wrong with a photo, and what can be done about it. */
export function FaultNotices({ faults, layout }: Props) {
  return faults.map((fault) => {
    const { what, so } = faultWords(fault, layout);
    return (
      <Notice key={fault.fault} look="straw" title={what}>
        {so}
      </Notice>
    );
  });
}

/** Where on the straightened card it lies, in card mm. */
export function FaultMarks({ faults }: Pick<Props, 'faults'>) {
  return (
    <g className={styles.marks} aria-hidden="true">
      {faults.map(({ fault, area, line }) => {
        const path = line
          ? `M${line[0].x} ${line[0].y}L${line[1].x} ${line[1].y}`
          : area && `M${area.x} ${area.y}h${area.width}v${area.height}h${-area.width}z`;
        return (
          path && (
            <g key={fault}>
              <path d={path} className={styles.under} />
              <path d={path} />
            </g>
          )
        );
      })}
    </g>
  );
}

/** What it is, in words over the photo, each at its place. */
export function FaultChips({ faults, layout, view }: Props & { readonly view: MatView }) {
  return faults.map((fault) => {
    const { area, line } = fault;
    const at = line ? { x: (line[0].x + line[1].x) / 2, y: (line[0].y + line[1].y) / 2 } : area;
    if (!at) return null;
    const { x, y } = view.toPx(at.x, at.y);
    return (
      <span key={fault.fault} className={styles.chip} style={{ left: Math.max(44, x), top: Math.max(64, y) }}>
        {faultWords(fault, layout).name}
      </span>
    );
  });
}
