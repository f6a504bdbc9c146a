import type { FactDraft, FactNow } from '../book/facts';
import type { RungId } from '../book/rungs';
import type { Rect } from '../geometry/point';
import type { Ask, Seen } from './asks';
import type { Mates } from '../joint/mates';
import type { OldCard } from './old-card';
import type { Bound } from './bound';
import type { ChannelId, Levels } from './channels';
import type { Ease } from './ease';
import type { Cell, FrameSettings, Layout } from './layout';
import type { PlanField } from './plan-fields';
import type { Pairing } from './pairing';
import type { Air, BurnSettings } from './settings';
import type { Burn } from './shape';
import type { WorkSetup } from './work-setup';
import type { Tilt } from './tilt';

export type { Pairing };

/** What is known when a card is planned or judged. */
export interface Known {
  readonly pairing: Pairing;
  /** Newest version of each fact of the pairing, of its machine and lens, and of its stock. */
  readonly facts: readonly FactNow[];
}

/** What every plan has: the version it is stored under, and how its frame is burned. */
export interface BasePlan {
  readonly version: number;
  readonly frame: FrameSettings;
  /** How the sheet is made ready, held and looked at. */
  readonly setup: WorkSetup;
}

export interface BaseFinding {
  /** What is missing for an answer; empty when there is one. */
  readonly missing: readonly string[];
  /** The answer in one line. */
  readonly says: string;
}

/** A proposal: the plan and, for each value that was chosen, why. Keys are paths of the plan's fields, or `size`. */
export interface Proposal<Plan> {
  readonly plan: Plan;
  readonly reasons: Readonly<Record<string, string>>;
}

export interface PlanProblem {
  /** Path of the plan's field, "power.from". */
  readonly field: string;
  readonly message: string;
}

/** An axis editor at an edge of the drawn card. */
export interface EdgeAxis {
  readonly channel: ChannelId;
  readonly edge: 'below' | 'left';
  /** Where the plan holds the axis. */
  readonly path: string;
  readonly mostSteps: number;
  /** Whether its levels lie all over the card, and not in order along the edge. */
  readonly scattered?: boolean;
}

/** Lettering at an edge of the cells. */
export interface EdgeLabel {
  readonly text: string;
  /** What stands in the drawing's data; the text with its unit. */
  readonly means: string;
  readonly edge: 'above' | 'beside';
  /** The box it belongs to, in the drawing's millimetres. */
  readonly box: Rect;
}

/** What a kind draws: cells and what they share, in millimetres from the upper left of their own area. */
export interface Drawn {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cells: readonly Omit<Cell, 'index'>[];
  readonly before: readonly Burn[];
  readonly after: readonly Burn[];
  readonly labels: readonly EdgeLabel[];
  /** Whether every label is burned even on a card of few words: on one that is kept and used as a gauge. */
  readonly lettersAll?: boolean;
  /** What the labels mean: "POWER % ACROSS / SPEED MM/S DOWN". */
  readonly caption: string;
  /** The same in as few signs as can be: "% / MM/S". */
  readonly units: string;
  /** What is the same in every cell. */
  readonly constants: string;
  /** Cards that no photo answers need no markers. */
  readonly markers: 'four' | 'none';
  readonly air: Air;
  /** Cells by index that are to be crossed in one sweep, row by row; left out where each cell is filled by itself. */
  readonly rows?: readonly (readonly number[])[];
  /** Cell indexes in the order they must burn in; left out where risk and neighbourhood say it. */
  readonly order?: readonly number[];
  /** The board is tilted before it is burned, level with the set focus so far from the left edge of what is drawn; left out where it lies level. */
  readonly tilt?: Tilt;
  /** What the cells go together with; left out where they go together with nothing. */
  readonly mates?: Mates;
  /** Parts that stand apart on the bed and get a frame each; left out where one frame goes around all cells. */
  readonly stations?: readonly DrawnStation[];
}

/** A part of a drawing that gets a frame of its own. */
export interface DrawnStation {
  readonly name: string;
  readonly box: Rect;
  /** Cell indexes; each cell belongs to one station. */
  readonly cells: readonly number[];
}

/** What makes two layouts of one plan differ: the number the card was given. A card of stations has that many numbers, from this one on. */
export interface CardIdentity {
  readonly cardNumber: number;
}

/** What a burned card foretells of a wanted tone. */
export type MatchedTone =
  | {
      readonly outcome: 'found';
      readonly levels: Levels;
      readonly lightness: number;
      /** Standard uncertainty of what comes out. */
      readonly sigma: number;
      /** Seconds for a square of 100 mm. */
      readonly timeS: number;
    }
  /** No mark of this card is so dark, or so bright; or the card does not tell it surely enough. */
  | { readonly outcome: 'out-of-reach' | 'unsure' };

/** A search that adds one cell at a time names the next one, or says why it stops. */
export type NextCell =
  | { readonly go: true; readonly cell: Omit<Cell, 'index'>; readonly why: string }
  | { readonly go: false; readonly why: string };

/**
 * A kind of test card: a frozen definition of pure steps. Every step is deterministic. `find` never throws on poor data, it says what
 * is missing.
 */
export interface CardKind<Plan extends BasePlan, Wish, Finding extends BaseFinding, Choice> {
  /** Equals its folder's name. */
  readonly kind: string;
  readonly name: string;
  /** What it is for, in one line. */
  readonly purpose: string;
  /** Which question of the ladder it answers. */
  readonly rung: RungId;
  /** Whether it settles, by a small burn, if what the rung knows still holds: asked for where that is stale. */
  readonly renews?: boolean;
  /** Plans are stored with it; `upgrade` brings older ones up. */
  readonly version: number;
  /** The axis editors at the edges of the drawn card. */
  edges(plan: Plan): readonly EdgeAxis[];
  /** A plan after one of its fields was changed by hand, with what must change along with it; for kinds that have such fields. */
  follow?(plan: Plan, path: string, before: Plan, on: Pairing): Plan;
  readonly asks: readonly Ask[];
  /** Throws RangeError when the pairing cannot be burned like this at all, with the reason. */
  propose(known: Known): Proposal<Plan>;
  /** An old card of this kind, burned by other means, as a card of ours; for kinds that can be told by their edges. */
  adopt?(old: OldCard, on: Pairing, cardNumber: number): { readonly plan: Plan; readonly layout: Layout };
  /** A small card around a setting that nobody has burned here yet; for kinds that can prove one. */
  prove?(known: Known, settings: BurnSettings): Proposal<Plan>;
  /** A plan as it was stored under an older version. */
  upgrade(stored: object): Plan;
  check(plan: Plan, on: Pairing): PlanProblem[];
  /** What the planner offers beside the edges. */
  fields(plan: Plan, on: Pairing): readonly PlanField[];
  /** Expects a plan that `check` found no fault with. */
  draw(plan: Plan, on: Pairing): Drawn;
  /**
   * Upper bound of the work of everything that `draw` would draw, by arithmetic: nothing is drawn for it, so that no plan, however
   * large, can hold up whoever asks. Expects a plan that `check` found no fault with.
   */
  bound(plan: Plan, on: Pairing): Bound;
  /** What eases a plan that is too much work, the best way first. */
  readonly eases: readonly Ease[];
  /** For plans that search: the next cell, or why it stops. Null for plans that burn all their cells at once. */
  next?(layout: Layout, plan: Plan, seen: Seen, on: Pairing): NextCell | null;
  /** Which setting gives a tone, for kinds whose cards foretell between their cells. */
  matcher?(layout: Layout, seen: Seen, on: Pairing): (lightness: number) => MatchedTone;
  wish(on: Pairing): Wish;
  find(layout: Layout, seen: Seen, known: Known, wish: Wish): Finding;
  /** What goes into the book for a choice; empty when there is nothing to keep. */
  settle(finding: Finding, layout: Layout, seen: Seen, choice: Choice): readonly FactDraft[];
}

/** A plan that cannot be laid, with a message for each field at fault. */
export class PlanError extends Error {
  override readonly name = 'PlanError';
  constructor(readonly problems: readonly PlanProblem[]) {
    super(problems.map((problem) => `${problem.field}: ${problem.message}`).join('; '));
  }
}
