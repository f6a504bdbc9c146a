import { writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { casualShot, jpegOf, photograph } from '../src/bench/bench';
import { trueLuminanceRatio } from '../src/bench/piece';
import { grid } from '../src/cards/grid';
import { layCard } from '../src/core/card/lay';
import { lightnessOfLuminance, luminanceOfLightness } from '../src/core/color/lab';
import { LOW_CONFIDENCE } from '../src/core/reading/observations';
import { readCard } from '../src/core/reading/read-card';
import { quantile } from '../src/core/stats/robust';
import { DEMO_MACHINES, DEMO_STOCKS, type DemoPairing } from '../src/demo/world';
import { burnOnBench } from '../tests/support/burn';

const PAIRINGS: readonly DemoPairing[] = [
  { machine: 'heron', lens: 0, stock: 'birch' },
  { machine: 'heron', lens: 0, stock: 'leather' },
  { machine: 'marl', lens: 0, stock: 'alder' },
  { machine: 'marl', lens: 0, stock: 'slate' },
  { machine: 'marl', lens: 0, stock: 'mdf' },
  { machine: 'marl', lens: 0, stock: 'twoLayer' },
  { machine: 'marl', lens: 1, stock: 'cork' },
];

interface CellError {
  readonly stock: string;
  readonly seed: number;
  readonly cell: number;
  readonly truth: number;
  readonly error: number;
  readonly confident: boolean;
  readonly sigma: number;
}

async function readOne(seed: number): Promise<{ errors: CellError[]; failed: string | null; readS: number }> {
  const pair = PAIRINGS[seed % PAIRINGS.length]!;
  const { machine, lenses } = DEMO_MACHINES[pair.machine];
  const lens = lenses[pair.lens]!;
  const stock = DEMO_STOCKS[pair.stock];
  const pairing = { machine, lens, stock };
  const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1000 + seed });
  const piece = burnOnBench(layout, pairing, `accuracy ${seed}`);
  const jpeg = await jpegOf(photograph(piece, casualShot(`accuracy ${seed}`)));
  const started = performance.now();
  const { data, info } = await sharp(jpeg)
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const photo = {
    data: new Uint8Array(data.buffer, data.byteOffset, data.length),
    width: info.width,
    height: info.height,
  };
  const result = readCard({ photo, layout, stock, corners: null, cameraIsTrue: true });
  const readS = (performance.now() - started) / 1000;
  if (result.outcome !== 'read')
    return { errors: [], failed: `${pair.stock} seed ${seed}: ${JSON.stringify(result)}`, readS };
  const bare = luminanceOfLightness(stock.bareLightness);
  const errors = result.cells.map((cell): CellError => {
    const truth = lightnessOfLuminance(bare * trueLuminanceRatio(piece, layout.cells[cell.cellIndex]!.box));
    return {
      stock: stock.name,
      seed,
      cell: cell.cellIndex,
      truth,
      error: cell.lightness - truth,
      confident: cell.confidence >= LOW_CONFIDENCE,
      sigma: cell.lightnessSigma,
    };
  });
  return { errors, failed: null, readS };
}

const seeds = Number(process.argv[2] ?? 50);
const all: CellError[] = [];
const failures: string[] = [];
const times: number[] = [];
for (let seed = 0; seed < seeds; seed++) {
  const { errors, failed, readS } = await readOne(seed);
  all.push(...errors);
  times.push(readS);
  if (failed) failures.push(failed);
  process.stderr.write(`photo ${seed + 1} of ${seeds}\r`);
}
const share = (count: number): string => `${((100 * count) / all.length).toFixed(2)} %`;
const within = all.filter(({ error }) => Math.abs(error) <= 2).length;
const silent = all.filter(({ error, confident }) => Math.abs(error) > 2 && confident).length;
const marked = all.filter(({ confident }) => !confident).length;
const rows = [...new Set(all.map(({ stock }) => stock))].map((name) => {
  const own = all.filter(({ stock }) => stock === name);
  const sizes = own.map(({ error }) => Math.abs(error));
  const bias = own.reduce((sum, { error }) => sum + error, 0) / own.length;
  const lightnesses = own.map(({ truth }) => truth);
  const off = own.filter(({ error }) => Math.abs(error) > 2);
  return `| ${name} | ${own.length} | ${Math.min(...lightnesses).toFixed(0)} to ${Math.max(...lightnesses).toFixed(0)} | ${bias.toFixed(2)} | ${quantile(sizes, 0.5).toFixed(2)} | ${quantile(sizes, 0.95).toFixed(2)} | ${off.length} | ${off.filter(({ confident }) => confident).length} | ${own.filter(({ confident }) => !confident).length} |`;
});
const report = `# How accurate the reading is

Made by \`npm run accuracy\`: ${seeds} photos of freshly burned proposed cards, ${rows.length} demo stocks, from the simulated bench (8 to 12 MP JPEG,
tilt to 25 degrees, light falling to as little as a half across the card, colour cast, vignette, blur, noise). The bench's physics share no code with the
reading. Truth of a cell: its luminance after the burn over the same spot's luminance before it, inner 60 %, as L* on the stock's own scale.

| figure | wanted | measured |
|---|---|---|
| photos read without help | all | ${seeds - failures.length} of ${seeds} |
| cells within 2.0 L* of the truth | 95 % | ${share(within)} (${within} of ${all.length}) |
| cells off by more and not marked low-confidence | at most 1 in 500 (${Math.floor(all.length / 500)}) | ${silent} |
| cells marked low-confidence | few | ${share(marked)} |

By stock, in L*:

| stock | cells | truth spans | mean error | median size of error | 95 % size of error | off by over 2 | of those not marked | marked |
|---|---|---|---|---|---|---|---|---|
${rows.join('\n')}
${failures.length > 0 ? `\nNot read:\n\n${failures.map((failure) => `- ${failure}`).join('\n')}\n` : ''}`;
if (process.argv[3] !== '--print') writeFileSync('docs/accuracy.md', report);
console.log(report);
console.log(
  `read time, decode included: median ${quantile(times, 0.5).toFixed(2)} s, most ${Math.max(...times).toFixed(2)} s`,
);
if (process.argv[3] === '--print') {
  for (const e of all.filter(({ error, confident }) => Math.abs(error) > 2 && confident))
    console.log(JSON.stringify(e));
}
