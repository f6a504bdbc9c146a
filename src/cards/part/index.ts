import { within } from '../../core/card/axis';
import { boundOfLines } from '../../core/card/bound';
import { checkSettings } from '../../core/card/check-settings';
import type { CardKind, PlanProblem } from '../../core/card/contract';
import { EASES } from '../../core/card/ease';
import { mainBurn } from '../../core/card/layout';
import { cutFields, type PlanField } from '../../core/card/plan-fields';
import { FIT_WORDS, WANTED_FITS } from '../../core/fit/fit-bounds';
import { perSideOf, SCHOOLS, type School } from '../../core/joint/clearance';
import type { CutFault } from '../../core/part/compensate';
import { pointsOf } from '../../core/part/drawing';
import { lengthOf, type DrawingFault } from '../../core/part/outlines';
import { formatLength, plainNumber, type LikedUnits } from '../../core/quantities/format';
import { cutsOf, drawPart, slotWidthMm } from './draw';
import { findPart, offOf, PART_ASKS, type PartFinding } from './find';
import { PART_VERSION, sortedOf, upgradePartPlan, type PartPlan } from './plan';
import { proposePart } from './propose';

/** A slot as long as a wider part would take much of a sheet, and tell no more. */
const WIDEST_FOR_SLOT_MM = 60;

const widestMm = (plan: PartPlan): number => Math.max(0, ...sortedOf(plan).outlines.map(({ box }) => box.width));

/** Narrower slots burn away. */
const LEAST_SLOT_MM = 0.4;

const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  both: 'Both come out true',
  part: 'Parts for both cuts',
  hole: 'Holes for both cuts',
  'part-alone': 'Parts alone',
  nobody: 'As drawn',
};

/** What a part cut so has about it in a hole cut so. */
function schoolWords(school: School, { kerf, clearanceMm }: PartPlan, liked: LikedUnits): string {
  const along = (kerfMm: number): number => {
    const sides = perSideOf(school, { holeKerfMm: kerfMm, partKerfMm: kerfMm, clearanceMm });
    return 2 * (sides.holeSideMm - sides.partSideMm + kerfMm);
  };
  const gap = Math.round(((along(kerf.xMm) + along(kerf.yMm)) / 2) * 1000) / 1000;
  const words =
    gap === 0 ? 'flush' : gap > 0 ? `${formatLength(gap, liked, 3)} loose` : `${formatLength(-gap, liked, 3)} tight`;
  return `${SCHOOL_WORDS[school]}: ${words}`;
}

const near = ({ x, y }: { readonly x: number; readonly y: number }): string =>
  `near ${plainNumber(x, 4)}, ${plainNumber(y, 4)} mm`;

const DRAWING_FAULTS: Readonly<Record<DrawingFault['what'], string>> = {
  'crosses-itself': 'A line crosses itself: what is part and what is hole cannot be told',
  'crosses-another': 'Two lines cross: what is part and what is hole cannot be told',
  'too-small': 'A line goes round less than 0.2 mm: it would burn away',
};

const CUT_FAULTS: Readonly<Record<CutFault['what'], readonly [field: string, words: string]>> = {
  'hole-narrower-than-cut': ['kerf.xMm', 'A hole is narrower than the cut: it cannot come out as it is drawn'],
  'gap-narrower-than-cut': ['kerf.xMm', 'A gap in an outline is narrower than the cut: it would be wider than drawn'],
  'too-near': ['drawing', 'Two parts stand nearer to each other than the cut is wide'],
  'clearance-between-kerfs': [
    'clearanceMm',
    'With so much clearance an outline would grow along one axis and shrink along the other: take another school',
  ],
};

function drawingProblems(plan: PartPlan): PlanProblem[] {
  const { outlines, faults, open } = sortedOf(plan);
  if (faults.length > 0)
    return faults
      .slice(0, 3)
      .map(({ what, at }) => ({ field: 'drawing', message: `${DRAWING_FAULTS[what]} (${near(at)}).` }));
  if (outlines.length === 0)
    return [
      {
        field: 'drawing',
        message: `No line of this drawing closes: nothing would drop out of the sheet. ${open.length} of them end.`,
      },
    ];
  return cutsOf(plan)
    .faults.slice(0, 3)
    .map(({ what, at }) => {
      const [field, words] = CUT_FAULTS[what];
      return { field, message: `${words} (${near(at)}).` };
    });
}

/** What was read of a drawing, in words. */
function drawingWords(plan: PartPlan, liked: LikedUnits): string {
  const { outlines, open, twice } = sortedOf(plan);
  const count = (side: string): number => outlines.filter((outline) => outline.side === side).length;
  const [parts, holes] = [count('part'), count('hole')];
  const ends = open.map(({ points, lengthMm }) => `${formatLength(lengthMm, liked, 3)} ${near(points[0]!)}`);
  return [
    `${parts} ${parts === 1 ? 'part' : 'parts'}, ${holes} ${holes === 1 ? 'hole' : 'holes'}`,
    ...(open.length > 0
      ? [`${open.length === 1 ? 'a line ends' : `${open.length} lines end`} (${ends.slice(0, 3).join('; ')})`]
      : []),
    ...(twice > 0 ? [`${twice} drawn twice, cut once`] : []),
    ...(plan.drawing.sizeSaidIn === 'pixels'
      ? ['the drawing says no size in lengths: taken as 96 pixels to the inch, check it']
      : []),
  ].join('; ');
}

const fields = (plan: PartPlan, { machine }: { machine: Parameters<typeof cutFields>[0] }): readonly PlanField[] => {
  const liked = machine.likedUnits;
  const { open } = sortedOf(plan);
  return [
    { path: 'drawing', label: 'Drawing', as: 'drawing', group: 'cells', hint: drawingWords(plan, liked) },
    { path: 'scale', label: 'Times as large', as: 'number', group: 'cells' },
    { path: 'kerf.xMm', label: 'Kerf along X, full width', as: 'length', group: 'cells' },
    { path: 'kerf.yMm', label: 'Kerf along Y, full width', as: 'length', group: 'cells' },
    {
      path: 'school',
      label: 'Drawn so that',
      as: 'choice',
      options: SCHOOLS.map((school) => ({ value: school, name: schoolWords(school, plan, liked) })),
      group: 'cells',
      hint: 'and what a part then has about it in a hole as large as itself. Dashed is what is wanted, the line is where the beam goes',
    },
    {
      path: 'clearanceMm',
      label: 'Holes wider by',
      as: 'offset',
      group: 'cells',
      hint: 'than the parts that go into them; minus to press them in',
    },
    { path: 'withSlot', label: 'A slot beside it', as: 'flag', group: 'cells' },
    ...(plan.withSlot
      ? ([
          { path: 'thicknessMm', label: 'Sheet, as measured', as: 'length', group: 'cells' },
          {
            path: 'fit',
            label: 'In the slot it is',
            as: 'choice',
            options: WANTED_FITS.map((fit) => ({ value: fit, name: FIT_WORDS[fit] })),
            group: 'cells',
          },
          { path: `slotFor.${plan.fit}`, label: 'Slot drawn wider by', as: 'offset', group: 'cells' },
          { path: 'gapMm', label: 'Beside it by', as: 'length', group: 'cells' },
        ] as const)
      : []),
    ...(open.length > 0
      ? ([
          {
            path: 'cutsOpen',
            label: 'Cut the lines that end',
            as: 'flag',
            group: 'cells',
            hint: 'as they are drawn, before all else: nothing can be made up for',
          },
        ] as const)
      : []),
    {
      path: 'leadMm',
      label: 'Lead-in',
      as: 'length',
      group: 'cells',
      hint: 'so far off in the waste each cut begins; 0 for on the line, away from detail',
    },
    {
      path: 'tabs',
      label: 'Tabs for each part',
      as: 'count',
      group: 'cells',
      hint: 'hold a part that would tip up into the head’s way; 0 for none',
    },
    ...(plan.tabs > 0 ? ([{ path: 'tabMm', label: 'Tab width', as: 'length', group: 'cells' }] as const) : []),
    ...cutFields(machine),
  ];
};

/** Part: does a drawing come out as it was wanted, and fit? */
export const part = Object.freeze({
  kind: 'part',
  name: 'Part',
  purpose: 'a drawing of yours, cut with the kerf made up for, and a slot that it fits into',
  rung: 'part',
  version: PART_VERSION,
  edges: () => [],
  follow: (plan, path) => {
    // Whoever types a kerf knows how sure it is, and we do not.
    if (path.startsWith('kerf.')) return { ...plan, kerf: { ...plan.kerf, sigmaMm: null } };
    const isLarge = (path === 'drawing' || path === 'scale') && widestMm(plan) > WIDEST_FOR_SLOT_MM;
    return isLarge ? { ...plan, withSlot: false } : plan;
  },
  asks: PART_ASKS,
  propose: proposePart,
  upgrade: upgradePartPlan,
  check: (plan, on) => {
    const problems = [
      ...within('scale', plan.scale, 0.01, 100, 'A drawing is made 0.01 to 100 times as large.'),
      ...within('kerf.xMm', plan.kerf.xMm, 0, 2, 'A cut is 0 to 2 mm wide.'),
      ...within('kerf.yMm', plan.kerf.yMm, 0, 2, 'A cut is 0 to 2 mm wide.'),
      ...within('clearanceMm', plan.clearanceMm, -1, 2, 'Holes are up to 1 mm narrower or 2 mm wider than parts.'),
      ...within('leadMm', plan.leadMm, 0, 10, 'Lead-ins are up to 10 mm long.'),
      ...within('tabs', plan.tabs, 0, 12, 'At most 12 tabs hold a part.'),
      ...within('tabMm', plan.tabMm, 0.1, 5, 'Tabs are 0.1 to 5 mm wide.'),
      ...(plan.withSlot
        ? [
            ...within('thicknessMm', plan.thicknessMm, 0.3, 40, 'Sheets are 0.3 to 40 mm thick.'),
            ...within('gapMm', plan.gapMm, 2, 50, 'The slot stands 2 to 50 mm beside the drawing.'),
            ...(slotWidthMm(plan) >= LEAST_SLOT_MM
              ? []
              : [
                  {
                    field: `slotFor.${plan.fit}`,
                    message: 'The slot would be drawn under 0.4 mm wide: one cut alone is wider than that.',
                  },
                ]),
          ]
        : []),
      ...checkSettings(plan.cut, on, 'cut', 'both'),
    ];
    return problems.length > 0 ? problems : drawingProblems(plan);
  },
  fields,
  draw: drawPart,
  bound: ({ drawing, scale, cut, withSlot }, { machine }) => {
    const lines = drawing.lines.map((line) => pointsOf(line, scale));
    const places = lines.flat();
    const reach = (of: (place: { x: number; y: number }) => number): number =>
      places.reduce((most, place) => Math.max(most, of(place)), 0);
    const [widthMm, heightMm] = [reach(({ x }) => x), reach(({ y }) => y)];
    // Around each corner the path is rounded; leads and the slot are drawn beside it.
    const outlines = {
      count: lines.length + (withSlot ? 1 : 0),
      lengthMm: Math.max(...lines.map((line) => lengthOf([...line, line[0]!]))) + 40,
      corners: 6 * Math.max(...lines.map((line) => line.length)) + 8,
      reachMm: widthMm + heightMm,
    };
    return boundOfLines(outlines, cut, machine);
  },
  eases: [EASES.speed('cut.speedMmPerS'), EASES.passes('cut.passes')],
  wish: () => ({}),
  find: findPart,
  settle: ({ sizes, goes, slotMm, missing }, layout) => {
    const first = layout.cells.find(({ wanted }) => wanted?.comesOut);
    const wanted = first?.wanted?.comesOut;
    if (missing.length > 0 || !first || !wanted || sizes.length === 0) return [];
    const { settings } = mainBurn(first);
    const { xMm, yMm } = wanted.kerf;
    return [
      {
        name: 'part',
        at: { part: wanted.drawing },
        value: {
          settings,
          kerf: { xMm, yMm },
          offMm: offOf(sizes),
          expectedMm: Math.max(...sizes.map(({ expectedMm }) => expectedMm)),
          goes,
          slotMm,
        },
        sigma: null,
        cellIndex: null,
      },
    ];
  },
} as const satisfies CardKind<PartPlan, object, PartFinding, object>);
