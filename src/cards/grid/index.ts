import type { CardKind } from '../../core/card/contract';
import type { Seen } from '../../core/card/asks';
import { type FactDraft } from '../../core/book/facts';
import { shadeConditions } from '../../core/book/conditions';
import { mainBurn, type Layout } from '../../core/card/layout';
import { CHANNELS } from '../../core/card/channels';
import { constantFields, FRAME_FIELDS, type PlanField } from '../../core/card/plan-fields';
import { AXIS_COUNTS } from '../../core/card/axis';
import { BETTER, DEPTH, GRADE, OUTCOME, THROUGH } from '../../core/card/usual-asks';
import { adoptGrid } from './adopt';
import { channelsOn } from './axes';
import { boundGrid } from './bound';
import { checkGridPlan } from './check';
import { drawGrid } from './draw';
import { findInGrid, type GridFinding, type GridWish } from './find';
import { followGrid, variedFields } from './follow';
import { GRID_EASES, GRID_VERSION, upgradeGridPlan, type GridPlan } from './plan';
import { proposeGrid } from './propose';
import { matcherOf } from './match';
import { proveSetting } from './prove';
import { foretell, isWithin, settingsAt, surfaceOfGrid, type Level } from './surface';

/** A cell that was burned, or a place between them. */
export type GridChoice = {
  /** The shade that it is kept as, beside others; empty or left out for the usual one. */
  readonly shade?: string;
} & ({ readonly cellIndex: number; readonly at?: never } | { readonly at: Level; readonly cellIndex?: never });

function settleCell(
  layout: Layout,
  seen: Seen,
  { cellIndex, shade = '' }: { cellIndex: number; shade?: string },
): FactDraft[] {
  const cell = layout.cells[cellIndex];
  if (!cell || cell.leftOut) return [];
  const reading = seen.readings.find((candidate) => candidate.cellIndex === cellIndex);
  return [
    {
      name: 'engrave',
      at: shadeConditions(shade),
      value: {
        settings: mainBurn(cell).settings,
        lightness: reading?.lightness ?? null,
        lightnessSigma: reading?.lightnessSigma ?? null,
        confidence: reading?.confidence ?? null,
      },
      sigma: reading?.lightnessSigma ?? null,
      cellIndex,
    },
  ];
}

/** What the surface foretells of a place, as a setting that nobody has burned yet; none where the surface is not to be trusted, or ends before it. */
function settlePlace({ range }: GridFinding, layout: Layout, seen: Seen, place: Level, shade = ''): FactDraft[] {
  const surface = range && surfaceOfGrid(layout, seen, range.bare);
  if (!surface?.fit.trusted || !isWithin(surface, place)) return [];
  const { lightness, sigma } = foretell(surface, place);
  return [
    {
      name: 'engrave',
      at: shadeConditions(shade),
      value: { settings: settingsAt(surface, place), lightness, lightnessSigma: sigma, confidence: null },
      sigma,
      cellIndex: null,
      predicted: true,
    },
  ];
}

/** Cells that burned through are kept beside the setting: they bound the next card, and tell the cut side where cutting begins. */
function settleFallen({ fallen }: GridFinding): FactDraft[] {
  if (!fallen) return [];
  const { cellIndex, ...value } = fallen;
  return [{ name: 'burnedThrough', at: {}, value, sigma: null, cellIndex }];
}

/** Power x speed: which power and speed engrave this stock well? */
export const grid = Object.freeze({
  kind: 'grid',
  name: 'Grid card',
  purpose: 'squares at many powers and speeds, or any two settings: which engrave this stock well?',
  rung: 'grid',
  version: GRID_VERSION,
  edges: ({ across, down, placing }) => [
    {
      channel: across.channel,
      edge: 'below',
      path: 'across',
      mostSteps: AXIS_COUNTS.most,
      scattered: placing === 'scattered',
    },
    {
      channel: down.channel,
      edge: 'left',
      path: 'down',
      mostSteps: AXIS_COUNTS.most,
      scattered: placing === 'scattered',
    },
  ],
  follow: followGrid,
  asks: [{ field: 'tone', by: 'photo', measure: 'tone' }, THROUGH, GRADE, OUTCOME, BETTER, DEPTH],
  propose: proposeGrid,
  prove: proveSetting,
  adopt: adoptGrid,
  matcher: matcherOf,
  upgrade: upgradeGridPlan,
  check: checkGridPlan,
  fields: (plan, { machine }) => [
    ...(['across', 'down'] as const).map((edge): PlanField => ({
      path: `${edge}.channel`,
      label: edge === 'across' ? 'Columns vary' : 'Rows vary',
      as: 'choice',
      options: channelsOn(machine).map((value) => ({ value, name: CHANNELS[value].name.toLowerCase() })),
      group: 'cells',
    })),
    { path: 'repeats', label: 'Each burned', as: 'number', unit: '×', group: 'cells' },
    {
      path: 'placing',
      label: 'Placed',
      as: 'choice',
      options: [
        { value: 'ordered', name: 'in order, along the edges' },
        { value: 'scattered', name: 'scattered over the card' },
      ],
      group: 'cells',
      hint: 'scattered, neither the bed nor the grain can look like a setting; the card has no lettering at its edges then',
    },
    { path: 'cellMm', label: 'Cell size', as: 'length', group: 'cells' },
    { path: 'gapMm', label: 'Gap', as: 'length', group: 'cells' },
    { path: 'leaveOutFailing', label: 'Leave out cells bound to fail', as: 'flag', group: 'cells' },
    {
      path: 'sweeps',
      label: 'Filled',
      as: 'choice',
      options: [
        { value: 'cells', name: 'cell by cell, the riskiest last' },
        { value: 'rows', name: 'a row at a time, in one sweep' },
      ],
      group: 'cells',
      hint: 'a row’s power changes at the borders of its cells; rows go by risk, neighbours in a row follow each other',
    },
    ...constantFields(machine, 'constants', variedFields(plan)),
    ...FRAME_FIELDS,
  ],
  draw: drawGrid,
  bound: boundGrid,
  eases: GRID_EASES,
  wish: ({ machine }) => ({ lightness: null, powerCap: machine.powerCap, pace: 'fast-and-strong' }),
  find: findInGrid,
  settle: (finding, layout, seen, choice) => {
    const kept = choice.at
      ? settlePlace(finding, layout, seen, choice.at, choice.shade)
      : settleCell(layout, seen, choice);
    return kept.length === 0 ? kept : [...kept, ...settleFallen(finding)];
  },
} as const satisfies CardKind<GridPlan, GridWish, GridFinding, GridChoice>);
