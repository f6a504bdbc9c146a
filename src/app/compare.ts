import { cardKind } from '../cards/registry';
import { levelWords } from '../core/card/channels';
import { lightnessOfLuminance, luminanceOfLightness } from '../core/color/lab';
import type { Known } from '../core/card/contract';
import { commonStrength, quickestAt, worthOf, type Worth } from '../core/book/compare';
import type { FactName } from '../core/book/fact-values';
import { FACT_NAMES, FACTS, factOf, factWords } from '../core/book/facts';
import { stalenessReasons } from '../core/book/staleness';
import type { Layout } from '../core/card/layout';
import { formatDuration, formatPower, formatSpeed, plainNumber } from '../core/quantities/format';
import { cardSummaries } from '../db/cards';
import { benchPage } from '../db/pairing-states';
import type { OpenPairing } from '../records/pairing';
import { cardAddress, factAddress } from './addresses';
import type { AppContext } from './context';
import { knownOf } from './known';
import { getPairing } from './pairings';
import { isProblem } from './problems';
import { seenCard } from './seen';

/** Pairings that fit beside each other. */
export const MOST_COMPARED = 4;
const BENCHES_OFFERED = 100;
const CARDS_LOOKED_AT = 20;

/** A number in words, where it leads, and whether it may hold no longer. */
export interface ComparedCell {
  readonly text: string;
  /** How sure; empty where nothing tells. */
  readonly sure?: string;
  readonly href?: string;
  readonly stale?: readonly string[];
}

export interface ComparedPairing {
  readonly pairing: OpenPairing;
  /** The newest card that was read and tells a range, with its photo. */
  readonly card: {
    readonly id: number;
    readonly code: string;
    readonly layout: Layout;
    readonly photoId: number;
  } | null;
  readonly worth: Worth | null;
}

export interface CompareView {
  readonly offered: readonly { readonly pairingId: number; readonly words: string; readonly chosen: boolean }[];
  readonly compared: readonly ComparedPairing[];
  /** L* from bare stock at which times are compared; null where no card tells. */
  readonly strength: number | null;
  /** What is compared, a row each, a cell for each pairing. */
  readonly rows: readonly { readonly title: string; readonly hint: string; readonly cells: readonly ComparedCell[] }[];
}

/** A tone to be matched: as L* with its standard uncertainty where that is known, and as a share of the light of bare stock. */
export interface WantedTone {
  readonly lightness: number | null;
  readonly sigma: number | null;
  readonly overBare: number | null;
}

export const NO_TONE: WantedTone = { lightness: null, sigma: null, overBare: null };
const NOTHING: ComparedCell = { text: 'not measured' };

async function comparedPairing(ctx: AppContext, pairingId: number): Promise<ComparedPairing> {
  const pairing = await getPairing(ctx, pairingId);
  const cards = await cardSummaries(ctx.db, pairingId, { limit: CARDS_LOOKED_AT, offset: 0 });
  for (const { id, code, kind, photoId } of cards) {
    // What a stock is worth is told by patches of so many settings that a tone between them can be foretold.
    if (photoId === null || !cardKind(kind).matcher) continue;
    const { card, reading, seen } = await seenCard(ctx, id);
    const worth = reading && worthOf(card.layout, seen);
    if (worth) return { pairing, card: { id, code, layout: card.layout, photoId: reading.photoId }, worth };
  }
  return { pairing, card: null, worth: null };
}

/** A row of what each pairing's card is worth. */
const worthRow = (
  title: string,
  hint: string,
  compared: readonly ComparedPairing[],
  words: (worth: Worth, of: ComparedPairing) => string,
): CompareView['rows'][number] => ({
  title,
  hint,
  cells: compared.map((one) =>
    one.worth && one.card ? { text: words(one.worth, one), href: `${cardAddress(one.card.id)}#look` } : NOTHING,
  ),
});

function worthRows(compared: readonly ComparedPairing[], strength: number | null): CompareView['rows'] {
  const lightness = (value: number): string => `${plainNumber(value, value < 10 ? 2 : 3)} L*`;
  const rows = [
    worthRow(
      'Strongest mark',
      'from bare stock, by its newest grid',
      compared,
      ({ strongest: { strength: most, sigma } }) => `${lightness(most)} ± ${plainNumber(2 * sigma, 2)}`,
    ),
    worthRow(
      'Tones for pictures',
      'that an eye tells apart between bare and strongest',
      compared,
      ({ tones }) => `about ${tones}`,
    ),
    worthRow('Unevenness', 'of one patch, middle of all', compared, ({ spread }) => lightness(spread)),
    worthRow('Beside a burn', 'smoke and residue around stronger patches', compared, ({ halo }) =>
      Math.abs(halo) < 1 ? 'clean' : `${lightness(Math.abs(halo))} ${halo < 0 ? 'darker' : 'brighter'}`,
    ),
  ];
  if (strength === null) return rows;
  const timeRow = worthRow(
    '10 × 10 cm at equal darkness',
    `quickest patch at least ${strength} L* from bare stock`,
    compared,
    (worth, { pairing: { machine } }) => {
      const quickest = quickestAt(worth, strength, machine);
      if (!quickest) return `no patch came so far`;
      const { settings } = quickest.patch;
      return `${formatDuration(quickest.timeS)} at ${formatPower(settings.powerFraction)}, ${formatSpeed(settings.speedMmPerS, machine.likedUnits)}`;
    },
  );
  return [...rows, timeRow];
}

const UNMATCHED = {
  'out-of-reach': 'out of its reach',
  unsure: 'not surely between its cells',
} as const;

type Matcher = (lightness: number) => ComparedCell;

/** What a tone asks of a pairing today: the place on the surface of its newest card that gives it, or why there is none. */
async function matcherFor(ctx: AppContext, { card, pairing }: ComparedPairing): Promise<Matcher> {
  if (!card) return () => NOTHING;
  const { seen, card: record } = await seenCard(ctx, card.id);
  const match = cardKind(record.kind).matcher!(record.layout, seen, record.madeFor);
  // A card of an older batch, or of before the source was changed, foretells what was, and says so.
  const stale = stalenessReasons(record.madeFor, pairing, FACTS.engrave.staleBy);
  return (lightness) => {
    const href = `${cardAddress(card.id)}?lightness=${plainNumber(lightness, 3)}#find`;
    const matched = match(lightness);
    if (matched.outcome !== 'found') return { text: UNMATCHED[matched.outcome], href, stale };
    return {
      text: `${levelWords(matched.levels, pairing.machine.likedUnits).join(', ')}, ${formatDuration(matched.timeS)}`,
      sure: `foretold: L* ${plainNumber(matched.lightness, 3)} ± ${plainNumber(2 * matched.sigma, 2)}`,
      href,
      stale,
    };
  };
}

/** Rows of the tone that is asked for, and of each tone that one of the pairings engraves in: what would match it on the others. */
async function matchRows(
  ctx: AppContext,
  compared: readonly ComparedPairing[],
  known: readonly Known[],
  wanted: WantedTone,
): Promise<CompareView['rows']> {
  type Tone = { title: string; hint: string; lightnessOn: (of: OpenPairing) => number };
  const kept = known.flatMap(({ facts, pairing }): Tone[] => {
    const lightness = factOf(facts, 'engrave')?.value.lightness ?? null;
    if (lightness === null) return [];
    const title = `To match ${pairing.stock.name} on ${pairing.machine.name}`;
    return [{ title, hint: `L* ${plainNumber(lightness, 3)}`, lightnessOn: () => lightness }];
  });
  const { lightness, sigma, overBare } = wanted;
  const asked: Tone[] = [];
  if (lightness !== null) {
    const give = sigma === null ? '' : ` ± ${plainNumber(2 * sigma, 2)}`;
    asked.push({
      title: 'To match a tone',
      hint: `L* ${plainNumber(lightness, 3)}${give}`,
      lightnessOn: () => lightness,
    });
  }
  if (overBare !== null)
    asked.push({
      title: 'To match it beside bare stock',
      hint: `${plainNumber(100 * overBare, 3)} % of the light of bare stock`,
      lightnessOn: ({ stock }) => lightnessOfLuminance(luminanceOfLightness(stock.bareLightness) * overBare),
    });
  const tones = [...asked, ...kept];
  if (tones.length === 0) return [];
  const matchers = await Promise.all(compared.map((one) => matcherFor(ctx, one)));
  return tones.map(({ title, hint, lightnessOn }) => ({
    title,
    hint: `${hint}, and 10 × 10 cm take`,
    cells: matchers.map((match, index) => match(lightnessOn(compared[index]!.pairing))),
  }));
}

/** Pairings side by side: what a card of each tells of its range, time at equal darkness, and what is known, each with where it leads. */
export async function compareView(
  ctx: AppContext,
  wanted: readonly number[],
  wantedStrength: number | null,
  tone: WantedTone = NO_TONE,
): Promise<CompareView> {
  const { rows: benches } = await benchPage(ctx.db, { limit: BENCHES_OFFERED, offset: 0 });
  const ids = [...new Set(wanted)].slice(0, MOST_COMPARED);
  // A bench that is no more is left out of an address that somebody kept.
  const gone = (error: unknown): [] => {
    if (isProblem(error) && error.code === 'not-found') return [];
    throw error;
  };
  const compared = (await Promise.all(ids.map((id) => comparedPairing(ctx, id).catch(gone)))).flat();
  const known = await Promise.all(compared.map(({ pairing }) => knownOf(ctx, pairing)));
  const strength = wantedStrength ?? commonStrength(compared.flatMap(({ worth }) => worth ?? []));
  const factRow = (name: FactName): CompareView['rows'][number] => ({
    title: FACTS[name].title,
    hint: 'newest in the book',
    cells: known.map(({ facts }, index): ComparedCell => {
      const fact = factOf(facts, name);
      if (!fact) return NOTHING;
      const liked = compared[index]!.pairing.machine.likedUnits;
      const sure = fact.sigma === null ? '' : FACTS[name].sure(fact.sigma, liked);
      return { text: factWords(fact, liked), sure, href: factAddress(fact.factId), stale: fact.stale };
    }),
  });
  const told = FACT_NAMES.filter((name) => known.some(({ facts }) => facts.some((fact) => fact.name === name)));
  return {
    offered: benches.map(({ pairingId, stock, machine, lens }) => ({
      pairingId,
      words: `${stock} on ${machine}, lens ${lens}`,
      chosen: ids.includes(pairingId),
    })),
    compared,
    strength,
    rows:
      compared.length === 0
        ? []
        : [...worthRows(compared, strength), ...(await matchRows(ctx, compared, known, tone)), ...told.map(factRow)],
  };
}
