import type { Layout } from '../../card/layout';
import type { Point } from '../../geometry/point';
import type { Tile } from './bare-tiles';
import { explaining } from './explaining';
import type { Surface, Term } from './surface';

type Card = Pick<Layout, 'widthMm' | 'heightMm'>;

/** The edge of a shadow: from none of it to all of it by how far a place lies on its one side. */
const edgeAt = (away: number, soft: number): number => 1 / (1 + Math.exp((-1.7 * away) / soft));

/** A straight edge of light across the card: through `through`, to both sides along `along`, which is of length 1. */
export interface Edge {
  readonly through: Point;
  readonly along: Point;
  /** From none of it to all of it across the edge; where it counts, light falls or rises by one amount. */
  readonly term: Term;
}

/** The straight edge across the card that explains most of what the surface leaves; null where none does. */
export function shadowEdge(tiles: readonly Tile[], base: Surface, card: Card): Edge | null {
  const [cx, cy] = [card.widthMm / 2, card.heightMm / 2];
  const reach = Math.hypot(card.widthMm, card.heightMm) / 2;
  const explained = explaining(tiles, base);
  const values = new Float64Array(explained.xs.length);
  let best = { explains: 0, angle: 0, offset: 0, soft: 1 };
  const tryEdge = (angle: number, offset: number, soft: number): void => {
    const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
    for (let k = 0; k < values.length; k++)
      values[k] = edgeAt((explained.xs[k]! - cx) * cosine + (explained.ys[k]! - cy) * sine - offset, soft);
    const explains = explained.byValues(values);
    if (explains > best.explains) best = { explains, angle, offset, soft };
  };
  for (let turn = 0; turn < 18; turn++)
    for (let offset = -0.8 * reach; offset <= 0.8 * reach; offset += 1.5) tryEdge((turn * Math.PI) / 18, offset, 0.8);
  for (const [angleStep, offsetStep] of [
    [Math.PI / 36, 1],
    [Math.PI / 90, 0.4],
    [Math.PI / 240, 0.15],
  ] as const) {
    const { angle, offset, soft } = best;
    for (const a of [-1, 0, 1])
      for (const o of [-1, 0, 1])
        for (const s of [0.6, 1, 1.6])
          tryEdge(angle + a * angleStep, offset + o * offsetStep, Math.max(0.15, soft * s));
  }
  if (best.explains === 0) return null;
  const { angle, offset, soft } = best;
  const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
  return {
    through: { x: cx + offset * cosine, y: cy + offset * sine },
    along: { x: -sine, y: cosine },
    term: (x, y) => edgeAt((x - cx) * cosine + (y - cy) * sine - offset, soft),
  };
}
