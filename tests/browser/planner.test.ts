import { By, Key, Origin, type WebElement } from 'selenium-webdriver';
import type { CardView } from '../../src/views/views';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { find, madeCard, openBench, openShop, press, says, type, until, type Shop, PATIENCE_MS } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => {
  ({ driver, base } = shop = await openShop());
  await driver.get(`${base}/bench/5/plan/grid`);
  await find(driver, '[data-cell]');
});
afterAll(() => shop?.close());

const cells = async (): Promise<number> => (await driver.findElements(By.css('[data-cell]'))).length;
const value = async (label: string): Promise<string> => {
  const element = await driver.findElement(By.xpath(`//label[normalize-space(.)="${label}"]`));
  return (await driver.findElement(By.id((await element.getAttribute('for'))!)).getAttribute('value'))!;
};
const choose = async (label: string, option: string): Promise<void> => {
  const select = await driver.findElement(By.xpath(`//label[contains(normalize-space(.), "${label}")]/..//select`));
  await select.findElement(By.css(`option[value="${option}"]`)).click();
};
const drag = (element: WebElement, x: number, y: number): Promise<void> =>
  driver.actions().move({ origin: element }).press().move({ origin: Origin.POINTER, x, y }).release().perform();

describe('the card being planned', () => {
  it('gets more columns when its right edge is dragged, and fewer when it is dragged back', async () => {
    const before = await cells();
    const columns = Number(await value('Columns'));
    const edge = await driver.findElement(
      By.xpath('//*[name()="title" and contains(., "columns")]/..//*[name()="circle"][2]'),
    );
    await drag(edge, 90, 0);
    await driver.wait(async () => (await cells()) > before, PATIENCE_MS);
    expect(Number(await value('Columns'))).toBeGreaterThan(columns);
    await type(driver, 'Columns', String(columns));
    await driver.wait(async () => (await cells()) === before, PATIENCE_MS);
  });

  it('is dragged about the sheet, and goes back to the first free place', async () => {
    // Others may have laid cards on this sheet before.
    const free = await value('From the sheet’s left');
    const card = await driver.findElement(By.css('svg[role=group] g > rect[data-grab]'));
    await drag(card, 40, 30);
    await driver.wait(async () => (await value('From the sheet’s left')) !== free, PATIENCE_MS);
    expect(parseFloat(await value('From the sheet’s rear'))).toBeGreaterThan(2);
    await press(driver, 'Back to the first free place');
    await driver.wait(async () => (await value('From the sheet’s left')) === free, PATIENCE_MS);
  });

  it('says when head and run-up would leave the bed, and cannot be made then', async () => {
    await type(driver, 'Sheet from the bed’s left', '0');
    await type(driver, 'From the sheet’s left', '0');
    await says(driver, 'Head or run-up leaves the bed');
    const make = await driver.findElement(By.xpath('//button[contains(., "Make this card")]'));
    expect(await make.isEnabled()).toBe(false);
    await type(driver, 'Sheet from the bed’s left', '40');
    await press(driver, 'Back to the first free place');
    await driver.wait(() => make.isEnabled(), PATIENCE_MS);
  });

  it('shows what is wrong beside the edge, and keeps the last good drawing', async () => {
    const before = await cells();
    await type(driver, 'Power, right', '5');
    await says(driver, 'the low end must be below the high end');
    expect(await cells()).toBe(before);
    await press(driver, 'Back to the proposal');
    await driver.wait(
      async () => !(await driver.findElement(By.css('body')).getText()).includes('Not a plan yet'),
      PATIENCE_MS,
    );
  });

  it('leaves out cells bound to fail by one click, and tells each cell’s energy and turn', async () => {
    // Below the 8 % under which this source does not fire.
    await type(driver, 'Power, left', '2');
    await says(driver, 'bound to fail and left out');
    const leftOut = async (): Promise<number> => (await driver.findElements(By.css('rect[class*=leftOut]'))).length;
    await until(driver, async () => (await leftOut()) > 0, 'no cell is left out');
    const box = await driver.findElement(By.xpath('//label[contains(., "bound to fail")]//input'));
    await box.click();
    await until(driver, async () => (await leftOut()) === 0, 'cells stay left out');
    await says(driver, 'dimmed on the card');
    const cell = await find(driver, '[data-cell][tabindex="0"]');
    await driver.executeScript('arguments[0].focus()', cell);
    await says(driver, 'Energy per length');
    await driver.switchTo().activeElement().sendKeys(Key.ARROW_LEFT);
    await says(driver, 'Turn');
  });

  it('points out a constant far from the proposal', async () => {
    await type(driver, 'Passes', '4');
    await says(driver, 'Passes: 4, where 1 was proposed');
    await type(driver, 'Passes', '1');
  });

  it('varies other settings along its edges, repeated and scattered, each typed in its own unit', async () => {
    const before = await cells();
    await choose('Rows vary', 'interval');
    await says(driver, 'Line interval, top');
    expect(await value('Line interval, bottom')).toMatch(/ mm$/);
    await choose('Columns vary', 'interval');
    // The two change places.
    await says(driver, 'Line interval, left');
    await says(driver, 'Power, top');
    await choose('Placed', 'scattered');
    await says(driver, 'Power, from');
    await type(driver, 'Each burned', '2');
    await driver.wait(async () => (await cells()) > before, PATIENCE_MS);
    await press(driver, 'Back to the proposal');
    await driver.wait(async () => (await cells()) === before, PATIENCE_MS);
  });

  it('is seen on the whole sheet', async () => {
    await press(driver, 'Show the whole sheet');
    await says(driver, 'Show the card');
    expect(await driver.findElements(By.css('#across-from'))).toHaveLength(0);
  });
});

describe('a place that was taken while the card was planned', () => {
  it('is left for the next free one, which is shown before anything is made', async () => {
    const bench = await openBench(shop, 'Heron', 'Wool felt, oat');
    await driver.get(`${bench}/plan/grid`);
    await find(driver, '[data-cell]');
    const proposed = await value('From the sheet’s left');
    const pairingId = Number(bench.split('/').at(-1));
    const { plan } = (await (await fetch(`${base}/api/pairings/${pairingId}/proposals/grid`)).json()) as {
      plan: object;
    };
    const other = { pairingId, kind: 'grid', plan, sheetPlace: null, sheetOnBed: { leftMm: 40, rearMm: 40 } };
    const headers = { 'content-type': 'application/json' };
    expect((await fetch(`${base}/api/cards`, { method: 'POST', headers, body: JSON.stringify(other) })).ok).toBe(true);
    await press(driver, 'Make this card');
    await says(driver, 'Another card was made there meanwhile');
    await until(driver, async () => (await value('From the sheet’s left')) !== proposed, 'it lies where it did');
    const moved = parseFloat(await value('From the sheet’s left'));
    await press(driver, 'Make this card');
    const id = await madeCard(driver);
    const { card } = (await (await fetch(`${base}/api/cards/${id}`)).json()) as CardView;
    expect(card.sheetXMm).toBeCloseTo(moved, 1);
  });
});

describe('records in the browser', () => {
  it('a diode’s spot is not computed, and one that is too fine is questioned', async () => {
    await driver.get(`${base}/machines/1`);
    await says(driver, 'no beam formula gives it');
    expect(await driver.findElements(By.xpath('//button[contains(., "Compute it")]'))).toHaveLength(0);
    const spot = await driver.findElement(By.xpath('(//label[.="Spot along X"])[1]'));
    const field = await driver.findElement(By.id((await spot.getAttribute('for'))!));
    await driver.executeScript('arguments[0].select()', field);
    await field.sendKeys('0.001 mm');
    await says(driver, 'finer than this wavelength and focal length allow');
  });

  it('a lens is added with its spot computed from the beam', async () => {
    await driver.get(`${base}/machines/2`);
    await says(driver, 'Another lens');
    const groups = await driver.findElements(By.css('section[aria-label=Lenses] fieldset'));
    const last = groups.at(-1)!;
    const inputs = await last.findElements(By.css('input'));
    await inputs[0]!.sendKeys('long');
    await (await last.findElement(By.xpath('.//button[contains(., "Compute it")]'))).click();
    await (await last.findElement(By.xpath('.//button[contains(., "Add this lens")]'))).click();
    await says(driver, 'Lens long');
  });

  it('an address that names nothing says so and leads on', async () => {
    await driver.get(`${base}/book/abc`);
    await says(driver, 'Nothing stands at this address');
  });
});

describe('the surface of a grid', () => {
  it('is shown over its cells, gives a setting between them, and another one where it is pressed', async () => {
    await driver.get(`${base}/cards/2#find`);
    await says(driver, 'Between the cells');
    await press(driver, 'Show the surface');
    await says(driver, 'Bold line: the wanted tone');
    await press(driver, 'Take this place');
    await says(driver, 'Nobody burned this yet');
    const foretold = await value('Power');
    const map = await find(driver, 'rect[class*=ground]');
    await driver.actions().move({ origin: map, x: 60, y: 80 }).click().perform();
    await until(driver, async () => (await value('Power')) !== foretold, 'the place stays');
    // A level beyond the card is not taken.
    const chosen = await value('Power');
    await type(driver, 'Power', '99');
    expect(await driver.findElement(By.css('body')).getText()).not.toMatch(/99 %/);
    await press(driver, 'Back to the cells');
    await says(driver, 'Keep this setting');
    expect(chosen).toMatch(/%$/);
    await press(driver, 'Show the card');
    await find(driver, '[data-cell]');
  });
  it('has cells compared two at a time, by keys, and takes the last answer back', async () => {
    await press(driver, 'Compare by eye');
    await says(driver, 'Which is better?');
    const shown = async (): Promise<string> =>
      (
        await Promise.all(
          (await driver.findElements(By.css('[data-compared]'))).map((one) => one.getAttribute('data-compared')),
        )
      ).join(' ');
    const before = await shown();
    await driver.switchTo().activeElement().sendKeys(Key.ARROW_LEFT);
    await says(driver, 'best with');
    await until(driver, async () => (await shown()) !== before, 'the same two are shown');
    await press(driver, 'Take the last one back');
    await until(
      driver,
      async () => !(await driver.findElement(By.css('body')).getText()).includes('best with'),
      'the answer stays',
    );
    await press(driver, 'Stop comparing');
    await find(driver, '[data-cell]');
  });
});
