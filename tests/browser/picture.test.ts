import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { By, Origin } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PicturePlan } from '../../src/cards/picture/plan';
import type { CardView } from '../../src/views/views';
import { unpackGreys } from '../../src/core/picture/greys';
import {
  consoleErrors,
  find,
  madeCard,
  openBench,
  openShop,
  press,
  says,
  seriousFindings,
  until,
  type,
  type Shop,
} from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
/** A bench of its own: the cards of other tests take no places from under these. */
let bench: string;
const folder = mkdtempSync(join(tmpdir(), 'glass-ladder-picture-'));
/** A third black, a third white, a third half of white's light. */
const stripes = join(folder, 'Three stripes.png');
const words = join(folder, 'words.png');
/** Twice as wide as high, its left half black, with a script that must not run and a line that is drawn along. */
const drawing = join(folder, 'Half black.svg');
beforeAll(async () => {
  const data = Buffer.alloc(300 * 100 * 3);
  for (let at = 0; at < 300 * 100; at++) data.fill([0, 255, 188][Math.floor((at % 300) / 100)]!, 3 * at, 3 * at + 3);
  await sharp(data, { raw: { width: 300, height: 100, channels: 3 } })
    .png()
    .toFile(stripes);
  writeFileSync(words, 'no picture, but named like one');
  writeFileSync(
    drawing,
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 50"><script>parent.document.title = "ran"</script><rect width="50" height="50"/><path d="M75 0V50" stroke="#000" stroke-width="5"/><rect x="90" width="10" height="50" fill="#ccc"/></svg>',
  );
  ({ driver, base } = shop = await openShop());
  bench = await openBench(shop, 'Heron', 'Cork sheet');
  await driver.get(`${bench}/plan/picture`);
  await find(driver, '[data-cell]');
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await shop?.close();
});

const choose = (path: string): Promise<void> =>
  driver.findElement(By.css('input[aria-label="Picture file"]')).sendKeys(path);
const boxOfCell = async (): Promise<{ width: number; height: number }> =>
  driver.executeScript(
    'const { width, height } = document.querySelector("[data-cell] rect").getBBox(); return { width, height };',
  );

describe('a picture to be burned', () => {
  it('is a drawing of our own at first, shown as it will lie on the stock', async () => {
    await says(driver, 'Pond at dusk');
    expect(await driver.findElements(By.css('[data-cell] image'))).toHaveLength(1);
    expect(await seriousFindings(driver)).toEqual([]);
  });
  it('is chosen from a file, which another one of the same name but no picture does not replace', async () => {
    await choose(stripes);
    await says(driver, 'Three stripes');
    await until(
      driver,
      async () => {
        const { width, height } = await boxOfCell();
        return Math.abs(width / height - 3) < 0.1;
      },
      'the cell is not three times as wide as high',
    );
    await choose(words);
    await says(driver, 'is no picture that can be opened here');
    await says(driver, 'Three stripes');
  });
  it('is cropped by a box that is drawn on it, or by numbers, and all of it is one press away', async () => {
    const preview = await find(driver, 'svg[aria-label="Three stripes"]');
    const { width } = await preview.getRect();
    await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', preview);
    const [x, y] = [Math.round(-0.45 * width), Math.round(-0.1 * width)];
    await driver
      .actions()
      .move({ origin: preview, x, y })
      .press()
      .move({ origin: Origin.POINTER, x: Math.round(0.3 * width), y: Math.round(0.2 * width) })
      .release()
      .perform();
    await find(driver, 'svg[aria-label="Three stripes, cropped"]');
    await press(driver, 'All of it');
    await find(driver, 'svg[aria-label="Three stripes"]');
    await type(driver, 'Crop width', '66 %');
    await until(
      driver,
      async () => {
        const { width: wide, height } = await boxOfCell();
        return Math.abs(wide / height - 1.98) < 0.08;
      },
      'the crop does not show on the card',
    );
  });
  it('goes into the card as it was chosen, its darkest as black and its lightest bare', async () => {
    const errors = await consoleErrors(driver);
    expect(errors).toEqual([]);
    await press(driver, 'Make this card');
    const id = await madeCard(driver);
    const { card } = (await fetch(`${base}/api/cards/${id}`).then((response) => response.json())) as CardView;
    expect((card.plan as PicturePlan).picture).toMatchObject({ name: 'Three stripes', columns: 300, rows: 100 });
    const { shape } = card.layout.cells[0]!.burns[0]!;
    if (shape.do !== 'picture') throw new Error('no picture is burned');
    const { columns, rows } = shape.wanted;
    const row = unpackGreys(shape.wanted).subarray(columns * Math.floor(rows / 2));
    // Two thirds were kept: black to the left, white to the right.
    expect([row[Math.round(0.2 * columns)], row[Math.round(0.8 * columns)]]).toEqual([255, 0]);
  });
});

describe('a drawing for a showpiece', () => {
  it('is chosen as SVG: what is darker than half is burned, drawn lines too, and nothing of it runs', async () => {
    await driver.get(`${bench}/plan/showpiece`);
    await find(driver, '[data-cell]');
    await says(driver, 'Ladder in the reeds');
    await choose(words);
    await says(driver, 'take a PNG, a JPEG or an SVG');
    await choose(drawing);
    await says(driver, 'Half black');
    expect(await seriousFindings(driver)).toEqual([]);
    expect(await driver.getTitle()).not.toBe('ran');
    await press(driver, 'Make this card');
    const id = await madeCard(driver);
    const { card } = (await fetch(`${base}/api/cards/${id}`).then((response) => response.json())) as CardView;
    const { shape } = card.layout.cells[0]!.burns[0]!;
    if (shape.do !== 'picture') throw new Error('no drawing is burned');
    const { columns, rows } = shape.wanted;
    expect(columns / rows).toBeCloseTo(2, 1);
    const row = unpackGreys(shape.wanted).subarray(
      columns * Math.floor(rows / 2),
      columns * (1 + Math.floor(rows / 2)),
    );
    const at = (share: number): number => row[Math.floor(share * columns)]!;
    expect([0.02, 0.48, 0.52, 0.7, 0.75, 0.8, 0.95].map(at)).toEqual([255, 255, 0, 0, 255, 0, 0]);
    expect((await consoleErrors(driver)).filter((message) => !message.includes('script'))).toEqual([]);
  });
});
