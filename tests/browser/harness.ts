import { AxeBuilder } from '@axe-core/webdriverjs';
import { By, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { openBrowser } from '../../scripts/browser.mjs';
import { inject } from 'vitest';

export interface Shop {
  readonly base: string;
  readonly driver: WebDriver;
  close(): Promise<void>;
}

/** A real browser in front of the real server, which the whole run shares (see global.ts). */
export async function openShop(size: { width?: number; height?: number } = {}): Promise<Shop> {
  const driver = await openBrowser(size);
  return { base: inject('base'), driver, close: () => driver.quit() };
}

/** Waits for an element that can be seen. */
export async function find(driver: WebDriver, css: string, seconds = 15): Promise<WebElement> {
  const element = await driver.wait(until.elementLocated(By.css(css)), seconds * 1000, `nothing matches ${css}`);
  await driver.wait(until.elementIsVisible(element), seconds * 1000, `${css} cannot be seen`);
  return element;
}

/** Waits for a button or link by its words. */
export async function named(driver: WebDriver, words: string, seconds = 15): Promise<WebElement> {
  const path = `//*[self::button or self::a or self::summary][contains(normalize-space(.), ${JSON.stringify(words)})]`;
  const element = await driver.wait(
    until.elementLocated(By.xpath(path)),
    seconds * 1000,
    `no button or link says “${words}”`,
  );
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
  return element;
}

export async function press(driver: WebDriver, words: string, seconds = 15): Promise<void> {
  const element = await named(driver, words, seconds);
  await driver.wait(until.elementIsEnabled(element), seconds * 1000, `“${words}” stays disabled`);
  await element.click();
}

/** Waits until the page says something. */
export async function says(driver: WebDriver, words: string, seconds = 15): Promise<void> {
  const seen = async (): Promise<boolean> => (await driver.findElement(By.css('body')).getText()).includes(words);
  await driver.wait(async () => seen().catch(() => false), seconds * 1000, `the page never says “${words}”`);
}

/** Replaces what stands in a field found by its label. */
export async function type(driver: WebDriver, label: string, text: string): Promise<WebElement> {
  const path = `//label[normalize-space(.)=${JSON.stringify(label)}]`;
  const element = await driver.wait(until.elementLocated(By.xpath(path)), 15_000, `no field is labelled “${label}”`);
  const field = await driver.findElement(By.id((await element.getAttribute('for'))!));
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" }); arguments[0].select();', field);
  await field.sendKeys(text);
  return field;
}

/** What axe finds that is serious or worse, in words. */
export async function seriousFindings(driver: WebDriver): Promise<string[]> {
  const { violations } = await new AxeBuilder(driver).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.slice(0, 3).map((node) => `${id}: ${node.html.slice(0, 140)}`));
}

/** Errors in the browser's console since the last look: refused resources, broken policies, exceptions. */
export async function consoleErrors(driver: WebDriver): Promise<string[]> {
  const entries = await driver.manage().logs().get('browser');
  return entries.filter(({ level }) => level.name === 'SEVERE').map(({ message }) => message);
}
