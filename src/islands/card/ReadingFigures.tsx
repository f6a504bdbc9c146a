import { Figures } from '../../components/BenchFrame';
import { Notice } from '../../components/Notice';
import { formatAgainstBare, plainNumber, type LikedUnits } from '../../core/quantities/format';
import type { CellReading } from '../../core/reading/observations';
import type { Stock } from '../../core/stock/stock';
import { hueWords } from './hue-words';
import { endsRow, lineRows } from './line-words';
import { doubtWords } from './photo-words';
import styles from './LookStage.module.css';

/** What the photo shows of one cell, with how sure it is. */
export function ReadingFigures({ cell, stock, liked }: { cell: CellReading; stock: Stock; liked: LikedUnits }) {
  const { lightness, lightnessSigma, deltaLightness, spread, lines, ends, edgeHalo, edgeWidthMm, clippedShare } = cell;
  return (
    <>
      <Figures
        rows={[
          [
            'Tone',
            `${formatAgainstBare(lightness, lightness - deltaLightness)} ± ${plainNumber(2 * lightnessSigma, 2)}`,
          ],
          [
            'Hue',
            <span key="hue" className={styles.hue}>
              {hueWords(cell.hue, stock)}
              <span className={styles.swatch} style={{ background: cell.colour }} />
              <span className={styles.swatch} style={{ background: stock.colour }} />
            </span>,
          ],
          ['Spread within', `${plainNumber(spread, 2)} L*`],
          ...lineRows(lines, liked),
          ...(ends ? [endsRow(ends)] : []),
          ['Edge halo', `${plainNumber(edgeHalo, 2)} L*`],
          ['Edge width', edgeWidthMm === null ? 'no edge' : `${plainNumber(edgeWidthMm, 2)} mm`],
          ['Blown out', `${plainNumber(clippedShare * 100, 2)} %`],
          ['Confidence', `${plainNumber(cell.confidence * 100, 3)} %`],
        ]}
      />
      {cell.doubts.length > 0 && <Notice look="straw">In doubt: {doubtWords(cell)}.</Notice>}
    </>
  );
}
