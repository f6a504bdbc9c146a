import type { Layout } from '../../core/card/layout';
import { areasOf } from '../../core/card/station';
import { formatSize, plainNumber, type LikedUnits } from '../../core/quantities/format';

/** How large a card is and how much stock it takes: "40 × 30 mm, 12 cm²"; of one in several places, what these take and how far they reach. */
export function sizeWords(layout: Pick<Layout, 'widthMm' | 'heightMm' | 'stations'>, liked: LikedUnits): string {
  const { widthMm, heightMm, stations } = layout;
  const areaMm2 = areasOf(layout).reduce((sum, { width, height }) => sum + width * height, 0);
  const area = `${plainNumber(areaMm2 / 100)} cm²`;
  const whole = formatSize(widthMm, heightMm, liked);
  const [first] = stations ?? [];
  if (!first) return `${whole}, ${area}`;
  return `${stations!.length} places of ${formatSize(first.box.width, first.box.height, liked)}, ${area} of ${whole}`;
}
