import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { By, until } from 'selenium-webdriver';
import { openBrowser } from '../scripts/browser.mjs';
import { freePort } from '../scripts/postgres.mjs';
import { untilReady } from '../scripts/ready.mjs';
import { throwawayCluster } from '../scripts/throwaway.mjs';
import { median } from '../src/core/stats/robust';

/** How long each page takes from the click to its content, with the demo world, in headless Chromium. Appends to docs/performance.md. */
const PAGES = [
  ['/bench', 'select'],
  ['/bench/1', 'svg[role=group] rect'],
  ['/bench/4/plan/grid', '[data-cell]'],
  ['/cards/1#burn', '[data-cell]'],
  ['/cards/1#photo', 'ul li'],
  ['/cards/1#look', '[data-cell]'],
  ['/cards/1#find', 'canvas'],
  ['/cards/7#find', 'canvas'],
  ['/stock', 'table'],
  ['/stock/1', 'form'],
  ['/machines', 'h1'],
  ['/machines/2', 'form'],
  ['/book', 'table'],
  ['/book/1', 'article'],
  ['/logbook', 'table'],
] as const;
const ROUNDS = 5;

const cluster = await throwawayCluster();
const port = await freePort();
const env = { ...process.env, DATABASE_URL: cluster.url, PORT: String(port), NODE_ENV: 'production' };
const started = performance.now();
const server = spawn(process.execPath, ['dist/server/main.mjs'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
await untilReady(server);
const demoS = (performance.now() - started) / 1000;
const driver = await openBrowser();
const rows: string[] = [];
for (const [path, ready] of PAGES) {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    await driver.get('about:blank');
    await driver.get(`http://127.0.0.1:${port}${path}`);
    await driver.wait(until.elementLocated(By.css(ready)), 10_000);
    times.push(await driver.executeScript<number>('return performance.now()'));
  }
  rows.push(`| ${path} | ${Math.round(median(times))} | ${Math.round(Math.max(...times))} |`);
}
await driver.quit();
const gone = once(server, 'exit');
server.kill('SIGTERM');
await gone;
cluster.remove();

const file = 'docs/performance.md';
const before = readFileSync(file, 'utf8').split('\n# Pages')[0]!.trimEnd();
const text = `${before}

# Pages

Made by \`npm run perf\` in the same way: ms from the start of the navigation until the page's content stands, ${ROUNDS} loads each, looked for by polling
through the driver (which adds up to some tens of ms). Wanted: under 1000. The demo world itself took ${demoS.toFixed(0)} s to make.

| page | median | most |
|---|---|---|
${rows.join('\n')}
`;
writeFileSync(file, text);
console.log(text);
