import type { Layout } from '../../card/layout';

/** How far beside their fitted place the edges of cells may lie on a card without markers. */
const UNSURE_EDGE_MM = 0.5;
/** So much of a gap between cells is left for bare stock to be seen in. */
const LEFT_OF_GAP_MM = 0.8;

/** How much further from the cells of a card without markers bare stock is looked for: half a millimetre, or what their gaps leave. */
export function clearOfCells({ cells }: Layout): number {
  const gapAlong = (starts: readonly number[], size: number): number => {
    const places = [...new Set(starts)].sort((a, b) => a - b);
    return Math.min(...places.slice(1).map((at, index) => at - places[index]! - size));
  };
  const { width, height } = cells[0]!.box;
  const gapMm = Math.min(
    gapAlong(
      cells.map(({ box }) => box.x),
      width,
    ),
    gapAlong(
      cells.map(({ box }) => box.y),
      height,
    ),
  );
  return Math.max(0, Math.min(UNSURE_EDGE_MM, (gapMm - LEFT_OF_GAP_MM) / 2));
}
