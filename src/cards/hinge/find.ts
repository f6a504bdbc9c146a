import { eyeAsk, numbersOf, wordOf, type Ask, type Seen } from '../../core/card/asks';
import type { BaseFinding, Known } from '../../core/card/contract';
import type { Layout } from '../../core/card/layout';
import {
  leastRadii,
  rowsFor,
  strengthFrom,
  type BentSample,
  type CutLattice,
  type Strength,
} from '../../core/hinge/bend';
import { PATTERNS, pitchOf, slitsIn, type Pattern } from '../../core/hinge/lattice';
import { formatLength, plainNumber } from '../../core/quantities/format';

/** What a strip did, by letter. */
export const BENDS: Ask = eyeAsk('bends', 'Bend it: what does it do?', [
  ['held', 'h', 'held, to a radius'],
  ['broke', 'b', 'broke at once'],
  ['shut', 's', 'slits not through'],
]);

export const HINGE_ASKS: readonly Ask[] = [
  BENDS,
  {
    field: 'radius',
    by: 'gauge',
    of: 'cell',
    measures: 'bend',
    question: 'The least radius that it held round: pipes, bottles, mandrels, from large to small',
    unit: 'mm',
    repeats: 1,
    resolution: 0.5,
  },
];

/** A bend that is wanted, and how long its hinge is along the slits. */
export interface HingeWish {
  readonly radiusMm: number;
  readonly angleDeg: number;
  readonly widthMm: number;
}

export const USUAL_HINGE_WISH: HingeWish = { radiusMm: 30, angleDeg: 90, widthMm: 60 };

export interface SampleTold extends BentSample {
  readonly cellIndex: number;
}

/** A hinge for the wish. */
export interface ProposedHinge {
  readonly lattice: CutLattice;
  readonly rows: number;
  readonly lengthMm: number;
  readonly safeMm: number;
  /** All its slits together: what it takes to cut. */
  readonly cutMm: number;
}

/** How strong the stock is by the strips of one pattern: links of others break in another way. */
export interface PatternStrength {
  readonly pattern: Pattern;
  readonly strength: Strength;
}

export interface HingeFinding extends BaseFinding {
  readonly samples: readonly SampleTold[];
  readonly strengths: readonly PatternStrength[];
  /** To which radius each sample's lattice can be bent, by its cell. */
  readonly radii: readonly { readonly cellIndex: number; readonly breaksMm: number; readonly safeMm: number }[];
  /** For each pattern that reaches the wish its widest lattice, the one that takes least to cut first. */
  readonly hinges: readonly ProposedHinge[];
}

/** How far hinges of this stock can be bent, by the samples that held, by pattern, and the hinge for a wanted bend: of each pattern the widest rows that reach it, since they take least. */
export function findHinge(layout: Layout, seen: Seen, { pairing }: Known, wish: HingeWish): HingeFinding {
  const liked = pairing.machine.likedUnits;
  const lattices = layout.order.flatMap((cellIndex) => {
    const lattice = layout.cells[cellIndex]!.wanted?.hinge;
    return lattice ? [{ cellIndex, lattice }] : [];
  });
  const samples = lattices.flatMap(({ cellIndex, lattice }): SampleTold[] => {
    const [heldMm] = numbersOf(seen, 'radius', cellIndex);
    const word = wordOf(seen, BENDS.field, cellIndex);
    return heldMm === undefined || word === 'broke' || word === 'shut' ? [] : [{ cellIndex, lattice, heldMm }];
  });
  const words = layout.order.map((index) => wordOf(seen, BENDS.field, index));
  const lacks = (missing: string): HingeFinding => ({
    samples,
    strengths: [],
    radii: [],
    hinges: [],
    missing: [missing],
    says: '',
  });
  if (samples.length === 0) {
    if (words.length > 0 && words.every((word) => word === 'shut'))
      return lacks('No strip’s slits are through: find a cut that drops by a card of cut squares first.');
    if (words.length > 0 && words.every((word) => word === 'broke'))
      return lacks('Every strip broke at once: take longer slits or tighter rows, or another stock.');
    return lacks('Bend the strips round smaller and smaller things, and type the least radius that each held.');
  }
  const strengths = PATTERNS.flatMap((pattern): PatternStrength[] => {
    const own = samples.filter(({ lattice }) => lattice.pattern === pattern);
    return own.length === 0 ? [] : [{ pattern, strength: strengthFrom(own) }];
  });
  const radii = lattices.flatMap(({ cellIndex, lattice }) => {
    const own = strengths.find(({ pattern }) => pattern === lattice.pattern);
    return own ? [{ cellIndex, lattice, ...leastRadii(lattice, own.strength) }] : [];
  });
  const hinges = PATTERNS.flatMap((pattern): ProposedHinge[] => {
    const reaching = radii
      .filter(({ lattice, safeMm }) => lattice.pattern === pattern && safeMm <= wish.radiusMm)
      .sort((a, b) => pitchOf(b.lattice) - pitchOf(a.lattice))[0];
    return reaching ? [hingeFor(reaching.lattice, reaching.safeMm, wish)] : [];
  }).sort((a, b) => a.cutMm - b.cutMm);
  const [hinge] = hinges;
  const tightest = Math.min(...radii.map(({ safeMm }) => safeMm));
  const length = (mm: number): string => formatLength(Math.round(mm * 10) / 10, liked, 4);
  return {
    samples,
    strengths,
    radii: radii.map(({ cellIndex, breaksMm, safeMm }) => ({ cellIndex, breaksMm, safeMm })),
    hinges,
    missing: [],
    says: hinge
      ? `${plainNumber(wish.angleDeg)}° round ${length(wish.radiusMm)}: ${hinge.rows} ${hinge.lattice.pattern === 'rows' ? 'rows' : 'rows of crossed slits'} ${length(pitchOf(hinge.lattice))} apart, ${length(hinge.lengthMm)} long together. Such rows hold down to ${length(hinge.safeMm)} in 95 of 100.`
      : `No strip of this card bends to ${length(wish.radiusMm)} surely: ${length(tightest)} is the least. Longer slits or tighter rows bend further.`,
  };
}

/** A lattice as a hinge of the wished bend and width, with all that is to be cut of it. */
function hingeFor(lattice: CutLattice, safeMm: number, wish: HingeWish): ProposedHinge {
  const { rows, lengthMm } = rowsFor(wish, pitchOf(lattice));
  const slits = slitsIn(lattice, { x: 0, y: 0, width: wish.widthMm, height: lengthMm });
  const cutMm = slits.reduce((sum, [a, b]) => sum + Math.hypot(b!.x - a!.x, b!.y - a!.y), 0);
  return { lattice, rows, lengthMm, safeMm, cutMm };
}
