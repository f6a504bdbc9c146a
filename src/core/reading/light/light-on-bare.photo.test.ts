import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../../stand-ins/demo';
import { cardOfFew } from '../../../../tests/support/few-cells';
import { fitLight } from './light-on-bare';

const pairing = demoPairing('heron', 'mdf');
const layout = cardOfFew(pairing, 4, 3);
const PX = 20;

/** A straightened card: cells of so much of bare stock's light, every third of them stronger, under light by place. */
function seen(light: (x: number, y: number) => number, strong = 0.4) {
  const width = Math.round(layout.widthMm * PX);
  const height = Math.round(layout.heightMm * PX);
  const data = new Float32Array(width * height * 3);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const [x, y] = [(column + 0.5) / PX, (row + 0.5) / PX];
      const cell = layout.cells.find(
        ({ box }) => x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height,
      );
      const share = cell ? (cell.index % 3 === 1 ? strong : 0.7) : 1;
      data.fill(
        0.5 * share * light(x, y) * (1 + 0.004 * Math.sin(77 * x + 31 * y)),
        (row * width + column) * 3,
        (row * width + column) * 3 + 3,
      );
    }
  return { data, width, height, pxPerMm: PX, clipped: new Uint8Array(width * height) };
}
const lamp = (x: number, y: number): number => 0.95 - 0.006 * x - 0.003 * y;
const middles = layout.cells.map(({ box }) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 }));

describe('light on bare stock', () => {
  it('is a lamp’s smooth fall, and nothing is read into it', () => {
    const light = fitLight(seen(lamp), layout)!;
    expect([light.shadow, light.smoke, light.clippedAt]).toEqual([null, null, []]);
    for (const { x, y } of middles) expect(light.at(x, y)[1] / (0.5 * lamp(x, y))).toBeCloseTo(1, 2);
  });
  it('follows a fall that turns twice over the card', () => {
    const bent = (x: number, y: number): number => {
      const u = (2 * x) / layout.widthMm - 1;
      return 0.7 + 0.12 * (u ** 3 - 0.6 * u) - 0.002 * y;
    };
    const light = fitLight(seen(bent), layout)!;
    for (const { x, y } of middles) expect(light.at(x, y)[1] / (0.5 * bent(x, y))).toBeCloseTo(1, 2);
  });
  it('is none where less than sixty tiles of bare stock can be seen', () => {
    const image = seen(lamp);
    image.clipped.fill(1);
    expect(fitLight(image, layout)).toBeNull();
    // A strip of stock without end clipping: 1 mm along the left edge are 4 tiles a millimetre down.
    const strip = (mm: number) => {
      const clipped = new Uint8Array(image.clipped);
      for (let row = 0; row < Math.round(mm * PX); row++)
        clipped.fill(0, row * image.width + image.width / 4, (row + 1) * image.width - image.width / 4);
      return fitLight({ ...image, clipped }, layout)?.tiles ?? 0;
    };
    expect(strip(0.5)).toBe(0);
    expect(strip(4)).toBeGreaterThanOrEqual(60);
  });
  it('ends where a shadow does, under cells too', () => {
    const shaded = (x: number, y: number): number =>
      lamp(x, y) * (0.45 + 0.55 / (1 + Math.exp(-(0.9 * x + 0.44 * y - 19) / 0.15)));
    const light = fitLight(seen(shaded), layout)!;
    const { through, along, leaves } = light.shadow!;
    expect(0.9 * through.x + 0.44 * through.y).toBeCloseTo(19, 0);
    expect(Math.abs(along.x * 0.9 + along.y * 0.44)).toBeLessThan(0.03);
    expect(leaves).toBeCloseTo(0.45, 1);
    expect(light.smoke).toBeNull();
    for (const { x, y } of middles)
      if (Math.abs(0.9 * x + 0.44 * y - 19) > 0.6) expect(light.at(x, y)[1] / (0.5 * shaded(x, y))).toBeCloseTo(1, 1);
  });
  it('is dimmed by smoke round strong cells, which is told apart from the lamp', () => {
    const smoke = (x: number, y: number): number =>
      layout.cells
        .filter(({ index }) => index % 3 === 1)
        .reduce((share, { box }) => {
          const dx = Math.max(box.x - x, x - box.x - box.width, 0);
          const dy = Math.max(box.y - y, y - box.y - box.height, 0);
          return share * (1 - 0.2 * Math.exp(-Math.hypot(dx, dy) / 1.2));
        }, 1);
    const light = fitLight(
      seen((x, y) => lamp(x, y) * smoke(x, y), 0.1),
      layout,
    )!;
    expect(light.shadow).toBeNull();
    // A fifth at the cells' own edge; tiles lie a third of a millimetre off it and more, where halos of two cells meet.
    expect(light.smoke!.takes).toBeGreaterThan(0.13);
    expect(light.smoke!.takes).toBeLessThan(0.25);
    for (const { x, y } of middles) {
      expect(Math.abs(Math.log(light.at(x, y)[1] / (0.5 * lamp(x, y) * smoke(x, y))))).toBeLessThan(0.04);
      expect(light.clean(x, y)[1]).toBeGreaterThan(light.at(x, y)[1]);
    }
  });
  it('is not told by dark stock that bright cells glow onto', () => {
    // A logistic edge of a tenth of a millimetre: 2 % of the cell's light a fifth of a millimetre beside it, twenty times bare stock's.
    const bright = layout.cells.filter(({ index }) => index % 3 === 1);
    const glow = (x: number, y: number): number =>
      bright.reduce((share, { box }) => {
        const away = Math.max(box.x - x, x - box.x - box.width, box.y - y, y - box.y - box.height);
        return share + (away > 0 ? 19 / (1 + Math.exp(16 * away)) : 0);
      }, 1);
    const cells = seen((x, y) => 0.04 * lamp(x, y) * glow(x, y), 20);
    const light = fitLight(cells, layout)!;
    for (const { box } of bright) {
      const { shift, sigma } = light.under(box);
      expect(Math.abs(shift)).toBeLessThan(0.02);
      expect(sigma).toBeLessThan(0.02);
    }
    for (const { x, y } of middles) expect(light.at(x, y)[1] / (0.02 * lamp(x, y))).toBeCloseTo(1, 1);
  });
  it('tells what stock under a cell is likely to be by what lies round it', () => {
    const { box } = layout.cells[5]!;
    const dark = (x: number, y: number): number =>
      Math.hypot(x - box.x - box.width / 2, y - box.y - box.height / 2) < 4 ? 0.95 : 1;
    const light = fitLight(
      seen((x, y) => lamp(x, y) * dark(x, y)),
      layout,
    )!;
    expect(light.under(box).shift).toBeLessThan(-0.01);
    expect(light.tiles).toBeGreaterThan(300);
    expect(light.clippedShare).toBe(0);
    expect(light.tileSigma).toBeLessThan(0.02);
  });
});
