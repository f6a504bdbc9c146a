import { cpus } from 'node:os';
import { writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { casualShot, jpegOf, photograph } from '../src/bench/bench';
import { grid } from '../src/cards/grid';
import { layCard } from '../src/core/card/lay';
import { flattened } from '../src/core/reading/flattened';
import { readCard, type ReadResult, type ReadStep } from '../src/core/reading/read-card';
import { RECTIFIED_PX_PER_MM } from '../src/core/reading/straighten';
import { median } from '../src/core/stats/robust';
import { DEMO_MACHINES, DEMO_STOCKS } from '../src/demo/world';
import { openPhoto, previewOf } from '../src/workers/open-photo';
import { burnOnBench } from '../tests/support/burn';
import { nativeVision } from './native-vision';

/**
 * Reads a 12 MP photo as the server does, part by part, and runs native references beside it in the same run: a vision library decoding, finding
 * markers, straightening and averaging cells on one thread, where it is installed; and libvips (through sharp) resampling the same photo to the
 * same straightened size.
 */
const ROUNDS = 9;
const { machine, lenses } = DEMO_MACHINES.marl;
const stock = DEMO_STOCKS.alder;
const pairing = { machine, lens: lenses[0], stock };
const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
const piece = burnOnBench(layout, pairing, 'perf');
const jpeg = await jpegOf(photograph(piece, { ...casualShot('perf'), widthPx: 4000, heightPx: 3000 }));

const times = new Map<string, number[]>();
const note = (part: string, ms: number): void => void times.set(part, [...(times.get(part) ?? []), ms]);
const cold: number[] = [];
let read: Extract<ReadResult, { readonly outcome: 'read' }> | null = null;
sharp.concurrency(1);
for (let round = 0; round < ROUNDS; round++) {
  const started = performance.now();
  const opened = await openPhoto(jpeg);
  if (!opened.opened) throw new Error(opened.reason);
  const decoded = performance.now();
  note('decoding', decoded - started);
  await previewOf(opened.photo);
  let last = performance.now();
  note('preview', last - decoded);
  let part: ReadStep | null = null;
  const lap = (next: ReadStep | null): void => {
    const now = performance.now();
    if (part) note(part, now - last);
    last = now;
    part = next;
  };
  const result = readCard({ photo: opened.photo, layout, stock, corners: null, cameraIsTrue: true, onProgress: lap });
  lap(null);
  if (result.outcome !== 'read') throw new Error(result.outcome);
  read = result;
  const level = flattened(result.rectified, result.field, result.stockLinear);
  await sharp(level.data, { raw: { width: level.width, height: level.height, channels: 3 } })
    .jpeg({ quality: 88 })
    .toBuffer();
  note('levelled picture', performance.now() - last);
  const whole = performance.now() - started;
  note('whole', whole);
  if (round === 0) cold.push(whole);

  const { photo } = opened;
  const width = Math.round(layout.widthMm * RECTIFIED_PX_PER_MM);
  const scale = width / photo.width;
  const before = performance.now();
  await sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 3 } })
    .pipelineColourspace('scrgb')
    .affine([scale, 0.02, -0.02, scale], { interpolator: 'bilinear' })
    .raw()
    .toBuffer();
  note('native reference: affine resampling in linear light', performance.now() - before);
}
const ms = (part: string): number => median(times.get(part)!.slice(1));
const own = ms('straightening') + ms('reading cells');
const native = ms('native reference: affine resampling in linear light');
// Two photo pixels to a straightened one, and a third of the photo's size for its markers, as the reading takes them of this photo.
const vision = nativeVision(jpeg, layout, read!, { boxPx: 2, factor: 3, rounds: ROUNDS });

function besideVision(): string[] {
  if (!vision)
    return [
      'A native vision library to compare with (Debian’s python3-opencv) was not installed where this was measured.',
      '',
    ];
  const parts = [
    ['decoding', ms('decoding'), vision.decode],
    [`markers (it found ${vision.found} of 4)`, ms('finding markers'), vision.markers],
    ['straightening in linear light', ms('straightening'), vision.straightening],
    ['cells (it averages them; ours with their edges, lines and sigmas)', ms('reading cells'), vision.cells],
  ] as const;
  const total = (of: 1 | 2): number => parts.reduce((sum, part) => sum + part[of], 0);
  return [
    `Beside OpenCV ${vision.version} on one thread, in the same run:`,
    '',
    '| part | ours, ms | OpenCV, ms |',
    '|---|---|---|',
    ...parts.map(([name, ours, theirs]) => `| ${name} | ${ours.toFixed(0)} | ${theirs.toFixed(0)} |`),
    `| together | ${total(1).toFixed(0)} | ${total(2).toFixed(0)} |`,
    '',
    `Wanted: within twice. Measured: ${(total(1) / total(2)).toFixed(2)} times; levelling the light, which it does not do, is not among it.`,
    '',
  ];
}

const lines = [
  `# Reading a 12 MP photo`,
  ``,
  `Made by \`npm run perf\` on ${new Date().toISOString().slice(0, 10)}: ${cpus().length} cores (${cpus()[0]!.model.trim()}), Node ${process.versions.node}, libvips ${sharp.versions.vips}. Medians of ${ROUNDS - 1} rounds after a first, cold one.`,
  ``,
  `| part | ms |`,
  `|---|---|`,
  ...[...times.keys()].map((part) => `| ${part} | ${ms(part).toFixed(0)} |`),
  `| whole, first photo after the start (cold) | ${cold[0]!.toFixed(0)} |`,
  ``,
  `Wanted: under 2500 ms after upload. Straightening and sampling take ${(own / native).toFixed(2)} times what libvips takes in the same run (a projective map with ${layout.cells.length} cells measured, against an affine map of the whole picture in linear light).`,
  ``,
  ...besideVision(),
];
writeFileSync('docs/performance.md', lines.join('\n'));
console.log(lines.join('\n'));
