import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { casualShot, jpegOf, photograph } from '../../src/bench/bench';
import type { CardView } from '../../src/views/views';
import { burnOnBench } from '../../stand-ins/burn';
import { openShop, press, says, until, type Shop, PATIENCE_MS } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
let folder: string;
let view: CardView;
let files: { good: string; covered: string; glossy: string; text: string };
let corners: { x: number; y: number }[];

beforeAll(async () => {
  ({ driver, base } = shop = await openShop({ width: 390, height: 844 }));
  folder = mkdtempSync(join(tmpdir(), 'glass-ladder-photos-'));
  view = (await fetch(`${base}/api/cards/3`).then((response) => response.json())) as CardView;
  const { layout, madeFor } = view.card;
  const piece = burnOnBench(layout, madeFor, 'phone');
  const shot = { ...casualShot('phone'), widthPx: 1600, heightPx: 1200, tiltDegrees: 8, rollDegrees: 2 };
  const photo = photograph(piece, shot);
  const save = (name: string, bytes: Buffer): string => {
    writeFileSync(join(folder, name), bytes);
    return join(folder, name);
  };
  corners = [
    [0, 0],
    [layout.widthMm, 0],
    [layout.widthMm, layout.heightMm],
    [0, layout.heightMm],
  ].map(([x, y]) => photo.placeOf(x!, y!));
  const data = Uint8Array.from(photo.data);
  // A strip of paper over both left markers.
  for (let y = 0; y < photo.height; y++)
    data.fill(225, y * photo.width * 3, (y * photo.width + Math.round(corners[0]!.x) + 130) * 3);
  // A lamp mirrored in the upper left of the card: white light on top of what the stock sends back.
  const glossy = photo.data.map((byte, index) => {
    const [x, y] = [Math.floor(index / 3) % photo.width, Math.floor(index / 3 / photo.width)];
    const lamp = photo.placeOf(layout.widthMm / 3, layout.heightMm / 3);
    return Math.min(250, byte + 70 * Math.exp(-(((x - lamp.x) / 150) ** 2) - ((y - lamp.y) / 150) ** 2));
  });
  files = {
    glossy: save('glossy.jpg', await jpegOf({ ...photo, data: glossy })),
    good: save('card.jpg', await jpegOf(photo)),
    covered: save('covered.jpg', await jpegOf({ ...photo, data })),
    text: save('notes.jpg', Buffer.from('not a picture at all, but named like one')),
  };
});
afterAll(() => shop?.close());

const choose = async (path: string): Promise<void> => {
  const input = await driver.findElement(By.css('input[type=file][aria-label="Choose a photo"]'));
  await input.sendKeys(path);
};

describe('a phone held over the bench, 390 px wide', () => {
  it('offers the camera, and the page does not scroll sideways', async () => {
    await driver.get(`${base}/cards/3#photo`);
    await says(driver, 'Take it with this phone');
    const [wide, room] = await driver.executeScript<[number, number]>(
      'return [document.documentElement.scrollWidth, window.innerWidth]',
    );
    expect(wide).toBeLessThanOrEqual(room);
  });

  it('reads an uploaded photo, also when the machine loses its network: the server is on it', async () => {
    await driver.executeScript("window.dispatchEvent(new Event('offline'))");
    await choose(files.good);
    await driverWait('card.jpg', 'See what was read');
    // A reading that is not believed can be framed by hand.
    await press(driver, 'Set the corners by hand');
    const handles = By.css('circle[aria-label$="corner of the card"]');
    await driver.wait(async () => (await driver.findElements(handles)).length === 4, PATIENCE_MS);
  });

  it('says of a photo what is wrong with it, on it, with what to do', async () => {
    await choose(files.glossy);
    await driverWait('glossy.jpg', 'one of 3 that count');
    await says(driver, 'Turn the card, move the lamp aside or shade it');
    const chips = await driver.findElements(By.xpath(`//span[normalize-space(.) = "A lamp’s reflection"]`));
    expect(chips).toHaveLength(1);
  });

  it('leaves a photo aside, and counts it again', async () => {
    await press(driver, 'Leave this photo aside', inList('glossy.jpg'));
    await driverWait('glossy.jpg', 'left aside');
    await press(driver, 'Count this photo again', inList('glossy.jpg'));
    await driverWait('glossy.jpg', 'one of 3 that count');
    await press(driver, 'Leave this photo aside', inList('glossy.jpg'));
    await driverWait('glossy.jpg', 'left aside');
  });

  it('says what is wrong with a file that is no picture', async () => {
    await choose(files.text);
    await says(driver, 'This is not a photo that can be opened');
    await says(driver, 'Send a JPEG, PNG or WebP');
  });

  it('asks for corners when markers are covered, takes them by handle, and reads on', async () => {
    await choose(files.covered);
    await driverWait('covered.jpg', 'drag the four corners');
    const handles = async () => driver.findElements(By.css('circle[aria-label$="corner of the card"]'));
    await driver.wait(async () => (await handles()).length === 4, PATIENCE_MS);
    // Each handle goes to its corner by keyboard, 40 or 4 photo pixels a step.
    for (let index = 0; index < 4; index++) {
      const handle = (await handles())[index]!;
      await driver.executeScript('arguments[0].focus()', handle);
      const place = async () => ({
        x: Number(await (await handles())[index]!.getAttribute('cx')),
        y: Number(await (await handles())[index]!.getAttribute('cy')),
      });
      for (const [axis, forward, back] of [
        ['x', Key.ARROW_RIGHT, Key.ARROW_LEFT],
        ['y', Key.ARROW_DOWN, Key.ARROW_UP],
      ] as const) {
        const away = corners[index]![axis] - (await place())[axis];
        const key = away > 0 ? forward : back;
        const steps = Math.round(Math.abs(away) / 4);
        const active = await driver.switchTo().activeElement();
        if (steps >= 10)
          await active.sendKeys(...Array.from({ length: Math.floor(steps / 10) }, () => Key.chord(Key.SHIFT, key)));
        if (steps % 10 > 0) await active.sendKeys(key.repeat(steps % 10));
      }
      expect(Math.hypot((await place()).x - corners[index]!.x, (await place()).y - corners[index]!.y)).toBeLessThan(5);
    }
    await press(driver, 'Read with these corners');
    // The photo that was read before is in the list too, with a link of its own.
    await press(driver, 'See what was read', inList('covered.jpg'));
    await says(driver, 'corners by hand');
  });
});

function inList(file: string): string {
  return `//li[contains(., ${JSON.stringify(file)})]`;
}

async function driverWait(file: string, state: string): Promise<void> {
  const path = `${inList(file)}[contains(., ${JSON.stringify(state)})]`;
  await until(
    driver,
    async () => (await driver.findElements(By.xpath(path))).length > 0,
    `${file} is never “${state}”`,
  );
}
