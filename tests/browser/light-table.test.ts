import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CardView } from '../../src/views/views';
import { consoleErrors, find, openShop, press, says, until, type Shop } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => {
  ({ driver, base } = shop = await openShop());
});
afterAll(() => shop?.close());

/** The card of the coated stock, the last that the demo world burned. */
const CARD = '/cards/9';

describe('a coated card on a light table', () => {
  it('is photographed on it, with what to see to', async () => {
    await driver.get(`${base}${CARD}#photo`);
    const option = await find(driver, 'option[value="behind"]');
    await option.click();
    await says(driver, 'the room dark');
    await press(driver, 'Take it on the simulated light table');
    const photos = async (): Promise<number> =>
      (await driver.findElements(By.xpath('//li[contains(., "on a light table") and contains(., "light-table-")]')))
        .length;
    await until(driver, async () => (await photos()) === 2, 'the second photo on the light table is not listed');
    await says(driver, 'one of 2 that count');
  });
  it('shows what comes through each cell, and proposes by whether the coat is off', async () => {
    await driver.get(`${base}${CARD}#look`);
    await press(driver, 'On the light table, %');
    const { through } = (await fetch(`${base}/api${CARD}`).then((response) => response.json())) as CardView;
    const shares = through!.cells.map((cell) => (100 * cell.through).toFixed(0));
    const isShown = async (): Promise<boolean> => {
      const texts = await Promise.all((await driver.findElements(By.css('svg text'))).map((text) => text.getText()));
      return shares.every((share) => texts.includes(share));
    };
    await until(driver, isShown, 'cells do not show what comes through');
    await find(driver, `image[href*="/api/photos/${through!.photoId}/"]`);
    await says(driver, 'pinholes on');
    await press(driver, 'Find');
    await says(driver, 'within reach of');
    await (await driver.findElement(By.xpath('//label[contains(., "coat is off")]//input'))).click();
    await says(driver, 'cells whose coat is off, within the');
    expect(await consoleErrors(driver)).toEqual([]);
  });
});
