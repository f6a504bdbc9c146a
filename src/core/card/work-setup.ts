import type { Machine } from '../machine/machine';
import { familyOf } from '../stock/families';
import type { Pairing } from './pairing';
import type { PlanField } from './plan-fields';

/**
 * How a sheet is made ready, held and looked at: what two burns of equal settings must share to come out alike. Recorded with each card
 * and part of its checklist; nothing is computed from it.
 */
export interface WorkSetup {
  readonly masked: boolean;
  readonly wiped: boolean;
  readonly dried: boolean;
  /** What was put on the face and with what pigment; empty for nothing. */
  readonly coatedWith: string;
  readonly support: 'bed' | 'honeycomb' | 'pins' | 'board';
  readonly heldBy: 'nothing' | 'magnets' | 'clamps' | 'tape';
  readonly focusSetBy: 'not-said' | 'spacer' | 'automatic' | 'ruler' | 'trial';
  /** The nozzle in the operator's own words. */
  readonly airNozzle: string;
  readonly airPressureKPa: number | null;
  readonly airFlowLPerMin: number | null;
  readonly finish: 'none' | 'wiped' | 'washed' | 'brushed' | 'sanded' | 'stained';
  readonly lookedAt: 'before' | 'after' | 'both';
}

/** What is said of cards that were made before these were asked for. */
export const UNSAID_SETUP: WorkSetup = {
  masked: false,
  wiped: false,
  dried: false,
  coatedWith: '',
  support: 'bed',
  heldBy: 'nothing',
  focusSetBy: 'not-said',
  airNozzle: '',
  airPressureKPa: null,
  airFlowLPerMin: null,
  finish: 'none',
  lookedAt: 'before',
};

const SUPPORTS = { bed: 'the bare bed', honeycomb: 'honeycomb', pins: 'pins', board: 'a waste board' } as const;
const HOLDS = { nothing: 'nothing: it lies flat', magnets: 'magnets', clamps: 'clamps', tape: 'tape' } as const;
const FOCUS_WAYS = {
  'not-said': 'not said',
  spacer: 'a spacer',
  automatic: 'the machine itself',
  ruler: 'a ruler',
  trial: 'a trial line',
} as const;
const FINISHES = {
  none: 'nothing',
  wiped: 'wiped',
  washed: 'washed',
  brushed: 'brushed',
  sanded: 'sanded',
  stained: 'stained',
} as const;
const LOOKS = { before: 'before the finish', after: 'after the finish', both: 'before and after' } as const;

const options = (names: Readonly<Record<string, string>>) =>
  Object.entries(names).map(([value, name]) => ({ value, name }));

const field = (path: keyof WorkSetup, rest: Omit<PlanField, 'path' | 'group'>): PlanField => ({
  path: `setup.${path}`,
  group: 'setup',
  ...rest,
});

/** The fields of a plan's set-up that make sense on a machine. */
export function setupFields(machine: Machine): PlanField[] {
  const air: PlanField[] =
    machine.airAssist === 'none'
      ? []
      : [
          field('airNozzle', {
            label: 'Air nozzle',
            as: 'text',
            hint: 'in your own words; empty if it is the usual one',
          }),
          field('airPressureKPa', {
            label: 'Air pressure',
            as: 'number',
            unit: 'kPa',
            optional: true,
            hint: '1 bar is 100 kPa; empty when not known',
          }),
          field('airFlowLPerMin', {
            label: 'Air flow',
            as: 'number',
            unit: 'l/min',
            optional: true,
            hint: 'empty when not known',
          }),
        ];
  return [
    field('masked', { label: 'Masked with transfer tape', as: 'flag' }),
    field('wiped', { label: 'Wiped clean before', as: 'flag' }),
    field('coatedWith', { label: 'Coated with', as: 'text', hint: 'what, and with what pigment; empty for nothing' }),
    field('dried', {
      label: 'Dried before',
      as: 'flag',
      hint: 'coats until they are dry, wood and leather to the room’s damp',
    }),
    field('support', { label: 'Lies on', as: 'choice', options: options(SUPPORTS) }),
    field('heldBy', { label: 'Held by', as: 'choice', options: options(HOLDS) }),
    field('focusSetBy', { label: 'Focus set by', as: 'choice', options: options(FOCUS_WAYS) }),
    ...air,
    field('finish', { label: 'Finish after the burn', as: 'choice', options: options(FINISHES) }),
    field('lookedAt', {
      label: 'Looked at',
      as: 'choice',
      options: options(LOOKS),
      hint: 'soot is brushed or blown off, never rubbed in',
    }),
  ];
}

/** Families whose face is wiped before, and whose dust or coat comes off after (common practice). */
const WIPED = [
  'slate',
  'tile',
  'glass',
  'light-stone',
  'solid-surface',
  'acrylic-cast',
  'acrylic-extruded',
  'two-layer',
];

/** How most shops set such a sheet up (common practice): a start, to be changed to what is true. */
export function proposeSetup({ machine, stock }: Pairing): WorkSetup {
  const hard = WIPED.includes(familyOf(stock.family).id);
  return {
    ...UNSAID_SETUP,
    wiped: hard,
    coatedWith: stock.coatingSide === 'none' ? '' : stock.coating,
    dried: stock.coatingSide !== 'none' && stock.coating !== '',
    support: machine.head === 'galvo' ? 'board' : 'honeycomb',
    focusSetBy: machine.automaticFocus ? 'automatic' : 'spacer',
    finish: hard ? 'wiped' : 'none',
    lookedAt: hard ? 'both' : 'before',
  };
}

/** A set-up in one line of words for lists and sheets: "masked, on honeycomb, held by magnets, focus by a spacer". */
export function setupWords(setup: WorkSetup): string[] {
  const { airNozzle, airPressureKPa, airFlowLPerMin } = setup;
  const air = [
    airNozzle && `nozzle ${airNozzle}`,
    airPressureKPa === null ? '' : `${airPressureKPa} kPa`,
    airFlowLPerMin === null ? '' : `${airFlowLPerMin} l/min`,
  ].filter(Boolean);
  return [
    setup.masked ? 'masked' : '',
    setup.wiped ? 'wiped clean' : '',
    setup.coatedWith === '' ? '' : `coated with ${setup.coatedWith}`,
    setup.dried ? 'dried' : '',
    setup.support === 'bed' && setup.focusSetBy === 'not-said' ? '' : `on ${SUPPORTS[setup.support]}`,
    setup.heldBy === 'nothing' ? '' : `held by ${HOLDS[setup.heldBy]}`,
    setup.focusSetBy === 'not-said' ? '' : `focus by ${FOCUS_WAYS[setup.focusSetBy]}`,
    air.length === 0 ? '' : `air: ${air.join(', ')}`,
    setup.finish === 'none' ? '' : `${FINISHES[setup.finish]} afterwards, looked at ${LOOKS[setup.lookedAt]}`,
  ].filter(Boolean);
}

/** Before or after the finish. */
export type FinishMoment = 'before' | 'after';

/**
 * What the next photo of a piece most likely shows: by when it is to be looked at, and where that is before and after, by what earlier
 * photos show. Null where nothing is done to the piece.
 */
export function nextPhotoShows(
  { finish, lookedAt }: WorkSetup,
  earlier: readonly (FinishMoment | null)[],
): FinishMoment | null {
  if (finish === 'none') return null;
  if (lookedAt !== 'both') return lookedAt;
  return earlier.includes('before') ? 'after' : 'before';
}

/** "before it is wiped", "after it was washed"; null where nobody said when, or nothing is done to the piece. */
export function momentWords({ finish }: WorkSetup, moment: FinishMoment | null): string | null {
  if (finish === 'none' || moment === null) return null;
  return moment === 'before' ? `before it is ${FINISHES[finish]}` : `after it was ${FINISHES[finish]}`;
}

/**
 * How far, as a standard deviation in mm, two settings of one focus lie apart: a motor's steps, a spacer pushed under the head, a trial line's blackest
 * place, lines read off a ruler. Null where nobody said how it is set. From memory, without a source.
 */
export function focusScatterMm({ focusSetBy }: Pick<WorkSetup, 'focusSetBy'>): number | null {
  const scatters: Readonly<Record<WorkSetup['focusSetBy'], number | null>> = {
    'not-said': null,
    automatic: 0.02,
    spacer: 0.1,
    trial: 0.2,
    ruler: 0.4,
  };
  return scatters[focusSetBy];
}

/** What of a set-up is to be checked before the beam comes on, one line each. */
export function setupChecks(setup: WorkSetup): string[] {
  const { masked, wiped, dried, coatedWith, support, heldBy, focusSetBy } = setup;
  const face = [
    masked ? 'masked without bubbles' : '',
    wiped ? 'wiped clean' : '',
    coatedWith === '' ? '' : `coated with ${coatedWith}`,
    dried ? 'dry' : '',
  ].filter(Boolean);
  const lies = `The sheet lies on ${SUPPORTS[support]}`;
  const held = heldBy === 'nothing' ? '' : `held by ${HOLDS[heldBy]}`;
  const focus = focusSetBy === 'not-said' ? '' : `focus set by ${FOCUS_WAYS[focusSetBy]}`;
  return [
    ...(face.length > 0 ? [`The face is ${face.join(', ')}.`] : []),
    ...(support === 'bed' && heldBy === 'nothing' && focusSetBy === 'not-said'
      ? []
      : [`${[lies, held, focus].filter(Boolean).join(', ')}.`]),
  ];
}

/** Whether anything was said of how a sheet was set up. */
export const isSaid = (setup: WorkSetup): boolean =>
  (Object.keys(UNSAID_SETUP) as (keyof WorkSetup)[]).some((field) => setup[field] !== UNSAID_SETUP[field]);
