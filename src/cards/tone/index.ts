import { within } from '../../core/card/axis';
import { boundOfDots, boundOfFills } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, Pairing } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { constantFields, FRAME_FIELDS, type PlanField } from '../../core/card/plan-fields';
import { countIn } from '../../core/card/shape';
import { checkTones, toneFields, tonePowerFields } from '../../core/card/propose-tones';
import { drawTones, patchOf } from './draw';
import { findTone, powersOf, TONE_ASKS, type ToneFinding } from './find';
import { TONE_VERSION, upgradeTonePlan, type TonePlan } from './plan';
import { proposeTone } from './propose';

const STEPS = { least: 8, most: 32 } as const;
const STEPS_WORDS = `${STEPS.least} to ${STEPS.most} greys.`;
const MOST_REPEATS = 4;
const REPEATS_WORDS = `1 to ${MOST_REPEATS} patches of each grey.`;
/** Fewer dots across a patch show the pattern of dots, and no tone. */
const LEAST_DOTS = 12;

const box = ({ patchMm }: TonePlan) => ({ x: 0, y: 0, width: patchMm, height: patchMm });

const fields = (plan: TonePlan, { machine }: Pairing): readonly PlanField[] => [
  ...toneFields(plan),
  { path: 'steps', label: 'Greys', as: 'count', group: 'cells' },
  { path: 'repeats', label: 'Patches of each grey', as: 'count', group: 'cells' },
  ...tonePowerFields(plan),
  { path: 'patchMm', label: 'Patch size', as: 'length', group: 'cells' },
  { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
  ...constantFields(machine, 'constants', ['powerFraction', 'lineAngleDeg', 'crossHatch']),
  ...FRAME_FIELDS,
];

/** Tone: which grey of a picture gives which darkness, and the table that makes it straight? */
export const tone = Object.freeze({
  kind: 'tone',
  name: 'Tone wedge',
  purpose: 'greys from nearly nothing to black, shuffled: the table that brings a picture’s greys out evenly',
  rung: 'tone',
  version: TONE_VERSION,
  edges: () => [],
  asks: TONE_ASKS,
  propose: proposeTone,
  upgrade: upgradeTonePlan,
  check: (plan, on) => {
    const { steps, repeats, patchMm, gapMm, mode, constants } = plan;
    const sound = patchMm > 0 && constants.intervalMm > 0;
    return [
      ...(Number.isInteger(steps)
        ? within('steps', steps, STEPS.least, STEPS.most, STEPS_WORDS)
        : [{ field: 'steps', message: STEPS_WORDS }]),
      ...(Number.isInteger(repeats)
        ? within('repeats', repeats, 1, MOST_REPEATS, REPEATS_WORDS)
        : [{ field: 'repeats', message: REPEATS_WORDS }]),
      ...checkTones(plan, on, 'burn the wedge uncorrected first.'),
      ...within('patchMm', patchMm, 1.5, 20, 'Patches are 1.5 to 20 mm wide.'),
      ...(mode === 'power' || !sound || countIn(patchMm, constants.intervalMm) >= LEAST_DOTS
        ? []
        : [{ field: 'patchMm', message: `Patches are at least ${LEAST_DOTS} dots wide: fewer show no tone.` }]),
      ...within('gapMm', gapMm, 0.5, 20, 'Gaps are 0.5 to 20 mm.'),
      ...checkSettings(patchOf(plan, 1, box(plan)).settings, on, 'constants').filter(
        ({ field }) => field !== 'constants.powerFraction',
      ),
    ];
  },
  fields,
  draw: drawTones,
  bound: (plan, { machine }) => {
    const { steps, repeats, patchMm, mode } = plan;
    const patch = { widthMm: patchMm, heightMm: patchMm };
    const { settings } = patchOf(plan, 1, box(plan));
    return (mode === 'power' ? boundOfFills : boundOfDots)(steps * repeats, patch, settings, machine);
  },
  eases: [
    EASES.interval('constants.intervalMm'),
    EASES.size('patchMm', 'patches'),
    { path: 'repeats', by: 'less', step: 1, says: (count: number) => `${count} patches of each grey` },
    EASES.passes('constants.passes'),
  ],
  wish: () => ({}),
  find: findTone,
  settle: ({ table, fit, mode, corrected, offL }, layout) => {
    const first = layout.cells[0];
    if (table === null || fit === null || !first) return [];
    const { speedMmPerS, intervalMm, passes } = mainBurn(first).settings;
    return [
      {
        name: 'tone',
        at: { speed: speedMmPerS, interval: intervalMm, passes, picture: mode },
        value: { ...powersOf(layout), table, strongest: fit.strongest, proven: corrected },
        // What a wedge that was corrected is off is what a picture will be; before, no more is known than how patches alike scatter.
        sigma: corrected ? offL : fit.scatter,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<TonePlan, object, ToneFinding, object>);
