import { By, Key, Origin } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CardView } from '../../src/views/views';
import { find, openShop, press, says, type, until, type Shop } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => {
  ({ driver, base } = shop = await openShop());
});
afterAll(() => shop?.close());

describe('a frame sheet', () => {
  it('is printed, noted where it is to scale, and its greys are measured by two photos', async () => {
    await driver.get(`${base}/stock`);
    await press(driver, 'Frame sheets');
    await says(driver, 'Print it once, measure it once');
    const link = await driver.findElement(By.partialLinkText('sheet as PDF')).getAttribute('href');
    expect((await fetch(link!)).headers.get('content-type')).toBe('application/pdf');
    await type(driver, 'Name of this print', 'Office, November');
    await type(driver, 'Its rule measures', '97');
    await press(driver, 'Note this A5 print');
    await says(driver, 'the print is shrunk by 3.0 %');
    await type(driver, 'Its rule measures', '99.9');
    await press(driver, 'Note this A5 print');
    await says(driver, 'A5, rule 99.9 mm');
    await press(driver, 'Take both with the simulated camera');
    await says(driver, 'in use');
    expect(await driver.findElements(By.css('ol li'))).toHaveLength(9);
  });
  it('tells the tones of a photo that is taken on it', async () => {
    await driver.get(`${base}/cards/2#photo`);
    await press(driver, 'Take it on a frame sheet');
    const told = async () => {
      const { reading } = (await fetch(`${base}/api/cards/2`).then((response) => response.json())) as CardView;
      return reading?.tones.told === 'by-sheet';
    };
    await until(driver, told, 'the photo was not read by its frame sheet');
    await press(driver, 'Look');
    await says(driver, 'by the frame sheet');
  });
  it('tells the tone of a piece beside it, and what gives that today', async () => {
    await driver.get(`${base}/compare?pairing=1`);
    await press(driver, 'Match a piece by its photo');
    await press(driver, 'Take it with the simulated camera');
    const ring = await find(driver, '[aria-label^="the tone"]');
    const before = await ring.getAttribute('cx');
    await ring.sendKeys(Key.ARROW_RIGHT);
    await until(driver, async () => (await ring.getAttribute('cx')) !== before, 'the ring never moves');
    // Taken hold of below its middle and drawn straight aside: it goes by as much, and neither jumps nor falls.
    const [across, down] = await Promise.all([ring.getAttribute('cx'), ring.getAttribute('cy')]);
    const drawn = driver.actions().move({ origin: ring, x: 0, y: 3 }).press();
    await drawn.move({ origin: Origin.POINTER, x: 40, y: 0 }).release().perform();
    await until(driver, async () => (await ring.getAttribute('cx')) !== across, 'the ring is not drawn');
    expect(Number(await ring.getAttribute('cx'))).toBeGreaterThan(Number(across) + 40);
    expect(Math.abs(Number(await ring.getAttribute('cy')) - Number(down))).toBeLessThan(3);
    await press(driver, 'Tell the tone');
    await says(driver, 'By the sheet’s paper');
    await press(driver, 'See what gives it today');
    await says(driver, 'To match a tone');
    await says(driver, 'of the light of bare stock');
  });
});
