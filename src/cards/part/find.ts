import { isAskedOf, numbersOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import { farOff } from '../../core/card/gauge-reading';
import type { Layout } from '../../core/card/layout';
import { linesOf } from '../../core/card/shape';
import { CALIPER, caliperAsk } from '../../core/card/caliper-ask';
import { DROP, FIT } from '../../core/card/usual-asks';
import { FIT_WORDS, type Fit, type WantedFit } from '../../core/fit/fit-bounds';
import { SCALE_SIGMA } from '../../core/fit/kerf';
import { formatLength } from '../../core/quantities/format';
import { measuredFrom } from '../../core/stats/measured';

const REPEATS = 2;
/** Where nobody measured the kerf it is off by about so much, as a share of itself (from memory, without a source). */
const GUESSED_SHARE = 0.3;

const caliper = (field: 'width-x' | 'width-y' | 'hole-x' | 'hole-y', side: 'part' | 'hole', question: string): Ask =>
  caliperAsk(field, question, {
    repeats: REPEATS,
    near: field.endsWith('x') ? 'wanted-width' : 'wanted-height',
    sides: [side],
  });

export const PART_ASKS: readonly Ask[] = [
  DROP,
  { ...FIT, question: 'Push the largest part into the slot, on edge: how does it go?', sides: ['slot'] } as Ask,
  caliper('width-x', 'part', 'The part along X, by the outside jaws'),
  caliper('width-y', 'part', 'The part along Y, by the outside jaws'),
  caliper('hole-x', 'hole', 'The hole along X, by the inside jaws'),
  caliper('hole-y', 'hole', 'The hole along Y, by the inside jaws'),
];

/** What did not drop, or was not cut as it was meant to be. */
const STUCK: readonly string[] = ['hangs', 'not-through', 'flare'];

/** One size that was measured against what was wanted. */
export interface MeasuredSize {
  readonly cellIndex: number;
  readonly side: 'part' | 'hole';
  readonly axis: 'x' | 'y';
  readonly wantedMm: number;
  readonly offMm: number;
  /** Standard uncertainty of what was measured. */
  readonly sigmaMm: number;
  /** Within what it is expected to come out, 95 %: by the kerf’s own doubt, the axis’s and the caliper’s. */
  readonly expectedMm: number;
}

export interface PartFinding extends BaseFinding {
  readonly sizes: readonly MeasuredSize[];
  /** Sizes that are off by more than they are expected to be. */
  readonly off: readonly MeasuredSize[];
  readonly stuck: readonly number[];
  readonly goes: Fit | null;
  readonly wantedFit: WantedFit | null;
  /** How much wider than the sheet its slot was drawn. */
  readonly slotMm: number | null;
}

function sizesOf(layout: Layout, seen: Seen): { sizes: MeasuredSize[]; strange: string[] } {
  const sizes: MeasuredSize[] = [];
  const strange: string[] = [];
  for (const cellIndex of layout.order) {
    const cell = layout.cells[cellIndex]!;
    for (const ask of PART_ASKS) {
      if (ask.by !== 'gauge' || !cell.wanted?.comesOut || !isAskedOf(ask, cell)) continue;
      const axis = ask.field.endsWith('x') ? 'x' : 'y';
      const { kerf, widthMm, heightMm } = cell.wanted.comesOut;
      const wantedMm = axis === 'x' ? widthMm : heightMm;
      const readings = numbersOf(seen, ask.field, cellIndex);
      const far = readings.flatMap((reading) => farOff(reading, wantedMm) ?? []);
      if (far.length > 0) strange.push(`Outline ${cellIndex + 1}: ${far[0]}`);
      else if (readings.length > 0) {
        const { mean, combined } = measuredFrom(readings, CALIPER);
        const kerfSigma = kerf.sigmaMm ?? GUESSED_SHARE * (axis === 'x' ? kerf.xMm : kerf.yMm);
        sizes.push({
          cellIndex,
          side: ask.field.startsWith('hole') ? 'hole' : 'part',
          axis,
          wantedMm,
          offMm: mean - wantedMm,
          sigmaMm: combined,
          // The axis itself goes a little wrong, which nothing here tells from the kerf.
          expectedMm: 2 * Math.hypot(kerfSigma, SCALE_SIGMA * wantedMm, combined),
        });
      }
    }
  }
  return { sizes, strange };
}

/** Whether tabs hold a part: its outline is cut in more than one line, and it does not drop. */
const isHeld = (layout: Layout, index: number): boolean =>
  layout.cells[index]!.burns.some(({ shape }) => linesOf(shape).length > 1);

/** How far the sizes of what was cut are off what was wanted, whether that is more than is expected, and how the part went into its slot. */
export function findPart(layout: Layout, seen: Seen, { pairing }: Known): PartFinding {
  const liked = pairing.machine.likedUnits;
  const stuck = layout.order.filter(
    (index) => STUCK.includes(wordOf(seen, DROP.field, index) ?? '') && !isHeld(layout, index),
  );
  const { sizes, strange } = sizesOf(layout, seen);
  const off = sizes.filter(({ offMm, expectedMm }) => Math.abs(offMm) > expectedMm);
  const slot = layout.cells.find(({ wanted }) => wanted?.takes);
  const goes = slot ? (wordOf(seen, FIT.field, slot.index) as Fit | null) : null;
  const wantedFit = slot?.wanted?.takes?.fit ?? null;
  const missing = [...strange];
  if (stuck.length > 0)
    missing.push(
      `${stuck.length === 1 ? `Outline ${stuck[0]! + 1}` : `${stuck.length} outlines`} did not come through: cut slower or with one pass more, or measure what dropped on a card of cut squares first.`,
    );
  else if (strange.length === 0 && sizes.length === 0)
    missing.push('Measure the part along X and along Y: nothing else tells whether it came out as it was drawn.');
  const most = sizes.reduce((worst, { offMm }) => Math.max(worst, Math.abs(offMm)), 0);
  const length = (mm: number): string => formatLength(Math.round(mm * 100) / 100, liked, 3);
  const said = (size: MeasuredSize): string =>
    `${size.side} ${size.cellIndex + 1} along ${size.axis.toUpperCase()} is ${length(Math.abs(size.offMm))} too ${size.offMm > 0 ? 'large' : 'small'}`;
  const sizeWords =
    off.length === 0
      ? `Its sizes are as wanted: none of ${sizes.length} is off by more than ${length(most)}, and that much is expected.`
      : `Not as wanted: ${off.map(said).join(', ')}, more than is expected. Measure the kerf again.`;
  const fitWords =
    goes === null || wantedFit === null
      ? ''
      : ` In its slot it is ${FIT_WORDS[goes]}${goes === wantedFit ? ', as wanted' : `; ${FIT_WORDS[wantedFit]} was wanted`}.`;
  return {
    sizes,
    off,
    stuck,
    goes,
    wantedFit,
    slotMm: slot ? Number(slot.levels.clearance) : null,
    missing,
    says: missing.length > 0 ? '' : sizeWords + fitWords,
  };
}

/** How far sizes are off altogether: root of their mean square. */
export const offOf = (sizes: readonly MeasuredSize[]): number =>
  Math.sqrt(sizes.reduce((sum, { offMm }) => sum + offMm * offMm, 0) / Math.max(1, sizes.length));
