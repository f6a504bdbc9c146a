import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import type { Wanted } from '../../core/card/layout';
import { rectRing, type Burn } from '../../core/card/shape';
import type { Point, Rect } from '../../core/geometry/point';
import { compensated, type CutFault, type CutOutline } from '../../core/part/compensate';
import type { Drawing } from '../../core/part/drawing';
import { cutLines } from '../../core/part/cut-line';
import { cutOrder } from '../../core/part/outlines';
import { boxOfRing } from '../../core/part/polygons';
import { sortedOf, type PartPlan } from './plan';

/** A slot is so much longer than the part that goes into it: its thickness is what is to fit. */
const LONGER_MM = 0.2;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

type Drawable = Omit<Drawn['cells'][number], 'risk'>;

interface Cuts {
  readonly cuts: readonly CutOutline[];
  readonly faults: readonly CutFault[];
}

/** What a drawing was last cut as: a plan is checked, bounded and drawn at every key. */
const last = new WeakMap<Drawing, { readonly by: string; readonly cuts: Cuts }>();

/** Every outline as it is cut, and what stands against it. */
export function cutsOf(plan: PartPlan): Cuts {
  const { drawing, scale, kerf, school, clearanceMm } = plan;
  const by = JSON.stringify([scale, kerf.xMm, kerf.yMm, school, clearanceMm]);
  const known = last.get(drawing);
  if (known?.by === by) return known.cuts;
  const cuts = compensated(sortedOf(plan).outlines, plan);
  last.set(drawing, { by, cuts });
  return cuts;
}

/** How wide the slot is drawn. */
export const slotWidthMm = ({ thicknessMm, slotFor, fit }: Pick<PartPlan, 'thicknessMm' | 'slotFor' | 'fit'>): number =>
  round(thicknessMm + slotFor[fit]);

/** The place of the largest part among the outlines, which goes into the slot; null where there is none. */
export function largestPart(cuts: readonly CutOutline[]): number | null {
  const areas = cuts.map(({ outline }) => (outline.side === 'part' ? outline.box.width * outline.box.height : 0));
  const largest = Math.max(...areas, 0);
  return largest > 0 ? areas.indexOf(largest) : null;
}

/** An outline of the drawing as a cell: its box is what is wanted, its burn where the beam goes. */
function outlineCell({ outline, path, comesOut }: CutOutline, plan: PartPlan, at: Point): Drawable {
  const { kerf, cut, leadMm, tabs, tabMm } = plan;
  const isPart = outline.side === 'part';
  const moved = (points: readonly Point[]): Point[] =>
    points.map(({ x, y }) => ({ x: round(x + at.x), y: round(y + at.y) }));
  const lines = cutLines(path, {
    leadMm,
    tabs: isPart && tabs > 0 ? { count: tabs, widthMm: tabMm } : null,
    waste: isPart ? 'outside' : 'inside',
    kerfMm: Math.max(kerf.xMm, kerf.yMm),
  });
  const wanted: Wanted = {
    outline: moved(outline.ring),
    on: moved([outline.on])[0]!,
    comesOut: {
      widthMm: round(outline.box.width + comesOut.xMm),
      heightMm: round(outline.box.height + comesOut.yMm),
      kerf,
      drawing: plan.drawing.name,
    },
  };
  return {
    box: { ...outline.box, x: round(outline.box.x + at.x), y: round(outline.box.y + at.y) },
    levels: { side: outline.side },
    burns: [{ shape: { do: 'follow', lines: lines.map(moved) }, settings: cut }],
    expected: null,
    leftOut: false,
    wanted,
  };
}

/** The slot, upright as those of a comb are, since a kerf may be wider along the other axis. */
function slotCell(plan: PartPlan, box: Rect, cellIndex: number): Drawable {
  const { kerf, cut, leadMm, fit } = plan;
  const lines = cutLines(rectRing(box), { leadMm, tabs: null, waste: 'inside', kerfMm: kerf.xMm });
  return {
    box,
    levels: { side: 'slot', clearance: plan.slotFor[fit] },
    burns: [{ shape: { do: 'follow', lines }, settings: cut }],
    expected: null,
    leftOut: false,
    wanted: {
      outline: rectRing(box),
      on: { x: box.x + box.width / 2, y: box.y + box.height / 2 },
      comesOut: {
        widthMm: round(box.width + kerf.xMm),
        heightMm: round(box.height + kerf.yMm),
        kerf,
        drawing: plan.drawing.name,
      },
      takes: { cellIndex, fit },
    },
  };
}

/** The drawing as it is cut, inner outlines before outer ones, and to its right the slot. */
export function drawPart(plan: PartPlan, on: Pairing): Drawn {
  const { cut, gapMm, withSlot } = plan;
  const { cuts } = cutsOf(plan);
  const { open } = sortedOf(plan);
  const opened = plan.cutsOpen ? open : [];
  const whole = boxOfRing([...cuts.flatMap(({ path }) => path), ...opened.flatMap(({ points }) => points)]);
  const lead = plan.leadMm;
  // Paths are wider than what is wanted, and leads begin beside them.
  const at = { x: lead - whole.x, y: lead - whole.y };
  const cells = cuts.map((one) => outlineCell(one, plan, at));
  const taken = withSlot ? largestPart(cuts) : null;
  let [widthMm, heightMm] = [whole.width + 2 * lead, whole.height + 2 * lead];
  if (taken !== null) {
    const length = round(cuts[taken]!.outline.box.width + LONGER_MM - plan.kerf.yMm);
    const box = { x: round(widthMm + gapMm), y: 0, width: slotWidthMm(plan), height: length };
    cells.push(slotCell(plan, box, taken));
    widthMm = box.x + box.width + 1;
    heightMm = Math.max(heightMm, length);
  }
  const slot = taken === null ? [] : [cells.length - 1];
  const risk = deliveredBy(cut, on).lineJPerMm;
  const lines: Burn[] = opened.map(({ points }) => ({
    shape: {
      do: 'follow',
      lines: [points.map(({ x, y }) => ({ x: round(x + at.x), y: round(y + at.y) }))],
    },
    settings: cut,
  }));
  return {
    widthMm: round(widthMm),
    heightMm: round(heightMm),
    cells: cells.map((cell) => ({ ...cell, risk })),
    before: lines,
    after: [],
    order: [...slot, ...cutOrder(cuts.map(({ outline }) => outline))],
    labels: [],
    units: 'PART',
    caption: `PART, KERF X ${plan.kerf.xMm} Y ${plan.kerf.yMm} MM`,
    constants: cutText(cut, on.machine.likedUnits),
    markers: 'none',
    air: cut.air,
  };
}
