import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { columnOfBoxes, rowOfBoxes } from '../../core/card/row';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { coverageOfBurn, rectRing, type Shape } from '../../core/card/shape';
import type { Rect } from '../../core/geometry/point';
import { powerOfGrey } from '../../core/picture/mode';
import { burnedGrey, wedgeGreys, type TonePlan } from './plan';

/** Cards are about twice as wide as high. */
const WIDE = 2;
/** Neighbours in grey lie so large a part of a wedge apart: by no simple fraction, so that steps of two or three do not line up either. */
const STRIDE = (Math.sqrt(5) - 1) / 2;

const shared = (a: number, b: number): number => (b === 0 ? a : shared(b, a % b));

/** The whole number nearest to a share of `steps` that shares no factor with it. */
function strideOf(steps: number): number {
  const wanted = Math.max(1, Math.round(steps * STRIDE));
  for (let off = 0; ; off++)
    for (const stride of [wanted + off, wanted - off]) if (stride > 0 && shared(stride, steps) === 1) return stride;
}

/**
 * Where the repeats of each grey lie, as places counted row by row: shuffled, and every second wedge is the one before it seen in a point mirror, so
 * that the middle of a grey's patches is the card's own, and light, grain or a bed that changes evenly across it cancels. Of an odd number the last
 * lies in the middle.
 *
 * shuffledPlaces(4, 2) -> [[0, 7], [3, 4], [2, 5], [1, 6]]
 */
export function shuffledPlaces(steps: number, repeats: number): number[][] {
  const stride = strideOf(steps);
  const last = steps * repeats - 1;
  return Array.from({ length: steps }, (_, step) =>
    Array.from({ length: repeats }, (_, repeat) => {
      const pair = Math.floor(repeat / 2);
      const place = pair * steps + ((step * stride + pair) % steps);
      return repeat % 2 === 0 ? place : last - place;
    }),
  );
}

/** Columns that make a card about twice as wide as high, with full rows where that is possible. */
export function columnsFor(count: number): number {
  const wanted = Math.max(1, Math.round(Math.sqrt(count * WIDE)));
  for (let off = 0; off <= wanted / 3; off++)
    for (const columns of [wanted + off, wanted - off]) if (columns > 0 && count % columns === 0) return columns;
  return wanted;
}

/** Settings and shape of a patch of a grey as it is burned. */
export function patchOf(plan: TonePlan, grey: number, box: Rect): { shape: Shape; settings: BurnSettings } {
  const { mode, floorFraction, topFraction, constants } = plan;
  const extras = { lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg, crossHatch: PLAIN_EXTRAS.crossHatch };
  if (mode !== 'power')
    return {
      shape: { do: 'dots', box, grey, screen: mode },
      settings: { ...constants, ...extras, powerFraction: topFraction },
    };
  const power = Math.round(powerOfGrey(grey, floorFraction, topFraction) * 1e4) / 1e4;
  return {
    shape: { do: 'sweep', area: [rectRing(box)] },
    settings: { ...constants, ...extras, powerFraction: power },
  };
}

/** Greys in no order that an eye or a slope of light could mistake for a tone curve. */
export function drawTones(plan: TonePlan, on: Pairing): Drawn {
  const { repeats, steps, patchMm, gapMm, constants } = plan;
  const count = steps * repeats;
  const columns = columnsFor(count);
  const rows = Math.ceil(count / columns);
  const across = rowOfBoxes(columns, patchMm, patchMm, gapMm);
  const down = columnOfBoxes(rows, patchMm, patchMm, gapMm);
  const places = shuffledPlaces(steps, repeats);
  const cells = wedgeGreys(plan).flatMap((grey, step) =>
    places[step]!.map((place) => {
      const box = { ...across[place % columns]!, y: down[Math.floor(place / columns)]!.y };
      const burned = burnedGrey(plan, grey);
      const burn = patchOf(plan, burned, box);
      return {
        box,
        levels: plan.corrected ? { grey, burnedAs: burned } : { grey },
        burns: [burn],
        risk: deliveredBy(burn.settings, on).arealJPerMm2 * coverageOfBurn(burn),
        expected: null,
        leftOut: false,
      };
    }),
  );
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  return {
    widthMm: round(columns * (patchMm + gapMm) - gapMm),
    heightMm: round(rows * (patchMm + gapMm) - gapMm),
    cells,
    before: [],
    after: [],
    labels: [],
    units: plan.corrected ? 'GREY PROOF' : 'GREY',
    caption: `${steps} GREYS SHUFFLED${plan.corrected ? ', CORRECTED' : ''}`,
    constants: constantsText(constants, on.machine.likedUnits),
    markers: 'four',
    air: constants.air,
  };
}
