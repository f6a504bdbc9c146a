import type { PictureFinding } from '../../src/cards/picture/find';
import { lightnessOfLuminance, luminanceOfLightness } from '../../src/core/color/lab';
import { trueLuminanceRatio } from '../../src/bench/piece';
import type { Rect } from '../../src/core/geometry/point';
import { demoPairing } from '../demo';
import type { Observer } from './observer';
import { photographedOnce } from './photographed';

const photoOfPiece = photographedOnce(1600);

const ON = ['heron', 'birch'] as const;
const { bareLightness } = demoPairing(...ON).stock;

/** Six parts of a picture, as rectangles. */
const partsOf = ({ x, y, width, height }: Rect): Rect[] =>
  [0, 1, 2, 3, 4, 5].map((part) => ({
    x: x + ((part % 3) * width) / 3,
    y: y + (Math.floor(part / 3) * height) / 2,
    width: width / 3,
    height: height / 2,
  }));

/** A part of a picture is told to no better than this. */
const SIGMA_L = 0.8;

export const pictureObserver: Observer<PictureFinding> = {
  on: ON,
  look: photoOfPiece,
  // How far parts of the picture are from bare stock, from the piece itself.
  truth: ({ piece, layout }) =>
    partsOf(layout.cells[0]!.box).map(
      (part) =>
        bareLightness - lightnessOfLuminance(luminanceOfLightness(bareLightness) * trueLuminanceRatio(piece, part)),
    ),
  // The same of the blocks that the finding has of them, as light.
  claims: ({ parts: [part] }) => {
    const { columns, rows, seen } = part!.fit;
    return partsOf({ x: 0, y: 0, width: columns, height: rows }).map(({ x, y, width, height }) => {
      const blocks = [...seen.keys()].filter((at) => {
        const [column, row] = [(at % columns) + 0.5, Math.floor(at / columns) + 0.5];
        return Math.abs(column - x - width / 2) < 0.3 * width && Math.abs(row - y - height / 2) < 0.3 * height;
      });
      const light =
        blocks.reduce((sum, at) => sum + luminanceOfLightness(bareLightness - seen[at]!), 0) / blocks.length;
      const strength = bareLightness - lightnessOfLuminance(light);
      return [strength - 2 * SIGMA_L, strength + 2 * SIGMA_L] as const;
    });
  },
  widestClaim: 4,
};
