import { Figures } from '../../components/BenchFrame';
import { Notice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { boxJoint, type DrawnBoxJoint } from '../../core/joint/box-joint';
import styles from '../SumsScreen.module.css';
import { Chances } from './Chances';
import { drawnWords, told, type SumsPartProps } from './sums-parts';

/** Fingers along the corner of a box. */
export function BoxJointPart({ sums, length, liked, fits }: SumsPartProps) {
  const { edge, finger, thickness, clearance, kerf } = sums;
  const { told: joint, why } = told(() =>
    edge !== null && finger !== null && thickness !== null && clearance !== null && kerf !== null
      ? boxJoint({
          lengthMm: edge,
          thicknessMm: thickness,
          fingerMm: finger,
          clearanceMm: clearance,
          kerfMm: kerf,
        })
      : null,
  );
  const mm = (value: number): string => drawnWords(value, liked);
  return (
    <section className={page.group} aria-label="Box joint">
      <h2>Box joint</h2>
      <div className={styles.pair}>
        {length('Length of the corner', 'edge')}
        {length('Fingers about as wide as', 'finger', 'two to three sheets are usual')}
      </div>
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {joint && (
        <>
          <Figures
            rows={[
              ['Fingers and gaps', `${joint.count} of ${mm(edge! / joint.count)}`],
              ['Draw fingers', mm(joint.drawnFingerMm)],
              ['Draw gaps', mm(joint.drawnGapMm)],
              ['Draw the end fingers', mm(joint.drawnEndMm)],
              ['Gaps as deep as', `${mm(joint.drawnDepthMm)}, flush with the other sheet`],
              ['Drawn as wanted, it would be', `${mm(joint.undoneMm)} looser`],
            ]}
          />
          <Chances fits={fits} sums={sums} clearanceMm={clearance!} sigmaMm={2 * (sums.kerfSigma ?? 0)} />
          {edge! <= MOST_DRAWN_MM && <EdgeDrawing joint={joint} edgeMm={edge!} />}
        </>
      )}
    </section>
  );
}

/** Longer edges do not fit the page at their true size. */
const MOST_DRAWN_MM = 160;

/** Borders between fingers and gaps along an edge as it is drawn, from its end, and both edges of the corner at their true size. */
function EdgeDrawing({ joint, edgeMm }: { joint: DrawnBoxJoint; edgeMm: number }) {
  const { count, drawnDepthMm: depth, drawnEndMm, drawnFingerMm, drawnGapMm } = joint;
  const kerf = joint.undoneMm / 2;
  const widths = Array.from({ length: count }, (_, k) =>
    k % 2 === 1 ? drawnGapMm : k === 0 || k === count - 1 ? drawnEndMm : drawnFingerMm,
  );
  // The sheet's own end is cut as well, half a kerf outside of what is wanted.
  const path = widths.map((width, k) => `h${width}${k < count - 1 ? `v${k % 2 === 0 ? depth : -depth}` : ''}`).join('');
  const height = 2 * depth + 6;
  return (
    <figure className={styles.drawing}>
      <svg
        width={`${edgeMm + 4}mm`}
        height={`${height}mm`}
        viewBox={`-2 -1 ${edgeMm + 4} ${height}`}
        role="img"
        aria-label="One edge of the corner at its true size"
      >
        <path d={`M${-kerf / 2} 0${path}V${2 * depth + 4}H${-kerf / 2}Z`} className={styles.sheet} />
        <path d={`M${-kerf / 2} 0${path}`} className={styles.edge} />
      </svg>
      <figcaption>
        One edge as it is drawn, at its true size. The other sheet has gaps where this one has fingers.
      </figcaption>
    </figure>
  );
}
