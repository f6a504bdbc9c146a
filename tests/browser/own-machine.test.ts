import { By } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { consoleErrors, find, openShop, press, says, seriousFindings, type, tickAll, type Shop } from './harness';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => void ({ driver, base } = shop = await openShop()));
afterAll(() => shop?.close());

const call = async (path: string, json?: unknown): Promise<any> => {
  const post = { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(json) };
  return (await fetch(base + path, json === undefined ? {} : post)).json();
};

/** A small card of a bench, made over the endpoints. */
async function smallCard(pairingId: number): Promise<number> {
  const { plan } = await call(`/api/pairings/${pairingId}/proposals/grid`);
  const small = { ...plan, across: { ...plan.across, count: 3 }, down: { ...plan.down, count: 3 } };
  const sheetOnBed = { leftMm: 40, rearMm: 40 };
  return (await call('/api/cards', { pairingId, kind: 'grid', plan: small, sheetPlace: null, sheetOnBed })).id;
}

describe('a burn on one’s own machine', () => {
  it('is timed by the clock on the page or by what a stopwatch showed, and stands in the logbook', async () => {
    const card = await smallCard(5);
    await driver.get(`${base}/cards/${card}#burn`);
    await says(driver, 'Before the burn');
    await tickAll(driver);
    await press(driver, 'On my own machine');
    await press(driver, 'It starts now: start the clock');
    await says(driver, 'Burning on your machine');
    // The clock is the server's: it runs on while the page is away.
    await driver.navigate().refresh();
    await find(driver, '[role=timer]');
    await type(driver, 'It took', '2:30');
    await press(driver, 'Burned to the end');
    await says(driver, 'Photo of the card');
    await driver.get(`${base}/logbook`);
    await says(driver, '2 min 30 s');
    await says(driver, '(own machine)');
    await driver.get(`${base}/cards/${card}#burn`);
    await says(driver, 'Burned on your own machine: 2 min 30 s');
    expect(await consoleErrors(driver)).toEqual([]);
  });
});

describe('what is known from elsewhere', () => {
  it('is filed as unproven, stands hatched on the ladder, and is one press from a small card', async () => {
    await driver.get(`${base}/bench/7/bring`);
    await says(driver, 'One setting');
    expect(await seriousFindings(driver)).toEqual([]);
    await type(driver, 'Power', '60 %');
    await type(driver, 'Shade', 'strong');
    await press(driver, 'File it as unproven');
    await says(driver, 'Filed, not proven');
    await press(driver, 'Prove it on a small card');
    await says(driver, '9 of 9');
    await says(driver, 'not proven here');
    expect(await consoleErrors(driver)).toEqual([]);
  });
  it('comes from a pasted table once its columns were looked at', async () => {
    await driver.get(`${base}/bench/7/bring`);
    const area = await find(driver, '#table-text');
    await area.sendKeys('Power,Speed,Name\n40,500,soft\n70,x,hard\n');
    await press(driver, 'Look at it');
    await says(driver, 'not taken over');
    await press(driver, 'File 1 of 2 as unproven');
    await says(driver, '1 filed as unproven');
    await driver.get(`${base}/book?search=soft`);
    await says(driver, '40 %, 500 mm/s');
  });
  it('takes an old card in by its edges', async () => {
    await driver.get(`${base}/bench/5/adopt`);
    await says(driver, 'Its edges');
    expect(await seriousFindings(driver)).toEqual([]);
    await type(driver, 'Its power values, left to right', '10, 14, 18');
    await type(driver, 'Down the side: speed values, top to bottom', '400 300 200 mm/s');
    await says(driver, '3 columns and 3 rows: 9 cells');
    await press(driver, 'Adopt this card');
    await says(driver, 'All cells in view');
    const tabs = await driver.findElements(By.xpath('//button[contains(., "Burn")]'));
    expect(tabs).toEqual([]);
  });
});

describe('a favourite', () => {
  it('is kept on one bench and laid on another', async () => {
    await driver.get(`${base}/bench/5/plan/grid`);
    await says(driver, 'Favourites');
    await type(driver, 'Keep this plan as', 'Quick look');
    await press(driver, 'Keep as a favourite');
    await says(driver, 'Kept as “Quick look”');
    await driver.get(`${base}/bench/4/plan/grid`);
    await press(driver, 'Put it on this card');
    await says(driver, '“Quick look” is on the card');
    expect(await consoleErrors(driver)).toEqual([]);
  });
});

describe('on a phone', () => {
  it('shows the card before the numbers while looking and choosing, and the ladder on a press', async () => {
    const phone = await openShop({ width: 390, height: 844 });
    try {
      for (const stage of ['look', 'find']) {
        await phone.driver.get('about:blank');
        await phone.driver.get(`${phone.base}/cards/1#${stage}`);
        const mat = await find(phone.driver, 'section[aria-label="Mat"]');
        const ticket = await find(phone.driver, 'section[aria-label="Ticket"]');
        expect((await mat.getRect()).y).toBeLessThan((await ticket.getRect()).y);
      }
      const rungs = await phone.driver.findElement(By.css('section[aria-label="Ladder"] ol'));
      expect(await rungs.isDisplayed()).toBe(false);
      await (await find(phone.driver, 'section[aria-label="Ladder"] summary')).click();
      expect(await rungs.isDisplayed()).toBe(true);
    } finally {
      await phone.close();
    }
  });
});
