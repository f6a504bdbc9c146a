import { benchMachineOf } from '../../src/bench/of-records';
import { laserTruthOf } from '../../src/bench/truth';
import type { BedFinding } from '../../src/cards/bed/find';
import { mainBurn } from '../../src/core/card/layout';
import { PLACE } from '../burn';
import { readingOf } from '../made-up-reading';
import { lightnessOfPiece, normalOf, rippleAt } from './measures';
import type { Burned, Observer } from './observer';

/** Ripples of one photo are told to this share of themselves, tones to so many L*. */
const RIPPLE_SHARE = 0.03;
const TONE_SIGMA = 0.3;

const CORNERS = ['rear left', 'rear right'] as const;

/** What the bed of the bench really does, about the middle of what was tested: how much higher its rear corners stand. */
function trueCorners({ layout, pairing }: Burned): number[] {
  const machine = benchMachineOf(pairing.machine, pairing.lens);
  const { tiltX, tiltY } = laserTruthOf(machine, { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm });
  const middles = layout.stations!.map(({ cells }) => layout.cells[cells[1]!]!.box);
  const [xs, ys] = [middles.map(({ x }) => x), middles.map(({ y }) => y)];
  const half = (of: readonly number[]): number => (Math.max(...of) - Math.min(...of)) / 2;
  // The bed falls away by so much for each mm to the right, and to the front.
  return [tiltX * half(xs) + tiltY * half(ys), -tiltX * half(xs) + tiltY * half(ys)];
}

export const bedObserver: Observer<BedFinding> = {
  on: ['marl', 'alder'],
  look: ({ pieces, layout, pairing }, seed) => ({
    answers: [],
    readings: layout.stations!.flatMap(({ cells, box: { x, y } }, station) =>
      cells.map((index) => {
        const { box, burns } = layout.cells[index]!;
        const own = { ...box, x: box.x - x, y: box.y - y };
        const inner = {
          x: own.x + 0.2 * own.width,
          y: own.y + 0.2 * own.height,
          width: 0.6 * own.width,
          height: 0.6 * own.height,
        };
        const { intervalMm, direction } = mainBurn({
          index,
          box,
          burns,
          levels: {},
          risk: 0,
          expected: null,
          leftOut: false,
        }).settings;
        const piece = pieces[station]!;
        const ripple = rippleAt(piece, own, intervalMm, direction);
        const lightness = lightnessOfPiece(piece, inner) + TONE_SIGMA * normalOf(`${seed} tone ${index}`);
        return {
          ...readingOf(index),
          lightness,
          deltaLightness: lightness - pairing.stock.bareLightness,
          lightnessSigma: TONE_SIGMA,
          ripple: {
            amplitude: ripple * (1 + RIPPLE_SHARE * normalOf(`${seed} ${index}`)),
            sigma: RIPPLE_SHARE * ripple,
          },
        };
      }),
    ),
  }),
  truth: (burned) => trueCorners(burned),
  claims: ({ corners }) =>
    CORNERS.map((name) => {
      const { value, sigma } = corners.find(({ corner }) => corner === name)!;
      return [value - 2 * sigma, value + 2 * sigma];
    }),
  widestClaim: 0.15,
};
