// Makes docs/screenshots from the demo world: a throwaway database, the real server, a real browser at 1280 x 800.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { openBrowser } from './browser.mjs';
import { freePort } from './postgres.mjs';
import { ensureBuild, root } from './prepare.mjs';
import { untilReady } from './ready.mjs';
import { throwawayCluster } from './throwaway.mjs';

const SHOTS = [
  ['bench-list', '/bench'],
  ['bench', '/bench/1'],
  ['plan', '/bench/4/plan/grid'],
  ['round', '/bench/1/round'],
  ['burn', '/cards/3#burn'],
  ['photo', '/cards/3#photo'],
  ['look', '/cards/1#look', '[data-cell="16"]'],
  ['look-light-table', '/cards/9#look', 'main button[aria-pressed="false"]'],
  ['find', '/cards/2#find', '[data-show-surface]'],
  ['plan-part', '/bench/4/plan/part'],
  ['find-cut', '/cards/CUT#find'],
  ['stock-room', '/stock'],
  ['machine', '/machines/2'],
  ['book', '/book'],
  ['match', '/match', 'main img'],
  ['logbook', '/logbook'],
  ['sums', '/sums?kerf=0.159&kerfSigma=0.006&clearance=-0.05'],
  ['compare', '/compare?pairing=1&pairing=2&pairing=3'],
  ['find-bed-dim', '/cards/BED#find'],
];

ensureBuild();
const cluster = await throwawayCluster();
const port = await freePort();
const server = spawn(process.execPath, [join(root, 'dist/server/main.mjs')], {
  env: { ...process.env, DATABASE_URL: cluster.url, PORT: String(port), NODE_ENV: 'production', BENCH_PACE: '500' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await untilReady(server);
const driver = await openBrowser();
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const base = `http://127.0.0.1:${port}`;

/** One call of the API, as the interface makes it. */
async function call(method, path, json) {
  const headers = { origin: base, 'content-type': 'application/json' };
  const answer = await fetch(base + path, { method, headers, ...(json && { body: JSON.stringify(json) }) });
  if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`);
  return answer.json();
}

/** What a condition of a card gives, once it does. */
async function until(id, condition) {
  for (;;) {
    const view = await call('GET', `/api/cards/${id}`);
    if (condition(view)) return view;
    await driver.sleep(300);
  }
}

/** The proposed card of a kind on a bench, burned there and, where a photo tells, photographed. */
async function burned(kind, pairingId = 1, isPhotographed = true) {
  const { plan } = await call('GET', `/api/pairings/${pairingId}/proposals/${kind}`);
  const place = { sheetPlace: null, sheetOnBed: { leftMm: 40, rearMm: 40 } };
  const { id } = await call('POST', '/api/cards', { pairingId, kind, plan, ...place });
  const ticked = (await call('GET', `/api/cards/${id}/cautions`)).map(({ code }) => code);
  await call('POST', '/api/burns', { cardId: id, place: 'bench', ticked, cells: null });
  await until(id, ({ burns }) => burns.every(({ status }) => status === 'done'));
  if (!isPhotographed) return id;
  await call('POST', `/api/cards/${id}/photograph`, {});
  await until(id, ({ photos, reading }) => reading && photos.every(({ status }) => status === 'read'));
  return id;
}

// A picture through the table of a tone wedge: a view that the demo world has no card for.
const tone = await burned('tone');
await call('POST', '/api/facts', { cardId: tone, wish: {}, choice: {}, note: '' });
await burned('picture');
// A card that is tapped, and not photographed.
const cut = await burned('cut', 4, false);
await call('POST', `/api/cards/${cut}/tap`);
// A piece beside a measured sheet, whose tone is asked for.
const { id: sheet } = await call('POST', '/api/frame-sheets', { name: 'by the window', format: 'a5', ruleMm: 100 });
await call('POST', `/api/frame-sheets/${sheet}/photograph`);
await call('POST', '/api/matches/photograph', { cardId: 1 });
// And a card of many photos, on a machine that focuses by itself.
const bed = await burned('bed', 2);
await driver.get(`${base}/bench`);
for (const [name, path, click] of SHOTS) {
  await driver.executeScript(`document.cookie = "theme=${name.endsWith('dim') ? 'dim' : 'light'}; path=/"`);
  await driver.get('about:blank');
  const cards = { CUT: cut, BED: bed };
  await driver.get(base + path.replace(/CUT|BED/, (card) => String(cards[card])));
  await driver.sleep(1200);
  if (click) {
    const target = await driver.findElement(By.css(click));
    await driver.executeScript('arguments[0].dispatchEvent(new MouseEvent("click", { bubbles: true }))', target);
    await driver.sleep(300);
  }
  writeFileSync(join(folder, `${name}.png`), await driver.takeScreenshot(), 'base64');
}
await driver.quit();
const gone = once(server, 'exit');
server.kill('SIGTERM');
await gone;
cluster.remove();
