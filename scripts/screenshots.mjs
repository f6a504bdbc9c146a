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
  ['frame-sheets', '/frame-sheets'],
  ['burn', '/cards/3#burn'],
  ['photo', '/cards/3#photo'],
  ['look', '/cards/1#look', '[data-cell="16"]'],
  ['look-light-table', '/cards/8#look', 'main button[aria-pressed="false"]'],
  ['look-kerf', '/cards/7#look', '[data-cell="1"]'],
  ['find', '/cards/2#find'],
  ['find-threshold', '/cards/4#find'],
  ['find-kerf', '/cards/7#find'],
  ['stock-room', '/stock'],
  ['stock', '/stock/1'],
  ['machine', '/machines/2'],
  ['book', '/book'],
  ['bring', '/bench/5/bring'],
  ['logbook', '/logbook'],
  ['look-dim', '/cards/1#look', '[data-cell="16"]'],
];

ensureBuild();
const cluster = await throwawayCluster();
const port = await freePort();
const server = spawn(process.execPath, [join(root, 'dist/server/main.mjs')], {
  env: { ...process.env, DATABASE_URL: cluster.url, PORT: String(port), NODE_ENV: 'production' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await untilReady(server);
const driver = await openBrowser();
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const base = `http://127.0.0.1:${port}`;
await driver.get(`${base}/bench`);
for (const [name, path, click] of SHOTS) {
  await driver.executeScript(`document.cookie = "theme=${name.endsWith('dim') ? 'dim' : 'light'}; path=/"`);
  await driver.get('about:blank');
  await driver.get(base + path);
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
