import { describe, expect, it } from 'vitest';
import { MARKER_MODULES, markerModules } from '../card/markers';
import { decodeMarker } from './decode-marker';
import type { Quad } from './quad';
import { points } from '../../../tests/support/points';

const MODULE_PX = 8;
const SIDE_PX = MARKER_MODULES * MODULE_PX;
const QUAD = points(
  [-0.5, -0.5],
  [SIDE_PX - 0.5, -0.5],
  [SIDE_PX - 0.5, SIDE_PX - 0.5],
  [-0.5, SIDE_PX - 0.5],
) as unknown as Quad;

/** A marker of two grays, module by module, with some of them turned round. */
function drawn(id: number, turned: readonly number[] = [], { dark = 60, light = 180 } = {}) {
  const modules = [...markerModules(id)].map((isDark, index) => (turned.includes(index) ? !isDark : isDark));
  const data = new Uint8Array(SIDE_PX * SIDE_PX);
  for (let pixel = 0; pixel < data.length; pixel++) {
    const column = Math.floor((pixel % SIDE_PX) / MODULE_PX);
    const row = Math.floor(Math.floor(pixel / SIDE_PX) / MODULE_PX);
    data[pixel] = modules[row * MARKER_MODULES + column] ? dark : light;
  }
  return { data, width: SIDE_PX, height: SIDE_PX };
}
/** The place of a module within the border, in rows. */
const inner = (row: number, column: number): number => (row + 1) * MARKER_MODULES + column + 1;

describe('a marker of two even grays', () => {
  it.each([0, 1, 60, 122, 243])('%i is decoded without a wrong bit', (id) => {
    expect(decodeMarker(drawn(id), QUAD)).toMatchObject({ id, wrongBits: 0, corners: QUAD });
  });
  it('is decoded with up to three modules wrong, each counted, wherever they lie, and not with four', () => {
    for (let step = 0; step < 12; step++) {
      const places = [0, 1, 2, 3].map((k) => inner((step + 2 * k) % 6, (5 * step + k) % 6));
      for (const wrong of [1, 2, 3])
        expect(decodeMarker(drawn(77, places.slice(0, wrong)), QUAD)).toMatchObject({ id: 77, wrongBits: wrong });
      expect(decodeMarker(drawn(77, places), QUAD)).toBeNull();
    }
  });
  it('forgives two light modules of its border, and no third', () => {
    expect(decodeMarker(drawn(5, [0, 3]), QUAD)).toMatchObject({ id: 5 });
    expect(decodeMarker(drawn(5, [0, 3, 6]), QUAD)).toBeNull();
  });
  it('needs eight grays between dark and light', () => {
    expect(decodeMarker(drawn(5, [], { dark: 100, light: 108 }), QUAD)).toMatchObject({ id: 5 });
    expect(decodeMarker(drawn(5, [], { dark: 100, light: 107 }), QUAD)).toBeNull();
  });
  it('is known in any turn: the corner that is its own upper left comes first', () => {
    for (const turn of [1, 2, 3]) {
      const turned = [0, 1, 2, 3].map((corner) => QUAD[(corner + turn) % 4]!) as unknown as Quad;
      expect(decodeMarker(drawn(200), turned)!.corners).toEqual(QUAD);
    }
  });
  it('is none where its quad reaches beyond the picture', () => {
    const beyond = QUAD.map(({ x, y }) => ({ x: x + 20, y })) as unknown as Quad;
    expect(decodeMarker(drawn(5), beyond)).toBeNull();
  });
});
