import type { LadderRung, NextStep } from '../core/book/ladder';
import type { RungId } from '../core/book/rungs';
import type { Pieces } from '../core/book/worth';
import type { BaseFinding, BasePlan, Known, NextCell, Proposal } from '../core/card/contract';
import type { Answer } from '../core/card/asks';
import type { Caution } from '../core/stock/cautions';
import type { FactName, FactValues } from '../core/book/fact-values';
import type { ColumnMeaning, TableRow } from '../core/book/settings-table';
import type { BurnSettings } from '../core/card/settings';
import type { BurnRecord, SpentOnTests } from '../records/burn';
import type { CardRecord, CardSummary, RoundCard, SheetOnBed, UsedArea } from '../records/card';
import type { BenchRow, OpenPairing } from '../records/pairing';
import type { FavouriteRecord } from '../records/favourite';
import type { MachineRecord } from '../records/machine';
import type { MatchPhoto } from '../records/match-photo';
import type { PhotoView, ReadingRecord, ShownPhoto, ThroughRecord } from '../records/photo';
import type { StockRecord } from '../records/stock';

/** What the screens are given: plain data, whole, one object a screen. */

export interface Page<Row> {
  readonly rows: readonly Row[];
  readonly total: number;
  readonly limit: number;
  readonly offset: number;
}

/** Everything the bench of a pairing shows. */
export interface BenchView {
  readonly pairing: OpenPairing;
  readonly ladder: readonly LadderRung[];
  readonly next: NextStep;
  readonly cards: readonly CardSummary[];
  /** What was kept from each card, in words, newest first: the story of the pairing. */
  readonly keptWords: Readonly<Record<number, readonly string[]>>;
  readonly usedAreas: readonly UsedArea[];
  readonly spent: SpentOnTests;
  /** What the stock is for; null where nobody said. */
  readonly pieces: Pieces | null;
  /** Whether the next card is worth what it costs before these pieces; empty where that cannot be said. */
  readonly worth: string;
  /** How many of the rungs that wait for a card may share a burn. */
  readonly together: number;
  /** The newest card that was read, for its photo. */
  readonly newest: { readonly card: CardRecord; readonly shown: readonly ShownPhoto[] } | null;
}

/** Fits of slots that were kept, for the workshop's sums. */
export type KeptFits = readonly {
  readonly factId: number;
  readonly stock: string;
  readonly machine: string;
  readonly value: FactValues['fit'];
  /** Why it may hold no longer. */
  readonly stale: readonly string[];
}[];

/** Fits of holes and parts that were kept, for the workshop's sums. */
export type KeptJoints = readonly {
  readonly factId: number;
  /** And what the other half is of, where that is another. */
  readonly stock: string;
  readonly machine: string;
  readonly value: FactValues['mating'];
  /** Why it may hold no longer. */
  readonly stale: readonly string[];
}[];

/** Kerfs that were kept, one for each axis that was measured, for the workshop's sums. */
export type Kerfs = readonly {
  readonly factId: number;
  readonly axis: 'X' | 'Y';
  readonly stock: string;
  readonly machine: string;
  readonly kerfMm: number;
  readonly sigmaMm: number | null;
  /** Why it may hold no longer. */
  readonly stale: readonly string[];
}[];

/** Everything the planner of one kind of card shows. */
export interface PlanView {
  readonly kind: string;
  readonly pairing: OpenPairing;
  readonly known: Known;
  readonly ladder: readonly LadderRung[];
  readonly proposal: Proposal<BasePlan>;
  readonly usedAreas: readonly UsedArea[];
  readonly sheetOnBed: SheetOnBed;
  /** The newest card of this kind on this pairing, for what was used until now. */
  readonly before: { readonly plan: BasePlan; readonly code: string } | null;
  /** Plans of this kind that were kept, whatever they were first burned on. */
  readonly favourites: readonly FavouriteRecord[];
}

/** A card that can be burned in one go with others. */
export interface RoundOffer {
  readonly rung: RungId;
  readonly question: string;
  readonly kind: string;
  readonly name: string;
  readonly seconds: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Everything the page shows on which cards are put together that are burned in one go. */
export interface RoundView {
  readonly pairing: OpenPairing;
  readonly ladder: readonly LadderRung[];
  readonly offers: readonly RoundOffer[];
  /** Rungs that wait for a card of their own, and why. */
  readonly others: readonly { readonly name: string; readonly why: string }[];
  readonly usedAreas: readonly UsedArea[];
}

/** The cards that a card was made with, itself among them. */
export interface RoundOfCard {
  readonly id: number;
  readonly cards: readonly RoundCard[];
  /** The check before all of them that are not burned yet. */
  readonly cautions: readonly Caution[];
}

/** Everything the page of one card shows. */
export interface CardView {
  readonly card: CardRecord;
  readonly pairing: OpenPairing;
  readonly known: Known;
  readonly ladder: readonly LadderRung[];
  readonly cautions: readonly Caution[];
  readonly burns: readonly BurnRecord[];
  readonly photos: readonly PhotoView[];
  readonly reading: ReadingRecord | null;
  /** What it showed before it was cleaned or finished, where `reading` is of after that. */
  readonly before: ReadingRecord | null;
  /** What a light table shows of it. */
  readonly through: ThroughRecord | null;
  readonly answers: readonly Answer[];
  /** What was kept from it, newest first. */
  readonly kept: readonly KeptFact[];
  /** Cells that were burned, whatever the burn. */
  readonly burnedCells: readonly number[];
  /** What a search would burn next, or why it stopped; null for cards that do not search. */
  readonly search: NextCell | null;
  /** Why each cell that a search added was asked for. */
  readonly whys: Readonly<Record<number, string>>;
  /** The cards that it was made with, to be burned in one go; null for a card by itself. */
  readonly round: RoundOfCard | null;
}

export interface KeptFact {
  readonly factId: number;
  readonly name: FactName;
  readonly version: number;
  readonly cellIndex: number | null;
}

/** The benches that were opened, and what new ones can be made of. */
export interface BenchListView {
  readonly benches: Page<BenchRow & { readonly ladder: readonly LadderRung[]; readonly next: NextStep }>;
  readonly machines: readonly MachineRecord[];
  readonly stocks: readonly StockRecord[];
}

/** What settings brought along from elsewhere start from. */
export interface BringView {
  readonly pairing: OpenPairing;
  /** A plain fill of this bench, for what is not told. */
  readonly usual: BurnSettings;
  readonly shades: readonly string[];
}

/** What a table of settings would bring along, by what its columns mean. */
export interface TablePreview {
  readonly columns: readonly {
    readonly title: string;
    readonly means: ColumnMeaning;
    readonly samples: readonly string[];
  }[];
  readonly rows: readonly TableRow[];
}

/** A finding as it is shown and sent: what a kind found, and nothing of how. */
export type AnyFinding = BaseFinding & Readonly<Record<string, unknown>>;

/** What the page starts from on which the tone of a piece is matched. */
export interface MatchView {
  readonly photos: readonly MatchPhoto[];
  /** What the bench burned, to be photographed as a piece. */
  readonly pieces: readonly { readonly id: number; readonly words: string }[];
}
