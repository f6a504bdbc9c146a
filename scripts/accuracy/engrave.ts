import { burnedCard, burnOnBench } from '../../stand-ins/burn';
import { factNow } from '../../stand-ins/facts';
import { observerOf } from '../../stand-ins/observers';
import type { Burned } from '../../stand-ins/observers/observer';
import { photographed } from '../../stand-ins/observers/photographed';
import { trueLightness } from '../../stand-ins/true-lightness';
import type { FactNow } from '../../src/core/book/facts';
import { grid } from '../../src/cards/grid';
import { cardKind, type CardKindName } from '../../src/cards/registry';
import { tone } from '../../src/cards/tone';
import { STRAIGHT_L } from '../../src/cards/tone/find';
import { rayleighRangeMm } from '../../src/core/beam/gaussian';
import { USUAL_BEAM } from '../../src/core/beam/usual-beam';
import type { BaseFinding, Pairing } from '../../src/core/card/contract';
import { mainBurn, type Layout } from '../../src/core/card/layout';
import { estimateCard } from '../../src/core/card/estimate';
import { layCard } from '../../src/core/card/lay';
import { quantile } from '../../src/core/stats/robust';
import { inParts, seedsOfCommit } from './in-parts';
import { MARKED_FAMILIES } from './made-up-sheet';
import { madeUpPairingOfAnyFamily } from './stocks';
import { figuresTold, noAnswer, NO_STRAIGHTER, type FigureWords, type Told } from './told';

interface Figure extends FigureWords {
  readonly kind: CardKindName;
  /** What the finding says; the middle of what it claims where that is left out. */
  readonly told?: (finding: BaseFinding) => readonly number[];
  readonly allowed: (truth: number, on: Pairing) => number;
  /** Answers whose 95 % range is wider to either side than this are no answers. */
  readonly surest?: number;
  /** Which of the observer's looks; the first where left out. */
  readonly look?: number;
  /** Which of the observer's truths; all of them where left out. */
  readonly part?: number;
  /** Whether the card is burned once more, as it is proposed when what the first one found was kept. */
  readonly again?: boolean;
}

const field =
  (name: string) =>
  (finding: BaseFinding): readonly number[] => [(finding as unknown as Record<string, number>)[name]!];

const FIGURES: readonly Figure[] = [
  {
    name: 'threshold, 50 % point (a strip, and a closer one)',
    again: true,
    target: 'within 0.5 % of full power or 5 % of itself',
    kind: 'threshold',
    unit: '% of full power',
    digits: 2,
    told: (finding) => [(finding as unknown as { half: { power: number } | null }).half?.power ?? NaN],
    allowed: (truth) => Math.max(0.005, 0.05 * truth),
  },
  {
    name: 'ceiling',
    target: 'within 10 % of itself',
    kind: 'ceiling',
    unit: '% of full power',
    digits: 2,
    told: field('ceiling'),
    allowed: (truth) => 0.1 * truth,
  },
  {
    name: 'interval (strips, and closer ones)',
    again: true,
    target: 'within a step of 10 DPI or 5 % of the coarsest that looks even',
    kind: 'interval',
    unit: 'mm',
    digits: 4,
    told: field('intervalMm'),
    allowed: (truth) => Math.max(0.05 * truth, 25.4 / (25.4 / truth - 10) - truth),
  },
  {
    name: 'line width (of lines told to 0.02 mm)',
    target: 'within 0.01 mm',
    surest: 0.02,
    kind: 'line-width',
    unit: 'mm',
    digits: 4,
    allowed: () => 0.01,
  },
  {
    name: 'focus, waist (by photo)',
    look: 4,
    target: 'within 0.25 mm or a quarter of the Rayleigh range',
    kind: 'focus',
    unit: 'mm',
    digits: 3,
    told: field('waistMm'),
    allowed: (_truth, { lens, machine }) =>
      Math.max(
        0.25,
        rayleighRangeMm(lens.spotYMm, machine.wavelengthNm / 1e6, USUAL_BEAM[machine.sourceKind].beamQuality) / 4,
      ),
  },
  {
    name: 'scan offset at the fastest',
    target: 'within 0.02 mm',
    kind: 'scan-offset',
    part: 0,
    unit: 'mm',
    digits: 4,
    allowed: () => 0.02,
  },
  {
    name: 'length of a dot at the fastest, against rest',
    target: 'within 0.01 mm',
    kind: 'scan-offset',
    part: 1,
    unit: 'mm',
    digits: 4,
    allowed: () => 0.01,
  },
  {
    name: 'bed, height of its corners about the middle',
    target: 'no figure asked: within 0.1 mm',
    kind: 'bed',
    unit: 'mm',
    digits: 3,
    allowed: () => 0.1,
  },
  {
    name: 'run-up, least sound',
    target: 'no figure asked: within 1 mm',
    kind: 'run-up',
    unit: 'mm',
    digits: 3,
    allowed: () => 1,
  },
  {
    name: 'A against B, difference',
    target: 'no figure asked: within 1 L*',
    kind: 'a-b',
    unit: 'L*',
    digits: 2,
    allowed: () => 1,
  },
  {
    name: 'sheet check, tone of the setting',
    target: 'no figure asked: within 1 L*',
    kind: 'sheet-check',
    unit: 'L*',
    digits: 2,
    allowed: () => 1,
  },
];

/** Two figures take two cards each: what the first foretells is burned with the second. */
const WEDGE = 'corrected wedge';
const SURFACE = 'place between a grid’s cells';
const PAIRED: readonly FigureWords[] = [
  { name: WEDGE, target: 'straight to 2.5 L*, root mean square', unit: 'L*', digits: 2 },
  { name: SURFACE, target: 'no figure asked: within 2 L* on another piece', unit: 'L*', digits: 2 },
];

/** Burns the card that is proposed with what is known, looks at it, and finds. */
function burnedAndFound(
  { kind: name, look = 1 }: Figure,
  pairing: Pairing,
  facts: readonly FactNow[],
  seed: string,
  turn: number,
): [Burned, BaseFinding] {
  const kind = cardKind(name);
  const observer = observerOf(name);
  const known = { pairing, facts };
  const layout = layCard(kind, kind.propose(known).plan, pairing, { cardNumber: 5 });
  const burned = burnedCard(layout, pairing, `${seed} ${turn}`);
  const wish = observer.wish?.(burned, seed) ?? kind.wish(pairing);
  const seen = observer.seeAll?.(burned) ?? observer.look(burned, `${seed} ${turn} look ${look}`);
  return [burned, kind.find(layout, seen, known, wish)];
}

/** Burns, looks, finds: one told for each number of the truth. */
function cardOf(figure: Figure, seed: string, turn: number): Told[] {
  const pairing = madeUpPairingOfAnyFamily(seed, turn);
  const kind = cardKind(figure.kind);
  const observer = observerOf(figure.kind);
  const known = { pairing, facts: observer.facts?.(pairing) ?? [] };
  const card = { figure: figure.name, seed, stock: pairing.stock.name };
  try {
    let [burned, finding] = burnedAndFound(figure, pairing, known.facts, seed, turn);
    if (finding.missing.length > 0) return [noAnswer(card, finding.missing[0]!)];
    if (figure.again) {
      const kept = kind.settle(finding, burned.layout, { readings: [], answers: [] }, {});
      const facts = kept.map(({ name, at, value, sigma }) => factNow(name, value, { at, sigma }));
      [burned, finding] = burnedAndFound(figure, pairing, [...known.facts, ...facts], `${seed} again`, turn);
      if (finding.missing.length > 0) return [noAnswer(card, `second card: ${finding.missing[0]!}`)];
    }
    const truths = observer.truth(burned, finding);
    const claims = observer.claims(finding);
    const told = figure.told?.(finding) ?? claims.map(([low, high]) => (low + high) / 2);
    return truths.flatMap((truth, at) => {
      if (!Number.isFinite(truth) || (figure.part !== undefined && figure.part !== at)) return [];
      const [low, high] = claims[at]!;
      const value = told[at]!;
      if (!Number.isFinite(value)) return [noAnswer(card, 'no number')];
      const bounded = Number.isFinite(low) && Number.isFinite(high);
      if (bounded && (high - low) / 2 > (figure.surest ?? Infinity)) return [noAnswer(card, 'not sure enough')];
      return [
        {
          ...card,
          off: value - truth,
          allowed: figure.allowed(truth, pairing),
          held: bounded ? low <= truth && truth <= high : null,
          half: bounded ? (high - low) / 2 : null,
          why: '',
        },
      ];
    });
  } catch (error) {
    return [noAnswer(card, (error as Error).message)];
  }
}

/** A wedge, its table, and a wedge burned through it: how far that one is from straight in truth. */
function wedgeOf(seed: string, turn: number): Told {
  const pairing = madeUpPairingOfAnyFamily(seed, turn);
  const card = { figure: WEDGE, seed, stock: pairing.stock.name };
  try {
    const first = layCard(tone, tone.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 5 });
    const burn = (layout: typeof first, name: string): Burned => burnedCard(layout, pairing, name);
    const seen = photographed(burn(first, `${seed} ${turn}`), `${seed} ${turn}`);
    const finding = tone.find(first, seen, { pairing, facts: [] });
    const [draft] = tone.settle(finding, first);
    if (!draft) return noAnswer(card, finding.missing[0] ?? 'nothing to keep');
    if (finding.leftL! > STRAIGHT_L) return noAnswer(card, NO_STRAIGHTER);
    const facts = [factNow('tone', draft.value, { at: draft.at })];
    const layout = layCard(tone, tone.propose({ pairing, facts }).plan, pairing, { cardNumber: 6 });
    const { piece } = burn(layout, `${seed} ${turn} proof`);
    const greys = [...new Set(layout.cells.map(({ levels }) => Number(levels.grey)))];
    const strengths = greys.map((grey) => {
      const own = layout.cells.filter(({ levels }) => levels.grey === grey);
      const mean = own.reduce((sum, { index }) => sum + trueLightness(piece, layout, pairing, index), 0) / own.length;
      return Math.abs(mean - pairing.stock.bareLightness);
    });
    const darkest = strengths[greys.indexOf(Math.max(...greys))]!;
    const off = Math.sqrt(
      strengths.reduce((sum, one, at) => sum + (one - greys[at]! * darkest) ** 2, 0) / greys.length,
    );
    return { ...card, off, allowed: 2.5, held: null, half: null, why: '' };
  } catch (error) {
    return noAnswer(card, (error as Error).message);
  }
}

/** A grid, the place that its surface proposes, and what another piece is like that is burned there. */
function placeOf(seed: string, turn: number): Told {
  const pairing = madeUpPairingOfAnyFamily(seed, turn);
  const card = { figure: SURFACE, seed, stock: pairing.stock.name };
  try {
    const layout = layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 5 });
    const name = `${seed} ${turn}`;
    const seen = photographed({ layout, pairing, seed: name, piece: burnOnBench(layout, pairing, name) }, name);
    const finding = grid.find(layout, seen, { pairing, facts: [] }, grid.wish(pairing));
    const place = finding.surface?.foretold;
    if (!place)
      return noAnswer(card, finding.missing[0] ?? (finding.surface?.trusted ? 'no place' : 'surface not trusted'));
    const [draft] = grid.settle(finding, layout, seen, { at: place });
    if (draft?.name !== 'engrave') return noAnswer(card, 'nothing to keep');
    const { plan } = grid.prove({ pairing, facts: [] }, draft.value.settings);
    const proof = layCard(grid, plan, pairing, { cardNumber: 6 });
    const burned = burnOnBench(proof, pairing, `${name} proof`);
    // The cell that has the very settings; at the cap it is not the middle one.
    const { powerFraction, speedMmPerS } = draft.value.settings;
    const cell = proof.cells.find(
      (one) =>
        Math.abs(mainBurn(one).settings.powerFraction / powerFraction - 1) < 1e-3 &&
        Math.abs(mainBurn(one).settings.speedMmPerS / speedMmPerS - 1) < 1e-2,
    );
    if (!cell) return noAnswer(card, 'not on its proof');
    const off = place.lightness - trueLightness(burned, proof, pairing, cell.index);
    return {
      ...card,
      off,
      allowed: 2,
      held: Math.abs(off) <= 2 * place.sigma,
      half: 2 * place.sigma,
      why: '',
    };
  } catch (error) {
    return noAnswer(card, (error as Error).message);
  }
}

/** A cell's worth of the two ways to a tone: what the setting that each proposes gives on another piece, and what its card took. */
interface TwoWays {
  readonly guided: { readonly off: number; readonly minutes: number };
  readonly full: { readonly off: number; readonly minutes: number };
}

/** The tone wanted lies so far from bare stock to the strongest cell of the smaller card. */
const WANTED_SHARE = 0.6;
/** Cells along each edge. */
const SMALL = 5;
const FULL = 10;

/** Twenty-five cells and the surface through them, against a hundred cells of which the nearest is taken. */
function twoWaysOf(seed: string, turn: number): TwoWays | null {
  const pairing = madeUpPairingOfAnyFamily(seed, turn);
  const { bareLightness: bare } = pairing.stock;
  try {
    const { plan } = grid.propose({ pairing, facts: [] });
    const laid = (count: number) =>
      layCard(
        grid,
        {
          ...plan,
          across: { ...plan.across, count },
          down: { ...plan.down, count },
          sweeps: 'cells',
          cellMm: 4,
          gapMm: 1,
        },
        pairing,
        { cardNumber: 5 },
      );
    const read = (layout: Layout, name: string) =>
      photographed({ layout, pairing, seed: name, piece: burnOnBench(layout, pairing, name) }, name);
    const [small, full] = [laid(SMALL), laid(FULL)];
    const seen = read(small, `${seed} ${turn} small`);
    const strongest = seen.readings.reduce(
      (best, { deltaLightness }) => (Math.abs(deltaLightness) > Math.abs(best) ? deltaLightness : best),
      0,
    );
    const wanted = bare + WANTED_SHARE * strongest;
    const wish = { ...grid.wish(pairing), lightness: wanted };
    const place = grid.find(small, seen, { pairing, facts: [] }, wish).surface?.foretold;
    const nearest = [...read(full, `${seed} ${turn} full`).readings].sort(
      (a, b) => Math.abs(a.lightness - wanted) - Math.abs(b.lightness - wanted),
    )[0];
    if (!place || !nearest) return null;
    const offOf = (powerFraction: number, speedMmPerS: number): number => {
      const settings = { ...plan.constants, powerFraction, speedMmPerS };
      const proof = layCard(grid, grid.prove({ pairing, facts: [] }, settings).plan, pairing, { cardNumber: 6 });
      const piece = burnOnBench(proof, pairing, `${seed} ${turn} proof`);
      const cell = [...proof.cells].sort((a, b) => apart(a) - apart(b))[0]!;
      function apart(one: (typeof proof.cells)[number]): number {
        const own = mainBurn(one).settings;
        return (
          Math.abs(Math.log(own.powerFraction / powerFraction)) + Math.abs(Math.log(own.speedMmPerS / speedMmPerS))
        );
      }
      return trueLightness(piece, proof, pairing, cell.index) - wanted;
    };
    const minutes = (layout: Layout): number => estimateCard(layout, pairing.machine).totalS / 60;
    const chosen = mainBurn(full.cells[nearest.cellIndex]!).settings;
    return {
      guided: { off: offOf(place.across, place.down), minutes: minutes(small) },
      full: { off: offOf(chosen.powerFraction, chosen.speedMmPerS), minutes: minutes(full) },
    };
  } catch {
    return null;
  }
}

const ALL: readonly FigureWords[] = [...FIGURES, ...PAIRED];

/** Works out the cards of a part of all turns, and writes what each came to on a line. */
export function engravePart(seed: string, part: number, parts: number, stocks: number): void {
  const say = (told: readonly Told[]): void => {
    for (const one of told) process.stdout.write(`${JSON.stringify(one)}\n`);
  };
  for (let turn = part; turn < stocks; turn += parts) {
    for (const figure of FIGURES) say(cardOf(figure, seed, turn));
    say([wedgeOf(seed, turn), placeOf(seed, turn)]);
    process.stdout.write(`${JSON.stringify({ ways: twoWaysOf(seed, turn) })}\n`);
  }
}

async function tellAll(seeds: readonly string[], stocks: number): Promise<{ told: Told[]; ways: TwoWays[] }> {
  const told: Told[] = [];
  const ways: TwoWays[] = [];
  await inParts<Told | { readonly ways: TwoWays | null }>('engrave-part', seeds, stocks, (one) => {
    if (!('ways' in one)) told.push(one);
    else if (one.ways) ways.push(one.ways);
  });
  return { told, ways };
}

/** What is known of why targets are missed; to be changed with the figures. */
const MISSED = `What is missed, and why: the threshold's 50 % point is the eye's own, whose doubt of 0.3 L* is spread over the steps of a closer strip; where tone rises
slowly with power that is wider than what is wanted, and where a source already marks at the least command that fires there is no point to be told. The interval that one pair of
eyes finds is compared with the mean of many, which differ by a seventh in contrast. Lines of beams of 0.05 mm are two pixels of a photo wide: what the camera blurs is told by edges
of fills, and where the lines of these can be seen, they look sharper than they are. A ceiling that the cap does not reach is not told. Run-ups are told by ends that are uneven by
little more than grain. Corrected wedges of softwood that are further off than 2.5 L* have a patch or two of their proof on a knot (6 to 12 L* there); the table itself holds
where none lies. What a place between a grid's cells gives is held against another piece, which differs from the first by more than a photo of that can tell. Photos that were not read are
of light stone and solid surface under a blue diode, which hardly marks them, markers and all (three stocks looked at). An answer that is not given is no miss, but it is counted.`;

/** The section of the report on the engrave side of the ladder, over so many made-up stocks for each of three seeds. */
export async function engraveReport(stocks: number): Promise<string> {
  const seeds = seedsOfCommit();
  const { told, ways } = await tellAll(seeds, stocks);
  const middle = (values: readonly number[]): string => (values.length > 0 ? quantile(values, 0.5).toFixed(2) : '–');
  const most = (values: readonly number[]): string => (values.length > 0 ? quantile(values, 0.95).toFixed(2) : '–');
  const wayRow = (name: string, of: (one: TwoWays) => TwoWays['guided']): string => {
    const sizes = ways.map((one) => Math.abs(of(one).off));
    return `| ${name} | ${middle(sizes)} | ${most(sizes)} | ${middle(ways.map((one) => of(one).minutes))} |`;
  };
  return `## The engrave side of the ladder

${stocks} made-up stocks for each of three seeds (${seeds.join(', ')}), spread over all ${MARKED_FAMILIES.length} families that a machine of the workshop marks, with sources up to a
third weaker or stronger, other spots, paler and darker stock. Each proposed card is burned on the simulated bench, looked at by \`stand-ins/observers\` (an eye with its own doubt,
or a photo by the bench's camera), and found; truth comes from the bench's piece and never by way of the finding's code. "Held" is how often the
95 % range has it.

${figuresTold(ALL, told, seeds, MISSED)}

**Cells needed.** A tone six tenths of the way from bare stock to the strongest cell is wanted: ${SMALL * SMALL} cells and the surface through them, against ${FULL * FULL}
cells over the same ends of which the one nearest to the tone is taken; what each setting gives on another piece, over ${ways.length} stocks.

| way | median L* off | 95 % | minutes of burning, median |
|---|---|---|---|
${wayRow(`${SMALL * SMALL} cells and the surface`, ({ guided }) => guided)}
${wayRow(`${FULL * FULL} cells`, ({ full }) => full)}
`;
}
