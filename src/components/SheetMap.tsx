import type { Rect } from '../core/geometry/point';
import { outlinePath } from '../core/stock/outline';
import type { UsedArea } from '../records/card';
import type { StockRecord } from '../records/stock';
import styles from './SheetMap.module.css';

/** A small map of the sheet beside a card that is drawn large: where it lies, and what is taken. */
export function SheetMap({
  stock,
  usedAreas,
  card,
  areas,
}: {
  stock: StockRecord;
  usedAreas: readonly UsedArea[];
  /** Where it lies, and what it takes of that, both on the sheet. */
  card: Rect;
  areas: readonly Rect[];
}) {
  return (
    <svg
      className={styles.map}
      viewBox={`0 0 ${stock.sheetWidthMm} ${stock.sheetDepthMm}`}
      role="img"
      aria-label={`The card lies ${Math.round(card.x)} mm from the left and ${Math.round(card.y)} mm from the rear of its sheet`}
    >
      <path d={outlinePath(stock)} fill={stock.colour} />
      {usedAreas.map((area) => (
        <rect
          key={`${area.cardId} ${area.x} ${area.y}`}
          className={styles.used}
          x={area.x}
          y={area.y}
          width={area.width}
          height={area.height}
        />
      ))}
      {areas.map((area) => (
        <rect key={`${area.x} ${area.y}`} className={styles.card} {...area} />
      ))}
    </svg>
  );
}
