import { describe, expect, it } from 'vitest';
import { contextOf, layout } from '../../../tests/support/flat-scene';
import { linearToSrgb } from '../color/srgb';
import { flattened } from './flattened';

describe('the levelled picture', () => {
  it('shows bare stock in its own colour all over', () => {
    const context = contextOf({ ratio: () => 0.4 });
    const picture = flattened(context.rectified, context.field, context.stockLinear);
    const at = (xMm: number, yMm: number, channel: number): number =>
      picture.data[(Math.round(yMm * 20) * picture.width + Math.round(xMm * 20)) * 3 + channel]!;
    for (const [x, y] of [
      [layout.widthMm - 2, layout.heightMm / 2],
      [layout.widthMm - 2.5, 12],
      [layout.widthMm - 2.5, layout.heightMm - 10],
    ] as const) {
      for (const channel of [0, 1, 2] as const) {
        const wanted = Math.round(255 * linearToSrgb(context.stockLinear[channel]));
        expect(Math.abs(at(x, y, channel) - wanted), `${channel}`).toBeLessThanOrEqual(3);
      }
    }
  });
});
