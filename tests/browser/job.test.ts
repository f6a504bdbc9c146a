import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { minuteOf } from '../../src/core/quantities/day';
import {
  consoleErrors,
  find,
  named,
  openBench,
  openShop,
  press,
  says,
  tickAll,
  type,
  type Shop,
  PATIENCE_MS,
} from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => void ({ driver, base } = shop = await openShop()));
afterAll(() => shop?.close());

describe('from bare stock to a kept setting, in a browser', () => {
  it('opens a bench, plans a card at its edges, and makes it', async () => {
    await driver.get(`${base}/bench`);
    await find(driver, 'select');
    const selects = await driver.findElements(By.css('select'));
    await selects[0]!.sendKeys('Marl');
    await selects[2]!.sendKeys('MDF');
    await press(driver, 'Open this bench');
    await says(driver, 'Next: Grid card');
    await press(driver, 'Plan the card');
    await find(driver, '#across-count');
    const before = (await driver.findElements(By.css('[data-cell]'))).length;
    expect(before).toBeGreaterThan(15);
    await type(driver, 'Columns', '4');
    await type(driver, 'Rows', '3');
    await driver.wait(async () => (await driver.findElements(By.css('[data-cell]'))).length === 12, PATIENCE_MS);
    await says(driver, '12 of 12');
    // Free typing is understood and shown canonical.
    const size = await type(driver, 'Cell size', '1/8 in');
    await says(driver, '= 3.175 mm');
    await size.sendKeys(Key.TAB);
    // Nonsense is refused beside the field, and the card cannot be made meanwhile.
    await type(driver, 'Gap', 'a bit');
    await says(driver, 'does not start with a number');
    expect(await (await named(driver, 'Make this card')).isEnabled()).toBe(false);
    await type(driver, 'Gap', '1');
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
  });

  it('burns only after the check is ticked, and ends', async () => {
    expect(await (await named(driver, 'Burn on the simulated bench')).isEnabled()).toBe(false);
    await tickAll(driver);
    await press(driver, 'Burn on the simulated bench');
    await says(driver, 'Burned to the end');
    await press(driver, 'Go on to what came of it');
  });

  it('takes the photo, reads it, and shows the cells on it', async () => {
    await press(driver, 'Take it with the simulated camera');
    await named(driver, 'See what was read');
    await press(driver, 'See what was read');
    await says(driver, 'Cells read');
    expect(await driver.findElements(By.css('[data-cell]'))).toHaveLength(12);
    expect(await (await find(driver, 'svg image')).getAttribute('href')).toMatch(/straightened/);
  });

  it('is graded from the keyboard alone, and undone', async () => {
    const cell = await find(driver, '[data-cell][tabindex="0"]');
    await driver.executeScript('arguments[0].focus()', cell);
    const focused = () => driver.switchTo().activeElement();
    const from = await (await focused()).getAttribute('data-cell');
    await (await focused()).sendKeys(Key.ARROW_RIGHT);
    expect(await (await focused()).getAttribute('data-cell')).toBe(String(Number(from) + 1));
    await (await focused()).sendKeys(Key.ARROW_DOWN);
    const at = await (await focused()).getAttribute('data-cell');
    await (await focused()).sendKeys('4');
    const label = async (): Promise<string> =>
      (await (await find(driver, `[data-cell="${at}"]`)).getAttribute('aria-label'))!;
    await driver.wait(async () => (await label()).includes('grade 4'), PATIENCE_MS);
    await (await focused()).sendKeys('g');
    await driver.wait(async () => (await label()).includes('good'), PATIENCE_MS);
    await (await focused()).sendKeys('u');
    await driver.wait(async () => !(await label()).includes('good'), PATIENCE_MS);
    expect(await label()).toContain('grade 4');
  });

  it('proposes a cell for a wish and keeps it as version 1, then another as version 2', async () => {
    await press(driver, 'See what it says');
    await says(driver, 'Proposal');
    await press(driver, 'medium');
    await says(driver, 'The proposed cell');
    await type(driver, 'Note', 'specimen trays');
    await press(driver, 'Keep this setting');
    await says(driver, 'Keep again (is v1)');
    // What other tests keep of this machine stands on its ladders too.
    const kept = By.xpath('//*[@aria-label="Ladder"]//a[starts-with(@href, "/book/")][contains(., "Grid")]');
    await driver.wait(async () => (await driver.findElements(kept)).length === 1, PATIENCE_MS);
    // Any cell can be picked instead.
    const other = await driver.findElements(By.css('[data-cell]'));
    await driver.executeScript('arguments[0].dispatchEvent(new MouseEvent("click", { bubbles: true }))', other[5]);
    await says(driver, 'your pick');
    await press(driver, 'Keep this setting');
    await says(driver, 'Keep again (is v2)');
    // Keeping the same cell again is a new intent, not the same form sent twice.
    await press(driver, 'Keep again (is v2)');
    await says(driver, 'Keep again (is v3)');
  });

  it('stands in the book with its origin, versions, difference, and a sheet at true size', async () => {
    await driver.get(`${base}/book`);
    await (await find(driver, '[data-search]')).sendKeys('mdf marl');
    await driver.wait(async () => (await driver.findElements(By.css('tbody tr'))).length === 1, PATIENCE_MS);
    await find(driver, 'tbody a[href^="/book/"]');
    await press(driver, 'Engraving');
    await says(driver, 'Version 3, in use');
    await says(driver, 'specimen trays');
    await says(driver, '→');
    await press(driver, 'Shop sheet to print');
    const sheet = await find(driver, 'article svg[width$="mm"]');
    const wide = (await sheet.getRect()).width;
    // CSS millimetres: 96 px to 25.4 mm; the cell of 3.175 mm and 4 mm of stock around it.
    expect((wide / 96) * 25.4).toBeCloseTo(3.175 + 8, 0);
    await driver.get(`${base}/logbook`);
    await says(driver, 'to the end');
    // By the workshop's clock.
    const { rows } = await (await fetch(`${base}/api/burns`)).json();
    await says(driver, minuteOf(rows[0].startedAt));
  });

  it('shows how far a burn is, pauses, goes on and stops by hand', async () => {
    // A bench of its own: where a focus was kept by another test, a hand would be asked for.
    await driver.get(`${await openBench(shop, 'Heron', 'MDF')}/plan/grid`);
    // A quarter of an hour of machine time: minutes of the simulated bench's, however busy this machine is.
    await type(driver, 'Cell size', '10');
    await says(driver, '10 mm');
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
    await tickAll(driver);
    await press(driver, 'Burn on the simulated bench');
    await find(driver, 'progress');
    await says(driver, 'Left, by estimate');
    await press(driver, 'Pause');
    await says(driver, 'Paused');
    await press(driver, 'Go on');
    await says(driver, 'Burning');
    await press(driver, 'Stop');
    await says(driver, 'Stopped by hand');
  });

  it('leaves nothing in the browser’s console', async () => expect(await consoleErrors(driver)).toEqual([]));
});
