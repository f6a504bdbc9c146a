import sharp from 'sharp';
import { burnProgram, casualShot, jpegOf, photograph } from '../src/bench/bench';
import { benchMachineOf, benchSheetOf } from '../src/bench/of-records';
import { trueLuminanceRatio } from '../src/bench/piece';
import { grid } from '../src/cards/grid';
import { lightnessOfLuminance, luminanceOfLightness } from '../src/core/color/lab';
import { readCard } from '../src/core/reading/read-card';
import { flattened } from '../src/core/reading/flattened';
import { DEMO_MACHINES, DEMO_STOCKS } from '../src/demo/world';
import { gcodeOfCard } from '../src/formats/gcode';
const machine = DEMO_MACHINES[process.argv[2] as 'heron'].machine,
  lens = DEMO_MACHINES[process.argv[2] as 'heron'].lenses[0]!,
  stock = DEMO_STOCKS[process.argv[3] as 'leather'];
const seed = process.argv[4];
const pairing = { machine, lens, stock };
const prop = grid.propose({ pairing });
console.log(JSON.stringify(prop, null, 1));
const layout = grid.lay(prop.plan, pairing, { cardNumber: 1000 + Number(seed) });
const place = { leftMm: 60, rearMm: 60 };
let t = performance.now();
const lap = (n: string) => {
  console.log(n, (performance.now() - t).toFixed(0));
  t = performance.now();
};
const program = gcodeOfCard(layout, machine, place);
lap('gcode ' + program.length);
const piece = burnProgram(
  program,
  Infinity,
  benchMachineOf(machine, lens),
  benchSheetOf(stock),
  { ...place, widthMm: layout.widthMm, heightMm: layout.heightMm },
  `accuracy ${seed}`,
);
lap('burn');
const ph = photograph(piece, casualShot(`accuracy ${seed}`));
lap('photo');
const jpeg = await jpegOf(ph);
lap('jpeg ' + jpeg.length);
await sharp(jpeg).resize(1200).toFile('/tmp/shot.png');
t = performance.now();
const { data, info } = await sharp(jpeg).raw().toBuffer({ resolveWithObject: true });
lap('decode');
const r = readCard({
  photo: { data: new Uint8Array(data), width: info.width, height: info.height },
  layout,
  stock,
  corners: null,
  onProgress: lap,
});
lap('read');
if (r.outcome === 'read') {
  const f = flattened(r.rectified, r.field, r.stockLinear);
  lap('flat');
  await sharp(f.data, { raw: { width: f.width, height: f.height, channels: 3 } }).toFile('/tmp/flat.png');
  console.log(r.markers, r.frameErrorMm, r.photoPxPerMm, r.field.tileSigma, r.field.tiles);
  const bare = luminanceOfLightness(stock.bareLightness);
  for (const c of r.cells) {
    const tr = lightnessOfLuminance(bare * trueLuminanceRatio(piece, layout.cells[c.cellIndex]!));
    console.log(
      c.cellIndex,
      tr.toFixed(1),
      c.lightness.toFixed(1),
      (c.lightness - tr).toFixed(2),
      c.lightnessSigma.toFixed(2),
      c.confidence.toFixed(2),
      c.doubts.join(),
      'clip',
      c.clippedShare.toFixed(3),
      'lines',
      c.lineVisibility?.toFixed(3),
      'halo',
      c.edgeHalo.toFixed(1),
      'edge',
      c.edgeWidthMm?.toFixed(2),
      'spread',
      c.spread.toFixed(1),
    );
  }
} else console.log(r);
