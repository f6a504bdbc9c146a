import { AxeBuilder } from '@axe-core/webdriverjs';
import { By, error, type WebDriver, type WebElement } from 'selenium-webdriver';
import { openBrowser } from '../../scripts/browser.mjs';
import { setTimeout } from 'node:timers/promises';
import { inject } from 'vitest';

/** How long anything is waited for: so long only because the machine may be busy with much else. */
export const PATIENCE_MS = 120_000 * Number(process.env['TEST_PATIENCE'] ?? 1);

export interface Shop {
  readonly base: string;
  readonly driver: WebDriver;
  close(): Promise<void>;
}

/** Waits until a server that is starting answers. */
async function untilAnswers(url: string): Promise<void> {
  const gaveUp = Date.now() + 4 * PATIENCE_MS;
  for (;;) {
    const fault = await fetch(url).then(
      () => null,
      (cause: unknown) => cause,
    );
    if (fault === null) return;
    if (Date.now() > gaveUp) throw new Error(`nothing ever answers at ${url}`, { cause: fault });
    await setTimeout(200);
  }
}

/** A real browser in front of the real server, which the whole run shares (see global.ts). */
export async function openShop(size: { width?: number; height?: number } = {}): Promise<Shop> {
  const base = inject('base');
  await untilAnswers(base);
  const driver = await openBrowser(size);
  return { base, driver, close: () => driver.quit() };
}

/** Opens a bench over the endpoints and gives the address of its page. Cards of tests that share no stock cannot take each other's places. */
export async function openBench({ base }: Shop, machine: string, stock: string): Promise<string> {
  const all = async (path: string): Promise<{ id: number; name: string; lenses?: { id: number }[] }[]> =>
    (await fetch(base + path)).json();
  const { id: machineId, lenses } = (await all('/api/machines')).find(({ name }) => name === machine)!;
  const json = {
    machineId,
    lensId: lenses![0]!.id,
    stockId: (await all('/api/stock')).find(({ name }) => name === stock)!.id,
  };
  const headers = { 'content-type': 'application/json' };
  const answer = await fetch(`${base}/api/pairings`, { method: 'POST', headers, body: JSON.stringify(json) });
  return `${base}/bench/${((await answer.json()) as { id: number }).id}`;
}

/** Waits until a condition gives something; a wait in vain tells what the page said instead. */
export async function until<Value>(
  driver: WebDriver,
  condition: () => Promise<Value | null | false | undefined>,
  fault: string,
): Promise<Value> {
  try {
    return (await driver.wait(condition, PATIENCE_MS, fault)) as Value;
  } catch (cause) {
    const text = await driver.findElement(By.css('body')).then(
      (body) => body.getText(),
      () => 'nothing',
    );
    throw new Error(`${fault}. The page says: ${text}`, { cause });
  }
}

/** Waits for an element that can be seen. */
export async function find(driver: WebDriver, css: string): Promise<WebElement> {
  const seen = async (): Promise<WebElement | undefined> => {
    const [element] = await driver.findElements(By.css(css));
    return element && (await element.isDisplayed()) ? element : undefined;
  };
  return until(driver, () => seen().catch(onlyMoved), `nothing that can be seen matches ${css}`);
}

/** Waits for a button or link by its words: the first on the page, or the first within what a path names. */
export async function named(driver: WebDriver, words: string, within = ''): Promise<WebElement> {
  const path = `${within}//*[self::button or self::a or self::summary][contains(normalize-space(.), ${JSON.stringify(words)})]`;
  const aimed = async (): Promise<WebElement | undefined> => {
    const [element] = await driver.findElements(By.xpath(path));
    if (element) await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
    return element;
  };
  return until(
    driver,
    () => aimed().catch(onlyMoved),
    `no button or link says “${words}”${within && ` within ${within}`}`,
  );
}

/** Listens whether an element is clicked; a page that was left knows nothing of it. */
const LISTEN = `window.pressHeard = false;
  arguments[0].addEventListener('click', () => (window.pressHeard = true), { once: true, capture: true });`;

/**
 * Clicks a button or link as a hand does, and makes sure that it was the one that was hit: a page that is drawn anew between aim and
 * click can slip from under the pointer, and then a hand clicks again.
 */
export async function press(driver: WebDriver, words: string, within = ''): Promise<void> {
  const hit = async (): Promise<boolean> => {
    const element = await named(driver, words, within);
    if (!(await element.isEnabled())) return false;
    await driver.executeScript(LISTEN, element);
    await element.click();
    return (await driver.executeScript('return window.pressHeard')) !== false;
  };
  await until(driver, () => hit().catch(onlyMoved), `“${words}” cannot be pressed`);
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
  await until(driver, () => seen().catch(() => false), `the page never says “${words}”`);
}

/** Replaces what stands in a field found by its label. */
export async function type(driver: WebDriver, label: string, text: string): Promise<WebElement> {
  const path = `//label[normalize-space(.)=${JSON.stringify(label)}]`;
  const labelled = async (): Promise<WebElement | undefined> => (await driver.findElements(By.xpath(path)))[0];
  const element = await until(driver, labelled, `no field is labelled “${label}”`);
  const field = await driver.findElement(By.id((await element.getAttribute('for'))!));
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" }); arguments[0].select();', field);
  await field.sendKeys(text);
  return field;
}

/** What axe finds that is serious or worse, in words: by all of its rules, or by that of contrast alone, where only colours differ. */
export async function seriousFindings(driver: WebDriver, rules: 'all' | 'contrast' = 'all'): Promise<string[]> {
  // Without a window of its own for what frames say (there are none here), and without the nodes of what passes: a third of the time.
  const axe = new AxeBuilder(driver).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (rules === 'all' ? axe : axe.withRules(['color-contrast'])).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.slice(0, 3).map((node) => `${id}: ${node.html.slice(0, 140)}`));
}

/** Errors in the browser's console since the last look: refused resources, broken policies, exceptions. */
export async function consoleErrors(driver: WebDriver): Promise<string[]> {
  const entries = await driver.manage().logs().get('browser');
  return entries.filter(({ level }) => level.name === 'SEVERE').map(({ message }) => message);
}

/** Ticks every open line of the pre-burn check. */
export async function tickAll(driver: WebDriver): Promise<void> {
  for (const box of await driver.findElements(By.css('fieldset input[type=checkbox]:not(:checked)'))) {
    await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', box);
    await box.click();
  }
}

/** Waits for the page of a card that was just made; gives its number. */
export const madeCard = (driver: WebDriver): Promise<string> =>
  until(driver, async () => /\/cards\/(\d+)/.exec(await driver.getCurrentUrl())?.[1], 'no card was made');
