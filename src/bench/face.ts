import { LOST_IN_RUIN, throughAt, type LetsThrough } from './light-through';
import { Marks } from './marks';
import type { NoiseTable } from './random';
import type { Plane } from './smoke';
import type { Specimen } from './specimens';
import type { Ground } from './texture';

/** Heat beside cuts that browns the stock by all but 1/e of what it can, and how much that is. */
const BROWN = { scaleJPerMm2: 0.06, most: 0.7 };

/** What a burn laid down on some rows of a piece, in fine pixels: so many a side to each one that is kept. */
export interface LaidDown {
  /** Rows of the kept picture. */
  readonly top: number;
  readonly bottom: number;
  readonly factor: number;
  /** Fine pixels of a row. */
  readonly width: number;
  readonly fluence: Float32Array;
  readonly depth: Float32Array;
  /** Heat beside cuts, in J/mm²; of no length where nothing is cut. */
  readonly warmth: Float32Array;
}

/** The picture of a piece that rows are written into. */
export interface Picture {
  readonly width: number;
  readonly pxPerMm: number;
  readonly thicknessMm: number;
  readonly before: Float32Array;
  readonly after: Float32Array;
  readonly depthMm: Float32Array;
  readonly through: Float32Array;
}

interface Kept {
  readonly specimen: Specimen;
  /** Share of light that the face takes, and what lets light through. */
  readonly takes: number;
  readonly lets: LetsThrough;
  readonly marks: Marks;
  readonly piece: Picture;
  readonly laid: LaidDown;
  /** How strongly each block of the piece burned: added to. */
  readonly load: Plane;
  readonly blockPx: number;
}

/** What the face of a band looks like, averaged from fine pixels to kept ones. */
export function showBand(
  { specimen, lets, band: light }: { specimen: Specimen; lets: LetsThrough; band: keyof Specimen['takes'] },
  piece: Picture,
  { ground, noise }: { readonly ground: Ground; readonly noise: NoiseTable },
  laid: LaidDown,
  haze: { readonly load: Plane; readonly blockPx: number },
): void {
  const kept: Kept = {
    specimen,
    takes: specimen.takes[light],
    lets,
    marks: new Marks(specimen.shape),
    piece,
    laid,
    ...haze,
  };
  const { width, pxPerMm } = piece;
  const relieve = ground.reliefAt(Float64Array.from({ length: width }, (_, x) => (x + 0.5) / pxPerMm));
  const reliefs = new Float64Array(width);
  const deviations = new Float32Array(width * laid.factor ** 2);
  for (let y = laid.top; y < laid.bottom; y++) {
    // Texture is coarse against fine pixels: once for each kept one.
    relieve((y + 0.5) / pxPerMm, reliefs);
    noise.fill(deviations);
    showRow(kept, y, reliefs, deviations);
  }
}

/**
 * One row of it. Tens of millions of pixels are shown: channels are written out, nothing is made for each of them, and the runtime makes
 * better code of a short function that is called often.
 */
function showRow(
  { specimen, takes, lets, marks, piece, laid, load, blockPx }: Kept,
  y: number,
  reliefs: Float64Array,
  deviations: Float32Array,
): void {
  const { threshold, scale, spoil } = specimen;
  const { char } = specimen.solid;
  const [bareRed, bareGreen, bareBlue] = specimen.bare;
  const [burnedRed, burnedGreen, burnedBlue] = specimen.burned;
  const [spoiledRed, spoiledGreen, spoiledBlue] = specimen.spoiled;
  const { before, after, depthMm, through: throughPiece, thicknessMm, width } = piece;
  const { factor, fluence, depth, warmth } = laid;
  const cells = factor * factor;
  const throughBare = throughAt(lets, { mark: 0, ruin: 0, leftMm: thicknessMm, thicknessMm });
  // Without a coat, what only marks the face lets through what it did.
  const isPlain = lets.coat === 1;
  const isWarmed = warmth.length > 0;
  const fine = specimen.texture.fine * 0.5;
  const blocks = Math.floor(y / blockPx) * load.width;
  for (let x = 0; x < width; x++) {
    const at = y * width + x;
    const relief = reliefs[x]!;
    const faceRed = bareRed * (1 + relief);
    const faceGreen = bareGreen * (1 + relief);
    const faceBlue = bareBlue * (1 + relief);
    let deep = 0;
    let over = 0;
    let through = 0;
    let sumRed = 0;
    let sumGreen = 0;
    let sumBlue = 0;
    let bare = 0;
    let bareRough = 0;
    let cell = x * cells;
    for (let v = 0; v < factor; v++) {
      const row = ((y - laid.top) * factor + v) * laid.width + x * factor;
      for (let u = 0; u < factor; u++) {
        const energy = fluence[row + u]!;
        const gone = depth[row + u]!;
        const warm = isWarmed ? (warmth[row + u]! * char) / BROWN.scaleJPerMm2 : 0;
        const deviation = deviations[cell++]!;
        if (energy === 0 && gone === 0 && warm === 0) {
          // Most of a card is bare stock that nothing reached.
          bareRough += 1 + deviation * fine;
          bare++;
          continue;
        }
        // Dark late wood takes more light than pale early wood.
        const taken = energy * takes * (1 - 0.6 * relief);
        deep += gone;
        over += Math.min(2, energy / spoil);
        let mark = 0;
        let ruin = 0;
        if (taken > threshold) {
          mark = marks.at((taken - threshold) / scale);
          if (taken > spoil) ruin = Math.min(1, (taken - spoil) / spoil) * 0.8;
        }
        if (gone > 0 || (mark > 0 && !isPlain))
          through += throughAt(lets, { mark, ruin, leftMm: thicknessMm - gone, thicknessMm });
        else through += throughBare * (1 - LOST_IN_RUIN * ruin);
        let red = faceRed;
        let green = faceGreen;
        let blue = faceBlue;
        if (mark > 0) {
          red = red * (1 - mark) + burnedRed * mark;
          green = green * (1 - mark) + burnedGreen * mark;
          blue = blue * (1 - mark) + burnedBlue * mark;
          red += (spoiledRed - red) * ruin;
          green += (spoiledGreen - green) * ruin;
          blue += (spoiledBlue - blue) * ruin;
        }
        if (warm > 0) {
          const brown = BROWN.most * (1 - Math.exp(-warm));
          red += Math.min(0, burnedRed - red) * brown;
          green += Math.min(0, burnedGreen - green) * brown;
          blue += Math.min(0, burnedBlue - blue) * brown;
        }
        if (gone > 0) {
          // A hole shows the table under it, a deep groove its own shadow.
          const shadow = 1 - 0.5 * Math.min(1, gone / 2);
          const hole = gone >= thicknessMm;
          red = hole ? 0.01 : red * shadow;
          green = hole ? 0.01 : green * shadow;
          blue = hole ? 0.01 : blue * shadow;
        }
        const rough = 1 + deviation * (fine + 0.03 * mark);
        sumRed += Math.max(0.001, red * rough);
        sumGreen += Math.max(0.001, green * rough);
        sumBlue += Math.max(0.001, blue * rough);
      }
    }
    before[at * 3] = faceRed;
    before[at * 3 + 1] = faceGreen;
    before[at * 3 + 2] = faceBlue;
    after[at * 3] = (sumRed + faceRed * bareRough) / cells;
    after[at * 3 + 1] = (sumGreen + faceGreen * bareRough) / cells;
    after[at * 3 + 2] = (sumBlue + faceBlue * bareRough) / cells;
    depthMm[at] = deep / cells;
    throughPiece[at] = (through + throughBare * bare) / cells;
    if (over > 0) load.data[blocks + Math.floor(x / blockPx)]! += over / cells / (blockPx * blockPx);
  }
}
