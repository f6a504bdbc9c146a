import { placesOfPicture } from '../../core/card/chosen-picture';
import { constantsText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { coverageOfBurn, type Burn } from '../../core/card/shape';
import { sizedPicture, wantedOf, type PicturePlan } from './plan';

/** Settings of black, and of every dot. */
export const settingsOf = ({
  constants,
  topFraction,
}: Pick<PicturePlan, 'constants' | 'topFraction'>): BurnSettings => ({
  ...constants,
  lineAngleDeg: PLAIN_EXTRAS.lineAngleDeg,
  crossHatch: PLAIN_EXTRAS.crossHatch,
  powerFraction: topFraction,
});

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Size as it is burned: a whole number of lines. */
export function sizeOf(plan: PicturePlan): { readonly widthMm: number; readonly heightMm: number } {
  const { columns, rows } = placesOfPicture(sizedPicture(plan));
  const { intervalMm } = plan.constants;
  return { widthMm: round(columns * intervalMm), heightMm: round(rows * intervalMm) };
}

/** Whether each cell goes through the table: first the one that does. */
export const waysOf = ({ corrected, beside }: PicturePlan): readonly boolean[] =>
  corrected ? (beside ? [true, false] : [true]) : [false];

/** The picture, and beside it once more without the table. */
export function drawPicture(plan: PicturePlan, on: Pairing): Drawn {
  const { mode, floorFraction, table, gapMm, constants } = plan;
  const { widthMm, heightMm } = sizeOf(plan);
  const wanted = wantedOf(plan);
  const settings = settingsOf(plan);
  const ways = waysOf(plan);
  const cells = ways.map((corrected, index) => {
    const box = { x: round(index * (widthMm + gapMm)), y: 0, width: widthMm, height: heightMm };
    const burn: Burn = {
      shape: { do: 'picture', box, wanted, table: corrected && table ? table.entries : null, mode, floorFraction },
      settings,
    };
    return {
      box,
      levels: { table: corrected ? 'through the table' : 'as it is' },
      burns: [burn],
      risk: deliveredBy(settings, on).arealJPerMm2 * coverageOfBurn(burn),
      expected: null,
      leftOut: false,
    };
  });
  return {
    widthMm: round(ways.length * (widthMm + gapMm) - gapMm),
    heightMm,
    cells,
    before: [],
    after: [],
    labels:
      cells.length < 2
        ? []
        : cells.map(({ box }, index) => ({
            text: ways[index] ? 'TABLE' : 'PLAIN',
            means: ways[index] ? 'through the tone table' : 'without the tone table',
            edge: 'above' as const,
            box,
          })),
    units: 'PICTURE',
    caption: `PICTURE${plan.corrected ? ', CORRECTED' : ''}`,
    constants: constantsText(constants, on.machine.likedUnits),
    markers: 'four',
    air: constants.air,
  };
}
