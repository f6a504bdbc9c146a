import { within } from '../../core/card/axis';
import { boundOfDots } from '../../core/card/bound';
import { checkChosen } from '../../core/card/chosen-picture';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, Pairing } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS, type PlanField } from '../../core/card/plan-fields';
import { checkTones, toneFields, tonePowerFields } from '../../core/card/propose-tones';
import { drawPicture, settingsOf, sizeOf, waysOf } from './draw';
import { burnToGoBy, blackOf, findPicture, PICTURE_ASKS, type PictureFinding } from './find';
import { PICTURE_VERSION, sizedPicture, upgradePicturePlan, type PicturePlan } from './plan';
import { proposePicture } from './propose';

const fields = (plan: PicturePlan, { machine }: Pairing): readonly PlanField[] => [
  { path: 'picture', label: 'Picture', as: 'picture', group: 'cells' },
  { path: 'widthMm', label: 'Width', as: 'length', group: 'cells', hint: 'its height follows' },
  { path: 'crop.left', label: 'Crop from the left', as: 'share', group: 'cells' },
  { path: 'crop.top', label: 'Crop from the top', as: 'share', group: 'cells' },
  { path: 'crop.width', label: 'Crop width', as: 'share', group: 'cells' },
  { path: 'crop.height', label: 'Crop height', as: 'share', group: 'cells' },
  {
    path: 'wholeRange',
    label: 'Use the whole range',
    as: 'flag',
    group: 'cells',
    hint: 'the darkest of the picture is burned as black, its lightest left bare',
  },
  { path: 'negative', label: 'Burn what is light', as: 'flag', group: 'cells' },
  ...toneFields(plan),
  ...(plan.corrected
    ? [{ path: 'beside', label: 'Once more without the table', as: 'flag' as const, group: 'cells' as const }]
    : []),
  ...tonePowerFields(plan),
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
  ...constantFields(machine, 'constants', ['powerFraction', 'lineAngleDeg', 'crossHatch']),
  ...FRAME_FIELDS,
];

/** Picture: does a picture come out as it was wanted? */
export const picture = Object.freeze({
  kind: 'picture',
  name: 'Picture',
  purpose: 'a picture of yours, small, burned through the tone table and compared with what was wanted',
  rung: 'picture',
  version: PICTURE_VERSION,
  edges: () => [],
  asks: PICTURE_ASKS,
  propose: proposePicture,
  upgrade: upgradePicturePlan,
  check: (plan, on) => {
    const { gapMm, widthMm } = plan;
    return [
      ...within('widthMm', widthMm, 3, 400, 'A picture is 3 to 400 mm wide.'),
      ...checkChosen(sizedPicture(plan), 'picture'),
      ...checkTones(plan, on, 'burn a tone wedge, and keep what it says.'),
      ...within('gapMm', gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
      ...checkSettings(settingsOf(plan), on, 'constants').filter(({ field }) => field !== 'constants.powerFraction'),
    ];
  },
  fields,
  draw: drawPicture,
  bound: (plan, { machine }) => boundOfDots(waysOf(plan).length, sizeOf(plan), settingsOf(plan), machine),
  eases: [EASES.interval('constants.intervalMm'), EASES.size('widthMm', 'pictures'), EASES.passes('constants.passes')],
  wish: () => ({}),
  find: findPicture,
  settle: (finding, layout) => {
    const best = burnToGoBy(finding);
    const burn = best && mainBurn(layout.cells[best.cellIndex]!);
    if (!best || burn?.shape.do !== 'picture') return [];
    const { settings, shape } = burn;
    const { mode, floorFraction, table } = shape;
    return [
      {
        name: 'photo',
        at: { speed: settings.speedMmPerS, interval: settings.intervalMm, passes: settings.passes, picture: mode },
        value: { settings, floorFraction, table, offL: best.fit.rmsL, strongest: blackOf(best) },
        sigma: null,
        cellIndex: best.cellIndex,
      },
    ];
  },
} as const satisfies CardKind<PicturePlan, object, PictureFinding, object>);
