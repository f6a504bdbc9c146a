import { trueLuminanceRatio, type Piece } from '../src/bench/piece';
import type { Pairing } from '../src/core/card/contract';
import type { Layout } from '../src/core/card/layout';
import { lightnessOfLuminance, luminanceOfLightness } from '../src/core/color/lab';

/** The bench's truth of a cell as L* on the stock's own scale. */
export function trueLightness(piece: Piece, layout: Layout, { stock }: Pairing, cellIndex: number): number {
  return lightnessOfLuminance(
    luminanceOfLightness(stock.bareLightness) * trueLuminanceRatio(piece, layout.cells[cellIndex]!.box),
  );
}
