import { writeFileSync } from 'node:fs';
import { openBrowser } from './scripts/browser.mjs';
const base = process.env.BASE ?? 'http://127.0.0.1:4400';
const driver = await openBrowser({ width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) });
for (const spec of process.argv.slice(2)) {
  const [name, path, js] = spec.split('|');
  await driver.get(base + path);
  await driver.sleep(2500);
  if (js) { await driver.executeScript(js); await driver.sleep(1500); }
  writeFileSync(`/tmp/${name}.png`, Buffer.from(await driver.takeScreenshot(), 'base64'));
}
await driver.quit();
