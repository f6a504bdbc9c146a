import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { consoleErrors, find, openShop, press, says, tickAll, type, type Shop, PATIENCE_MS } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => void ({ driver, base } = shop = await openShop()));
afterAll(() => shop?.close());

const choose = async (cell: number): Promise<void> => {
  const element = await find(driver, `[data-cell="${cell}"]`);
  await driver.executeScript('arguments[0].dispatchEvent(new MouseEvent("click", { bubbles: true }))', element);
};

describe('patches judged by eye', () => {
  it('are answered by keys until the card says where it is sharp, and that is kept', async () => {
    await driver.get(`${base}/cards/5#look`);
    for (const [cell, key] of [...'bcscb'].entries()) {
      await choose(cell);
      const element = await find(driver, `[data-cell="${cell}"]`);
      await driver.executeScript('arguments[0].focus()', element);
      await driver.switchTo().activeElement().sendKeys(key);
      const words = { b: 'blurred', c: 'closed', s: 'sharp' }[key]!;
      await driver.wait(async () => (await element.getAttribute('aria-label'))!.includes(words), PATIENCE_MS);
    }
    await press(driver, 'See what it says');
    await says(driver, 'For fills +0.75 mm');
    await press(driver, 'Keep this offset');
    await says(driver, 'Keep again (is v1)');
    await driver.get(`${base}/bench/1`);
    await says(driver, '+0.75 mm');
  });
});

describe('a card whose focus a hand sets', () => {
  it('stops with what to do, goes on when told, and ends', async () => {
    await driver.get(`${base}/bench/3/plan/focus`);
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
    await tickAll(driver);
    await press(driver, 'Burn on the simulated bench');
    for (let stop = 0; stop < 8; stop++) {
      const body = async (): Promise<string> => driver.findElement(By.css('body')).getText();
      await driver.wait(async () => /Your hand is wanted|Burned to the end/.test(await body()), PATIENCE_MS);
      if ((await body()).includes('Burned to the end')) break;
      expect(await body()).toMatch(/raise the head|lower the head|back to the focus you set/i);
      const before = await body();
      await press(driver, 'Done, go on');
      await driver.wait(async () => (await body()) !== before, PATIENCE_MS);
    }
    await says(driver, 'Burned to the end');
  });
});

describe('a card that stands in several places', () => {
  it('is planned over the sheet, photographed place by place, and looked at with its places beside each other', async () => {
    await driver.get(`${base}/bench/2/plan/bed`);
    await type(driver, 'Places from left to right', '2');
    await type(driver, 'Places from rear to front', '2');
    await says(driver, '4 places of');
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
    await tickAll(driver);
    await press(driver, 'Burn on the simulated bench');
    await says(driver, 'Burned to the end');
    await driver.executeScript("window.location.hash = '#photo'");
    await says(driver, 'Still to be photographed: A1, A2, B1, B2');
    await press(driver, 'Photograph all 4 places');
    await says(driver, 'All 4 places are read.');
    await press(driver, 'See what was read');
    await says(driver, '4, merged');
    const [first, last] = await Promise.all(
      [0, 11].map(async (cell) => (await find(driver, `[data-cell="${cell}"]`)).getAttribute('aria-label')),
    );
    expect(first).toMatch(/^A1, -/);
    expect(last).toMatch(/^B2, \+/);
    expect(await driver.findElements(By.css('image[href*="/images/straightened"]'))).toHaveLength(4);
    await press(driver, 'See what it says');
    await driver.wait(
      async () =>
        /Level: from corner to corner|Tilted: at the/.test(await driver.findElement(By.css('body')).getText()),
      PATIENCE_MS,
    );
    await press(driver, 'Keep what the bed is like');
    await says(driver, 'Keep again (is v1)');
  });
});

describe('a search', () => {
  it('burns one patch at a time, asks, and names the next', async () => {
    await driver.get(`${base}/bench/4/plan/threshold`);
    // The planner has other choices beside it, and is drawn anew by this one.
    const way = await find(driver, 'select:has(option[value="search"])');
    await way.sendKeys('one patch');
    await press(driver, 'Make this card');
    await says(driver, 'The middle of the range to begin with');
    await tickAll(driver);
    await press(driver, 'Burn this patch');
    await says(driver, 'Does it leave any mark?');
    await press(driver, 'a mark');
    await says(driver, 'A wide step weaker');
  });
});

describe('cut parts', () => {
  it('are measured by the simulated caliper, which types into the field that is next', async () => {
    await driver.get(`${base}/cards/7#look`);
    await choose(0);
    const fields = await driver.wait(async () => {
      const found = await driver.findElements(By.css('[data-gauge]'));
      // Squares and holes, along either axis, three times each.
      return found.length === 12 ? found : false;
    }, PATIENCE_MS);
    const y0 = (fields as Awaited<ReturnType<typeof driver.findElements>>)[3]!;
    const before = await y0.getAttribute('value');
    await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', y0);
    // A number of inches where millimetres are meant is asked about, and kept out.
    await y0.clear();
    await y0.sendKeys('0.7874\n');
    await says(driver, 'in inches? Then type 0.7874 in.');
    await y0.clear();
    await y0.sendKeys('0.7874 in');
    await y0.sendKeys('\n');
    await driver.wait(async () => (await y0.getAttribute('value')) === '20 mm', PATIENCE_MS);
    await driver.executeScript('arguments[0].focus(); arguments[0].select()', y0);
    const buttons = await driver.findElements(By.xpath('//button[contains(., "simulated caliper")]'));
    await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', buttons[1]);
    await buttons[1]!.click();
    await driver.wait(async () => (await y0.getAttribute('value')) === before, PATIENCE_MS);
  });
  it('leaves nothing in the browser’s console', async () => expect(await consoleErrors(driver)).toEqual([]));
});
