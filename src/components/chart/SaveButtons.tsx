import styles from './SaveButtons.module.css';

/** The two ways in which everything that is drawn of data can be taken along. */
export function SaveButtons({ what, onSvg, onCsv }: { what: string; onSvg: () => void; onCsv: () => void }) {
  return (
    <p className={styles.files}>
      Save this {what} as
      <button type="button" onClick={onSvg}>
        SVG
      </button>
      <button type="button" onClick={onCsv}>
        CSV
      </button>
    </p>
  );
}
