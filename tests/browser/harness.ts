import { AxeBuilder } from '@axe-core/webdriverjs';
import { By, error, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { openBrowser } from '../../scripts/browser.mjs';
import { inject } from 'vitest';

/** How long anything is waited for: so long only because the machine may be busy with much else. */
export const PATIENCE_MS = 120_000;

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
export async function find(driver: WebDriver, css: string): Promise<WebElement> {
  const element = await driver.wait(until.elementLocated(By.css(css)), PATIENCE_MS, `nothing matches ${css}`);
  await driver.wait(until.elementIsVisible(element), PATIENCE_MS, `${css} cannot be seen`);
  return element;
}

/** Waits for a button or link by its words. */
export async function named(driver: WebDriver, words: string): Promise<WebElement> {
  const path = `//*[self::button or self::a or self::summary][contains(normalize-space(.), ${JSON.stringify(words)})]`;
  const element = await driver.wait(
    until.elementLocated(By.xpath(path)),
    PATIENCE_MS,
    `no button or link says “${words}”`,
  );
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
  return element;
}

/** Listens whether an element is clicked; a page that was left knows nothing of it. */
const LISTEN = `window.pressHeard = false;
  arguments[0].addEventListener('click', () => (window.pressHeard = true), { once: true, capture: true });`;

/**
 * Clicks a button or link as a hand does, and makes sure that it was the one that was hit: a page that is drawn anew between aim and
 * click can slip from under the pointer, and then a hand clicks again.
 */
export async function press(driver: WebDriver, words: string): Promise<void> {
  const hit = async (): Promise<boolean> => {
    const element = await named(driver, words);
    if (!(await element.isEnabled())) return false;
    await driver.executeScript(LISTEN, element);
    await element.click();
    return (await driver.executeScript('return window.pressHeard')) !== false;
  };
  await driver.wait(() => hit().catch(onlyMoved), PATIENCE_MS, `“${words}” cannot be pressed`);
}

/** Elements that went away or were covered while they were aimed at are aimed at again; anything else is a fault. */
function onlyMoved(fault: unknown): false {
  if (fault instanceof error.StaleElementReferenceError || fault instanceof error.ElementClickInterceptedError)
    return false;
  throw fault;
}

/** Waits until the page says something. */
export async function says(driver: WebDriver, words: string): Promise<void> {
  const seen = async (): Promise<boolean> => (await driver.findElement(By.css('body')).getText()).includes(words);
  await driver.wait(async () => seen().catch(() => false), PATIENCE_MS, `the page never says “${words}”`);
}

/** Replaces what stands in a field found by its label. */
export async function type(driver: WebDriver, label: string, text: string): Promise<WebElement> {
  const path = `//label[normalize-space(.)=${JSON.stringify(label)}]`;
  const element = await driver.wait(
    until.elementLocated(By.xpath(path)),
    PATIENCE_MS,
    `no field is labelled “${label}”`,
  );
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
