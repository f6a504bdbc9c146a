import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cardCode } from '../../src/core/card/code';
import { svgOfCard } from '../../src/formats/card-svg';
import type { BenchView, CardView } from '../../src/views/views';
import {
  consoleErrors,
  find,
  named,
  openShop,
  press,
  says,
  seriousFindings,
  type,
  until,
  type Shop,
  PATIENCE_MS,
} from './harness';
import { tuples } from '../support/tuples';

let shop: Shop;
let driver: Shop['driver'];
let base: string;
beforeAll(async () => void ({ driver, base } = shop = await openShop()));
afterAll(() => shop?.close());

it('the demo world’s cards are told by what was answered of the piece that lies there, none of which a later burn took', async () => {
  const answersOf = async (id: number) =>
    ((await (await fetch(`${base}/api/cards/${id}`)).json()) as CardView).answers.map(({ field, value }) => [
      field,
      value,
    ]);
  const kept = tuples(['grade', '5'], ['outcome', 'good']);
  expect((await answersOf(1)).toSorted()).toEqual([kept[0], kept[0], kept[1], kept[1]]);
  expect((await answersOf(2)).toSorted()).toEqual(kept);
});

const SCREENS: readonly (readonly [path: string, ready: string])[] = [
  ['/bench', 'select'],
  ['/bench/1', 'svg[role=group]'],
  ['/bench/6', 'svg[role=group]'],
  ['/bench/1/round', '[data-planned]'],
  ['/bench/4/plan/grid', '[data-cell]'],
  ['/bench/1/plan/threshold', '[data-cell]'],
  ['/bench/1/plan/focus', '[data-cell]'],
  ['/bench/2/plan/interval', '[data-cell]'],
  ['/bench/4/plan/kerf', '[data-cell]'],
  ['/bench/3/plan/a-b', '[data-cell]'],
  ['/cards/1#burn', '[data-cell]'],
  ['/cards/1#photo', 'ul li'],
  ['/cards/1#look', '[data-cell]'],
  ['/cards/1#find', 'canvas'],
  ['/cards/4#find', 'canvas'],
  ['/cards/5#look', '[data-cell]'],
  ['/cards/6#find', 'canvas'],
  ['/cards/7#look', '[data-cell]'],
  ['/cards/7#find', 'canvas'],
  ['/stock', 'table'],
  ['/stock/1', 'form'],
  ['/stock/new', 'form'],
  ['/frame-sheets', 'svg[role=img]'],
  ['/machines', 'h1'],
  ['/machines/2', 'form'],
  ['/machines/new', 'form'],
  ['/compare?pairing=1&pairing=2', 'table'],
  ['/match', 'h1'],
  ['/book', 'table'],
  ['/sums', 'table'],
  ['/book/1', 'article'],
  ['/book/1/sheet', 'article'],
  ['/logbook', 'table'],
  ['/problems', 'section'],
  ['/cards/4711', 'h1'],
];

/** The screens that have colours of their own; the rest shares them. */
const hasColours = (path: string): boolean => /plan\/grid|bench\/[16]|#(look|find)|\/stock$|book\/1$/.test(path);

/** Presses the switch, whichever way it stands. */
async function switchTheme(): Promise<void> {
  const theme = await driver.findElement(By.css('html')).getAttribute('data-theme');
  await press(driver, theme === 'dim' ? 'Lights up' : 'Dim the lights');
  const other = theme === 'dim' ? 'light' : 'dim';
  await until(
    driver,
    async () => (await driver.findElement(By.css('html')).getAttribute('data-theme')) === other,
    `the theme is never ${other}`,
  );
}

describe('every screen', () => {
  it.each(SCREENS)('%s: nothing serious for axe in either theme, nothing in the console', async (path, ready) => {
    await driver.get('about:blank');
    await consoleErrors(driver);
    await driver.get(base + path);
    await find(driver, ready);
    expect(await driver.findElement(By.css('html')).getAttribute('data-theme')).toBe('light');
    expect(await seriousFindings(driver)).toEqual([]);
    if (hasColours(path)) {
      await switchTheme();
      expect(await seriousFindings(driver, 'contrast')).toEqual([]);
      await switchTheme();
    }
    const errors = await consoleErrors(driver);
    expect(errors.filter((message) => !(path.endsWith('4711') && message.includes('404')))).toEqual([]);
  });
});

describe('sums', () => {
  it('answer what is typed in any unit, take a kept kerf, and stand in the address to be shared', async () => {
    await driver.get(`${base}/sums`);
    // Common practice: a sheet of 0.120 in and a kerf of 0.010 in make a slot of 0.110 in, which is 2.794 mm.
    await type(driver, 'Kerf, full width', '0.010 in');
    await says(driver, '= 0.254 mm');
    await type(driver, 'Thickness of the sheet, as measured', '0.120 in');
    await says(driver, '2.794 mm');
    await says(driver, '0.127 mm per side');
    await type(driver, 'Kerf, full width', '25 mm');
    await says(driver, 'nothing would be left of it');
    await driver.findElement(By.xpath('//select/option[contains(., "Alder")]')).click();
    await says(driver, 'Both true to size');
    const address = new URL(await driver.getCurrentUrl());
    expect(Number(address.searchParams.get('thickness'))).toBeCloseTo(3.048, 6);
    expect(Number(address.searchParams.get('kerf'))).toBeLessThan(0.4);
    await driver.findElement(By.xpath('//select/option[contains(., "slots that were tried: Alder")]')).click();
    await says(driver, 'Of 100, snug');
    await says(driver, 'By the slots that were tried in Alder board.');
    await says(driver, 'tried with a sheet of 6.017 mm');
    await driver.findElement(By.xpath('//select/option[.="pressed in"]')).click();
    await says(driver, 'Of 100, pressed in');
    await says(driver, '9 of 10 mm');
    await type(driver, 'Fingers about as wide as', '30 mm');
    await says(driver, '3 of 30 mm');
    await driver.findElement(By.xpath('//select/option[.="inches"]')).click();
    await says(driver, '3 of 1.1811 in');
    await type(driver, 'Power now', '50 %');
    await says(driver, '250 mm/min');
    const shared = await driver.getCurrentUrl();
    await driver.get('about:blank');
    await driver.get(shared);
    await says(driver, '250 mm/min');
    await says(driver, 'Of 100, pressed in');
    expect(await consoleErrors(driver)).toEqual([]);
  });
});

describe('pages', () => {
  it('stop banned stock in the form, with the reason', async () => {
    await driver.get(`${base}/stock/new`);
    await find(driver, 'form');
    await type(driver, 'Name', 'Red vinyl');
    await says(driver, 'never burn this');
    await says(driver, 'hydrogen chloride');
    await driver.get(`${base}/bench/6`);
    await says(driver, 'lets blue light through');
    expect(await driver.findElements(By.css('a[href*="/plan/"]'))).toHaveLength(0);
    await driver.get(`${base}/bench/2/plan/kerf`);
    await says(driver, 'is not cut through by this source');
    await driver.get(`${base}/bench/6/plan/grid`);
    expect(await driver.getCurrentUrl()).toMatch(/\/bench\/6\?/);
  });

  it('add a machine with quantities as typed, and show them canonical', async () => {
    await driver.get(`${base}/machines/new`);
    await find(driver, 'form');
    await type(driver, 'Name', 'Sandpiper');
    await type(driver, 'Work area, width', '16 in');
    await type(driver, 'Top speed along X', '12000 mm/min');
    await press(driver, 'Add this machine');
    await says(driver, 'Save the lens');
    const values = await Promise.all(
      (await driver.findElements(By.css('input'))).map((input) => input.getAttribute('value')),
    );
    expect(values).toContain('406.4 mm');
    expect(values).toContain('200 mm/s');
  });

  it('open a card by the code that is burned on it, and say why a code is none', async () => {
    const open = async (code: string): Promise<void> => {
      await driver.get(`${base}/logbook`);
      await type(driver, 'Code on a card', code);
      await press(driver, 'Open it');
    };
    await open(cardCode(1).toLowerCase().replace('-', ' '));
    await driver.wait(async () => /\/cards\/\d+/.test(await driver.getCurrentUrl()), PATIENCE_MS);
    await says(driver, cardCode(1));
    await open(`${cardCode(1).slice(0, -1)}Y`);
    await says(driver, 'is no card’s code');
    await open(cardCode(200_000));
    await says(driver, 'it was made with another book');
  });

  it('list the keys with ?, search with /, and remember the theme', async () => {
    await driver.get(`${base}/bench`);
    await named(driver, 'Open this bench');
    const body = await driver.findElement(By.css('body'));
    await body.sendKeys('?');
    await says(driver, 'answer about the cell in focus');
    await driver.switchTo().activeElement().sendKeys(Key.ESCAPE);
    await body.sendKeys('/');
    await driver.wait(async () => (await driver.getCurrentUrl()).includes('/book'), PATIENCE_MS);
    await switchTheme();
    const theme = await driver.findElement(By.css('html')).getAttribute('data-theme');
    await driver.navigate().refresh();
    expect(await driver.findElement(By.css('html')).getAttribute('data-theme')).toBe(theme);
  });
});

describe('several cards in one go', () => {
  it('are chosen with what they cost and where they will lie, two at the least', async () => {
    await driver.get(`${base}/bench/2`);
    await press(driver, 'For how many pieces?');
    await type(driver, 'Pieces', '30');
    await type(driver, 'Engraved, width', '60 mm');
    await type(driver, 'Engraved, height', '2 in');
    await press(driver, 'Weigh tests against them');
    await says(driver, 'For 30 pieces of 60 × 50.8 mm');
    await says(driver, 'of your 30');
    await driver.get(`${base}/bench/2/round`);
    // They are not made here: the places of other tests’ cards would be taken from under them.
    await says(driver, 'Make these');
    for (const label of await driver.findElements(By.css('fieldset label'))) {
      const words = await label.getText();
      if (!/^(Single lines|Run-up bars)/.test(words)) await label.findElement(By.css('input')).click();
    }
    const make = await named(driver, 'Make these 2 cards');
    expect(await make.isEnabled()).toBe(true);
    expect(await driver.findElements(By.css('[data-planned]'))).toHaveLength(2);
    const [one] = await driver.findElements(By.css('fieldset input:checked'));
    await one!.click();
    expect(await (await named(driver, 'Choose two or more')).isEnabled()).toBe(false);
  });
});

describe('strips beside each other', () => {
  it('are ranked by eye, two at a time, on the finding’s own page, and the last choice is taken back', async () => {
    await driver.get(`${base}/cards/6#find`);
    await press(driver, 'Compare by eye');
    const board = await find(driver, '[role=group][aria-label="Which is better?"]');
    expect(await board.findElements(By.css('[data-compared]'))).toHaveLength(2);
    await board.sendKeys(Key.ARROW_LEFT);
    await until(
      driver,
      async () => (await driver.findElement(By.css('main')).getText()).includes('best with'),
      'nothing is ranked',
    );
    await (await find(driver, '[role=group][aria-label="Which is better?"]')).sendKeys('u');
    await until(
      driver,
      async () => !(await driver.findElement(By.css('main')).getText()).includes('best with'),
      'nothing is taken back',
    );
  });
});

describe('a machine’s diary', () => {
  it('takes what happened, says what that makes doubtful, and takes it back', async () => {
    await driver.get(`${base}/machines/2`);
    await says(driver, 'Nothing was noted yet');
    await driver.findElement(By.css('#diary option[value="repaired"]')).click();
    await says(driver, 'turns stale: run-up, scan offset and length of dots');
    await type(driver, 'Note', 'new belt');
    await press(driver, 'Note it');
    await says(driver, 'new belt');
    await press(driver, 'Strike out');
    await says(driver, 'struck out');
  });
});

describe('benches beside each other', () => {
  it('are chosen by a form, each with its card, at a darkness that is asked for, and without those that are no more', async () => {
    await driver.get(`${base}/bench`);
    await press(driver, 'Compare benches');
    await find(driver, 'main table');
    await driver.get(`${base}/compare?pairing=1&pairing=2&pairing=4711&strength=12`);
    expect(await driver.findElements(By.css('thead th'))).toHaveLength(2);
    expect(await driver.findElements(By.css('tbody img'))).toHaveLength(2);
    await says(driver, 'at least 12 L* from bare stock');
    await driver.findElement(By.css('input[name="pairing"][value="2"]')).click();
    await press(driver, 'Compare', '//form');
    await until(
      driver,
      async () => (await driver.findElements(By.css('thead th'))).length === 1,
      'two are compared still',
    );
  });
});

describe('charts', () => {
  it('follow the theme when it is changed under them', async () => {
    await driver.get(`${base}/cards/1#find`);
    await find(driver, 'canvas');
    const drawn = (): Promise<string[]> =>
      driver.executeScript('return [...document.querySelectorAll("canvas")].map((one) => one.toDataURL())');
    const before = await drawn();
    expect(before.length).toBeGreaterThan(0);
    await switchTheme();
    await until(
      driver,
      async () => (await drawn()).every((picture, index) => picture !== before[index]),
      'a chart keeps the colours of the other theme',
    );
  });
});

describe('a chart', () => {
  it('is saved as a picture and as data, with every point of it', async () => {
    const { card, reading } = (await fetch(`${base}/api/cards/1`).then((response) => response.json())) as CardView;
    await driver.get(`${base}/cards/1#find`);
    await find(driver, 'canvas');
    await driver.executeScript(`window.saved = {};
      const make = URL.createObjectURL;
      URL.createObjectURL = (blob) => { blob.text().then((text) => (window.saved[blob.type] = text)); return make.call(URL, blob); };`);
    const saved = (type: string) =>
      until(
        driver,
        () => driver.executeScript<string | null>('return window.saved[arguments[0]]', type),
        `nothing was saved as ${type}`,
      );
    const within = '//p[starts-with(normalize-space(.), "Save this chart")]';
    await press(driver, 'SVG', within);
    const picture = await saved('image/svg+xml');
    await press(driver, 'CSV', within);
    const rows = (await saved('text/csv'))
      .trimEnd()
      .split('\r\n')
      .map((line) => line.split(','));
    const measured = rows.filter(([what]) => what === 'measured');
    expect(measured.map((row) => Number(row[6])).sort((a, b) => a - b)).toEqual(
      [...card.layout.order].sort((a, b) => a - b),
    );
    for (const row of measured)
      expect(Number(row[2])).toBe(reading!.cells.find(({ cellIndex }) => cellIndex === Number(row[6]))!.lightness);
    // Chromium's own parser takes it, and finds the axes that the screen has.
    const shown = await driver.executeScript<{ root: string; circles: number; texts: string[] }>(
      `const drawn = new DOMParser().parseFromString(arguments[0], 'image/svg+xml');
       return { root: drawn.documentElement.localName, circles: drawn.querySelectorAll('circle').length,
         texts: [...drawn.querySelectorAll('text')].map((text) => text.textContent) };`,
      picture,
    );
    expect(shown).toMatchObject({ root: 'svg', circles: measured.length });
    expect(shown.texts).toContain('L*');
    expect(shown.texts.filter((text) => /^\d+$/.test(text)).length).toBeGreaterThan(2);
  });
});

describe('the SVG export as Chromium draws it', () => {
  it('puts every cell and marker where the layout has them', async () => {
    const { card } = (await fetch(`${base}/api/cards/1`).then((response) => response.json())) as CardView;
    const exported = await fetch(`${base}/api/cards/1/export/svg`).then((response) => response.text());
    expect(exported).toBe(svgOfCard(card.layout));
    await driver.get(`data:image/svg+xml;base64,${Buffer.from(exported).toString('base64')}`);
    const boxes = await driver.executeScript<Record<string, [number, number, number, number]>>(
      'return Object.fromEntries([...document.querySelectorAll("g[id]")].map((g) => { const b = g.getBBox(); return [g.id, [b.x, b.y, b.width, b.height]]; }))',
    );
    const size = await driver.executeScript<[number, number]>(
      'return [document.documentElement.width.baseVal.value, document.documentElement.height.baseVal.value]',
    );
    // 96 CSS pixels to the inch.
    expect((size[0] / 96) * 25.4).toBeCloseTo(card.layout.widthMm, 2);
    expect((size[1] / 96) * 25.4).toBeCloseTo(card.layout.heightMm, 2);
    for (const cell of card.layout.cells) {
      boxes[`cell-${cell.index}`]!.forEach((value, index) =>
        expect(value).toBeCloseTo([cell.box.x, cell.box.y, cell.box.width, cell.box.height][index]!, 2),
      );
    }
    for (const marker of card.layout.frame.markers) {
      boxes[`marker-${marker.corner}`]!.forEach((value, index) =>
        expect(value).toBeCloseTo([marker.x, marker.y, marker.sizeMm, marker.sizeMm][index]!, 2),
      );
    }
  });
});

// Last: what was found on this stock before is stale from here on.
describe('a record of stock', () => {
  it('is changed, its thickness typed in any unit, and the old findings go stale', async () => {
    const bench = (await fetch(`${base}/api/pairings/2`).then((response) => response.json())) as BenchView;
    await driver.get(`${base}/stock/${bench.pairing.stock.id}`);
    await find(driver, 'form');
    await type(driver, 'Thickness measured, several places', '6.0; 0.24 in; 6,1');
    await says(driver, '6.065 mm');
    await type(driver, 'Supplier’s batch', 'quarry 8');
    await press(driver, 'Save');
    await says(driver, 'Saved.');
    await driver.get(`${base}/bench/2`);
    await says(driver, 'new batch quarry 8');
    await says(driver, 'stale');
  });
});
