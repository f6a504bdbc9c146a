import sharp from 'sharp';
import { casualShot, jpegOf, photograph } from '../../src/bench/bench';
import { trueLuminanceRatio } from '../../src/bench/piece';
import { grid } from '../../src/cards/grid';
import { layCard } from '../../src/core/card/lay';
import { lightnessOfLuminance, luminanceOfLightness } from '../../src/core/color/lab';
import { readCard } from '../../src/core/reading/read-card';
import { DEMO_MACHINES, DEMO_STOCKS } from '../../src/demo/world';
import { burnOnBench } from '../../stand-ins/burn';
import { isMarked, isOff, isSilent, percent, shareOf, sizesOf, type CellError } from './figures';
import { PAIRINGS } from './pairings';

/** Bare stock of which more is at the bright end of the camera's range is blown out, which the reading has to notice. */
const BLOWN_OUT = 0.02;

interface PhotoRead {
  readonly errors: readonly CellError[];
  readonly isBlownOut: boolean;
  readonly failed: string | null;
}

async function readOne(seed: number): Promise<PhotoRead> {
  const pair = PAIRINGS[seed % PAIRINGS.length]!;
  const { machine, lenses } = DEMO_MACHINES[pair.machine];
  const lens = lenses[pair.lens]!;
  const stock = DEMO_STOCKS[pair.stock];
  const pairing = { machine, lens, stock };
  const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1000 + seed });
  const piece = burnOnBench(layout, pairing, `accuracy ${seed}`);
  const jpeg = await jpegOf(photograph(piece, casualShot(`accuracy ${seed}`)));
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
  if (result.outcome !== 'read')
    return { errors: [], isBlownOut: false, failed: `${pair.stock} seed ${seed}: ${JSON.stringify(result)}` };
  const bare = luminanceOfLightness(stock.bareLightness);
  const errors = result.cells.map((cell): CellError => {
    const truth = lightnessOfLuminance(bare * trueLuminanceRatio(piece, layout.cells[cell.cellIndex]!.box));
    return {
      stock: stock.name,
      truth,
      error: cell.lightness - truth,
      sigma: cell.lightnessSigma,
      confidence: cell.confidence,
    };
  });
  return { errors, isBlownOut: result.field.clippedShare > BLOWN_OUT, failed: null };
}

/** The section of the report on photos by the bench's own camera. */
export async function benchCameraReport(seeds: number): Promise<string> {
  const photos: PhotoRead[] = [];
  for (let seed = 0; seed < seeds; seed++) {
    photos.push(await readOne(seed));
    process.stderr.write(`photo ${seed + 1} of ${seeds}\r`);
  }
  const all = photos.flatMap(({ errors }) => errors);
  const failures = photos.flatMap(({ failed }) => failed ?? []);
  const well = photos.filter(({ isBlownOut, failed }) => !isBlownOut && failed === null);
  const wellLit = well.flatMap(({ errors }) => errors);
  const rows = [...new Set(all.map(({ stock }) => stock))].map((name) => {
    const own = all.filter(({ stock }) => stock === name);
    const truths = own.map(({ truth }) => truth);
    const { mean, middle, most } = sizesOf(own);
    const off = own.filter(isOff);
    return `| ${name} | ${own.length} | ${Math.min(...truths).toFixed(0)} to ${Math.max(...truths).toFixed(0)} | ${mean} | ${middle} | ${most} | ${off.length} | ${off.filter(isSilent).length} | ${own.filter(isMarked).length} |`;
  });
  const unmarked = all.filter((cell) => !isMarked(cell));
  const within = (sigmas: number): string =>
    percent(
      shareOf(unmarked, ({ error, sigma }) => Math.abs(error) <= sigmas * sigma),
      0,
    );
  return `## Cards burned on the simulated bench

${seeds} photos of freshly burned proposed cards, ${rows.length} demo stocks, by the bench's own camera (8 to 12 MP JPEG, tilt to 25 degrees, light falling to as
little as a half across the card, colour cast, vignette, blur, noise). The bench's physics share no code with the reading. Truth of a cell: its luminance
after the burn over the same spot's luminance before it, inner 60 %, as L* on the stock's own scale.

| figure | wanted | measured |
|---|---|---|
| photos read without help | all | ${seeds - failures.length} of ${seeds} |
| cells within 1.0 L* of the truth | 99 % | ${percent(
    shareOf(all, ({ error }) => Math.abs(error) <= 1),
    2,
  )} |
| cells within 2.0 L* of the truth | 95 % | ${percent(
    shareOf(all, (cell) => !isOff(cell)),
    2,
  )} (${all.length} cells) |
| cells off by more and not marked | at most 2 in 1000 (${Math.floor(all.length / 500)}) | ${all.filter(isSilent).length} |
| cells marked | under 2 % | ${percent(shareOf(all, isMarked), 2)} |
| the same of the ${well.length} photos whose bare stock is not blown out | 99 %, under 2 % | ${percent(
    shareOf(wellLit, ({ error }) => Math.abs(error) <= 1),
    2,
  )} within 1.0 L*, ${percent(shareOf(wellLit, isMarked), 2)} marked, ${wellLit.filter(isSilent).length} silent |
| unmarked cells within one and two sigmas | 68 and 95 % | ${within(1)} and ${within(2)} |

By stock, in L*:

| stock | cells | truth spans | mean error | median size of error | 95 % size of error | off by over 2 | of those not marked | marked |
|---|---|---|---|---|---|---|---|---|
${rows.join('\n')}
${failures.length > 0 ? `\nNot read:\n\n${failures.map((failure) => `- ${failure}`).join('\n')}\n` : ''}`;
}
