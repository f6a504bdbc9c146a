import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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
  type Shop,
} from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
const folder = mkdtempSync(join(tmpdir(), 'glass-ladder-part-'));
const gate = join(folder, 'Gate.svg');
const words = join(folder, 'Words.svg');
beforeAll(async () => {
  writeFileSync(
    gate,
    '<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm" viewBox="0 0 30 20"><rect width="22" height="14"/><circle cx="8" cy="7" r="3"/><path d="M24 2h4"/><text>no line</text></svg>',
  );
  writeFileSync(words, '<svg xmlns="http://www.w3.org/2000/svg"><text>no line</text></svg>');
  ({ driver, base } = shop = await openShop());
  await driver.get(`${await openBench(shop, 'Marl', 'Cast acrylic, clear')}/plan/part`);
  await find(driver, '[data-cell]');
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await shop?.close();
});

const choose = (path: string): Promise<void> =>
  driver.findElement(By.css('input[aria-label="Drawing file"]')).sendKeys(path);

describe('a part to be cut', () => {
  it('is read from a drawing: what is in it, what is left out, and what ends', async () => {
    await says(driver, 'Tag');
    await choose(gate);
    await says(driver, '1 part, 1 hole; a line ends (4 mm near 24, 2 mm)');
    await says(driver, 'Left out: text (turn it into paths to cut it).');
    expect(await seriousFindings(driver)).toEqual([]);
  });
  it('stays where another drawing has nothing to cut', async () => {
    await choose(words);
    await says(driver, 'Nothing in this drawing is a line to cut');
    await says(driver, 'Gate');
    // The refusal, and nothing else.
    expect(await consoleErrors(driver)).toEqual([expect.stringContaining('/api/drawings')]);
  });
  it('is made as a card, with its files', async () => {
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
    expect(await consoleErrors(driver)).toEqual([]);
  });
});

describe('holes and parts', () => {
  it('are told pair by pair, by keys, and Enter leads to the pair that tells most', async () => {
    const bench = await openBench(shop, 'Marl', 'Cast acrylic, clear');
    await driver.get(`${bench}/plan/knobs`);
    await press(driver, 'Make this card');
    await says(driver, 'Before the burn');
    const card = await madeCard(driver);
    await driver.get(`${base}/cards/${card}#look`);
    await says(driver, 'Try next: part 1 into hole C');
    const inFocus = async (): Promise<string> =>
      (await driver.switchTo().activeElement().getAttribute('aria-label')) ?? '';
    const told = async (key: string, name: string): Promise<void> => {
      await driver.switchTo().activeElement().sendKeys(key);
      await until(driver, async () => (await inFocus()).endsWith(name), `${key} does not say “${name}”`);
    };
    await (await find(driver, '[data-next]')).sendKeys(Key.ENTER);
    expect(await inFocus()).toContain('part 1 into hole C');
    await told('l', 'slips in, no play');
    await driver.switchTo().activeElement().sendKeys(Key.ENTER);
    expect(await inFocus()).toContain('part 1 into hole D');
    await told('x', 'does not go in');
    await told('u', 'not tried');
    await driver.switchTo().activeElement().sendKeys(Key.ARROW_UP);
    expect(await inFocus()).toContain('part 1 into hole C');
    expect(await seriousFindings(driver)).toEqual([]);
    expect(await consoleErrors(driver)).toEqual([]);
  });
});
