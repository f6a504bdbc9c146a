export type BurnStatus = 'running' | 'paused' | 'done' | 'stopped' | 'interrupted';

export interface BurnRecord {
  readonly id: number;
  readonly cardId: number;
  readonly machineId: number;
  readonly place: 'bench' | 'own-machine';
  readonly status: BurnStatus;
  /** The cells that this burn is about; null for all of the card. */
  readonly cells: readonly number[] | null;
  readonly linesTotal: number;
  readonly linesDone: number;
  readonly seed: string;
  readonly cautions: readonly string[];
  readonly estimatedS: number;
  readonly actualS: number | null;
  readonly startedAt: string;
  readonly endedAt: string | null;
  /** What broke it off, in the bench’s words; null for burns that ended as they were meant to, or with the server. */
  readonly fault: string | null;
}

/** What a hand did at a stop of a burn. */
export interface HandRecord {
  /** Index of the program's line it waited at. */
  readonly line: number;
  readonly focusOffsetMm: number | null;
  /** How long the head stood there. */
  readonly seconds: number;
}

/** How far a burn has come, from the runner itself. */
export interface BurnProgress {
  readonly linesDone: number;
  readonly elapsedS: number;
  readonly paused: boolean;
  readonly headXMm: number;
  readonly headYMm: number;
  /** The part that burns now: "marker upper-left", "lettering"; empty before the first. */
  readonly part: string;
  /** The cells that burn now; none for other parts. */
  readonly cells: readonly number[];
  readonly cellsDone: readonly number[];
  /** What a hand is waited for; null while the head moves. */
  readonly hand: { readonly text: string; readonly focusOffsetMm: number | null } | null;
}

export interface BurnView extends BurnRecord {
  readonly progress: BurnProgress | null;
}

/** A burn in the logbook, with what came of its card. */
export interface LogRow {
  readonly burnId: number;
  readonly cardId: number;
  readonly cardCode: string;
  readonly cardKind: string;
  readonly machine: string;
  readonly stock: string;
  readonly place: 'bench' | 'own-machine';
  readonly status: BurnStatus;
  readonly cells: number | null;
  readonly estimatedS: number;
  readonly actualS: number | null;
  readonly startedAt: string;
  readonly photos: number;
  /** Cells of the newest reading that were marked; null when none was read. */
  readonly lowConfidenceCells: number | null;
}

/** What was spent on testing a pairing. */
export interface SpentOnTests {
  readonly cards: number;
  readonly seconds: number;
  readonly areaMm2: number;
}
