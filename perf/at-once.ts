import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ALLOCATOR } from '../scripts/allocator.mjs';
import { HeavyWork } from '../src/app/heavy-work';
import { casualShot, jpegOf, photograph } from '../src/bench/bench';
import { grid } from '../src/cards/grid';
import { layCard } from '../src/core/card/lay';
import { median } from '../src/core/stats/robust';
import { DEMO_MACHINES, DEMO_STOCKS } from '../src/demo/world';
import { burnOnBench } from '../stand-ins/burn';

/** Reads eight photos of 12 MP at once by the server's own threads, as soon as they are up and again when they are warm. Appends to docs/performance.md. */
const PHOTOS = 8;
const { machine, lenses } = DEMO_MACHINES.marl;
const stock = DEMO_STOCKS.alder;
const pairing = { machine, lens: lenses[0], stock };
const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
const names = Array.from({ length: PHOTOS }, (_, index) => `${index}.jpg`);

// Taken by a process of their own, whose memory is not the server's; read by another, which gets its memory as the server does.
const [what, folder = mkdtempSync(join(tmpdir(), 'glass-ladder-perf-'))] = process.argv.slice(2);
if (what === 'take') {
  const piece = burnOnBench(layout, pairing, 'perf');
  for (const name of names)
    writeFileSync(
      join(folder, name),
      await jpegOf(photograph(piece, { ...casualShot(`perf ${name}`), widthPx: 4000, heightPx: 3000 })),
    );
  process.exit(0);
}
if (what === undefined) {
  for (const step of ['take', 'read'])
    spawnSync(process.execPath, [process.argv[1]!, step, folder], {
      stdio: 'inherit',
      env: { ...process.env, ...ALLOCATOR },
    });
  process.exit(0);
}
const photos = names.map((name) => readFileSync(join(folder, name)));
rmSync(folder, { recursive: true });

const work = new HeavyWork(fileURLToPath(new URL('../workers/heavy-worker.mjs', import.meta.url)));
const read = async (bytes: Buffer): Promise<number> => {
  const started = performance.now();
  const answer = await work.do('read', {
    bytes,
    layout,
    stock,
    corners: null,
    litFrom: 'front',
    seeThrough: false,
    cameraIsTrue: true,
    spot: { xMm: 0.1, yMm: 0.1 },
    second: null,
    sheets: {},
  });
  if (answer.outcome !== 'read') throw new Error(answer.outcome);
  return performance.now() - started;
};
const two = (): Promise<number[]> => Promise.all([read(photos[0]!), read(photos[1]!)]);
const [cold] = (await two()) as [number];
const [afterOne] = (await two()) as [number];
for (let round = 0; round < 4; round++) await two();
const warm = median([...(await two()), ...(await two())]);

const idleMb = process.memoryUsage().rss / 1e6;
let mostMb = idleMb;
const watch = setInterval(() => (mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6)), 20);
const cpu = process.cpuUsage();
const started = performance.now();
const waits = await Promise.all(photos.map(read));
const tookMs = performance.now() - started;
const { user, system } = process.cpuUsage(cpu);
clearInterval(watch);
await work.close();

const lines = [
  '',
  '## Eight photos at once',
  '',
  'Made by `npm run perf` in the same way, by the threads that the server reads in: two of them, all photos sent at the same moment.',
  '',
  '| figure | wanted | measured |',
  '|---|---|---|',
  `| the last of eight is read after | 8 s | ${(Math.max(...waits) / 1000).toFixed(1)} s |`,
  `| CPU time for all eight | – | ${((user + system) / 1e6).toFixed(1)} s |`,
  `| cores kept busy, of two | both | ${((user + system) / 1000 / tookMs).toFixed(2)} |`,
  `| memory of the whole process at its most | under 400 MB | ${mostMb.toFixed(0)} MB (${idleMb.toFixed(0)} before) |`,
  `| the first two of somebody, after the one that the server reads in each thread when it starts, over later ones | at most 1.3 | ${(afterOne / warm).toFixed(2)} |`,
  `| the first two as soon as the threads are up, over later ones | – | ${(cold / warm).toFixed(2)} |`,
  '',
];
writeFileSync('docs/performance.md', readFileSync('docs/performance.md', 'utf8') + lines.join('\n'));
console.log(lines.join('\n'));
