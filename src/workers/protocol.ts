import type { MessagePort } from 'node:worker_threads';
import type { BenchMachine, BenchPlace, BenchSheet, BurnedProgram, CardPart } from '../bench/bench';
import type { Box as CutBox, GaugeAnswer } from '../bench/gauges';
import type { BentFlap, SeenStitches } from '../bench/flap';
import type { Tapped } from '../bench/tap';
import type { TriedSlot } from '../bench/try-slot';
import type { PrintOrder } from '../bench/printed-sheet';
import type { BedPlace } from '../core/card/check';
import type { BasePlan, Pairing, PlanProblem } from '../core/card/contract';
import type { Estimate } from '../core/card/estimate';
import type { GaugeMeasure } from '../core/card/asks';
import type { Layout } from '../core/card/layout';
import type { Machine } from '../core/machine/machine';
import type { Pace } from '../core/motion/pace';
import type { WorkSetup } from '../core/card/work-setup';
import type { BurnScope } from '../core/card/path';
import type { Program } from '../formats/gcode';
import type { Homography } from '../core/geometry/homography';
import type { Point } from '../core/geometry/point';
import type { Backlit } from '../core/reading/backlit/observations';
import type { CellReading } from '../core/reading/observations';
import type { PhotoFault } from '../core/reading/photo-faults';
import type { ReadStep } from '../core/reading/read-card';
import type { MeasuredGreys } from '../core/reading/sheet/measure-greys';
import type { MeasuredSheets } from '../core/reading/sheet/sheet-tones';
import type { PhotoPlace, PlaceFault, ToneOfPlace } from '../core/reading/sheet/tone-of-place';
import type { Tones } from '../core/reading/tone/tones';
import type { ExposureRatio } from '../core/reading/tone/exposure';
import type { LitFrom } from '../records/photo';

/** Messages to and from the server's worker threads. Expected failures travel as data: error classes are lost on the way. */
export const PROTOCOL_VERSION = 22;

interface Versioned {
  readonly version: typeof PROTOCOL_VERSION;
}

/** Lays a plan under a number, checks it, and says how long it takes and how far the head reaches. */
export interface LayJob extends Versioned {
  readonly task: 'lay';
  readonly kind: string;
  readonly plan: BasePlan;
  readonly pairing: Pairing;
  readonly cardNumber: number;
  readonly pace: Pace;
}

export type LayAnswer =
  | { readonly laid: true; readonly layout: Layout; readonly estimate: Estimate }
  | { readonly laid: false; readonly problems: readonly PlanProblem[] };

/** The program of a card or a part of it, with how long it takes. */
export interface ProgramJob extends Versioned {
  readonly task: 'program';
  readonly layout: Layout;
  readonly pairing: Pairing;
  readonly bed: BedPlace;
  readonly scope: BurnScope | null;
  readonly pace: Pace;
}

export interface ProgramAnswer {
  readonly program: Program;
  readonly estimate: Estimate;
}

/** Works out a machine's pace from burns that were timed on it. */
export interface PaceJob extends Versioned {
  readonly task: 'pace';
  /** As it is recorded now. */
  readonly machine: Machine;
  readonly burns: readonly {
    readonly layout: Layout;
    /** As it was when the card was made: its run-up is in the file. */
    readonly machine: Machine;
    readonly scope: BurnScope | null;
    readonly tookS: number;
  }[];
}

export const EXPORT_FORMATS = ['svg', 'gcode', 'csv', 'png', 'zip', 'outline', 'outline-lit'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** A card as a file; its bytes come in chunks. */
export interface ExportJob extends Versioned {
  readonly task: 'export';
  readonly format: ExportFormat;
  readonly layout: Layout;
  readonly pairing: Pairing;
  readonly bed: BedPlace;
  readonly setup: WorkSetup;
}

export interface ExportAnswer {
  readonly chunks: number;
}

export interface ReadJob extends Versioned {
  readonly task: 'read';
  readonly bytes: Uint8Array;
  readonly layout: Layout;
  readonly stock: { readonly bareLightness: number; readonly colour: string };
  readonly corners: readonly Point[] | null;
  readonly litFrom: LitFrom;
  /** Whether its burned face can be seen through its sheet. */
  readonly seeThrough: boolean;
  readonly cameraIsTrue: boolean;
  /** The beam's 1/e² width at its focus. */
  readonly spot: { readonly xMm: number; readonly yMm: number };
  /** One more photo of the card by the same camera, exposed otherwise. */
  readonly second: (ExposureRatio & { readonly bytes: Uint8Array }) | null;
  /** Frame sheets that were measured, one of which may lie around the card. */
  readonly sheets: MeasuredSheets;
}

export interface ReadProgress {
  readonly step: ReadStep | 'opening';
}

export type ReadAnswer = {
  readonly previewJpeg: Uint8Array | null;
  readonly tookS: number;
} & (
  | {
      readonly outcome: 'read';
      readonly cells: readonly CellReading[];
      readonly toPhoto: Homography;
      readonly markers: number;
      readonly frameErrorMm: number;
      readonly photoPxPerMm: number;
      readonly alsoSeen: readonly number[];
      readonly tones: Tones;
      readonly faults: readonly PhotoFault[];
      /** Which station of the card it shows; null for cards of one piece. */
      readonly station: number | null;
      readonly straightenedJpeg: Uint8Array;
    }
  | (Backlit & {
      readonly outcome: 'read-through';
      readonly toPhoto: Homography;
      readonly markers: number;
      readonly frameErrorMm: number;
      readonly photoPxPerMm: number;
      readonly alsoSeen: readonly number[];
      readonly tones: Tones;
      readonly straightenedJpeg: Uint8Array;
    })
  | { readonly outcome: 'other-card'; readonly cardNumber: number }
  | { readonly outcome: 'several-cards'; readonly cardNumbers: readonly number[] }
  | { readonly outcome: 'needs-corners'; readonly markers: number }
  | { readonly outcome: 'unreadable'; readonly reason: string }
);

/** What the bench needs to burn a card's programs again. */
export interface BenchBurn {
  readonly programs: readonly BurnedProgram[];
  readonly machine: BenchMachine;
  readonly sheet: BenchSheet;
  readonly place: BenchPlace;
  readonly burnSeed: string;
  /** The station of it that is looked at; null for the whole card. */
  readonly part: CardPart | null;
  /** Whether soot was wiped off before anybody looked. */
  readonly wiped: boolean;
}

/** Looks for a frame sheet in a photo of a piece, and tells the tone of a place of the piece where one is named. */
export interface PlaceToneJob extends Versioned {
  readonly task: 'place-tone';
  readonly bytes: Uint8Array;
  readonly sheets: MeasuredSheets;
  readonly place: PhotoPlace | null;
  readonly bare: PhotoPlace | null;
}

export type PlaceToneAnswer =
  | { readonly fault: PlaceFault | 'damaged' }
  | {
      /** Upright. */
      readonly widthPx: number;
      readonly heightPx: number;
      /** Photo pixels for each millimetre in the middle of the sheet. */
      readonly pxPerMm: number;
      readonly previewJpeg: Uint8Array;
      readonly tone: ToneOfPlace | null;
    };

export interface PhotographJob extends Versioned {
  readonly task: 'photograph';
  readonly burn: BenchBurn;
  readonly shotSeed: string;
  /** Sides of the picture, as a share of the camera's own. */
  readonly scale: number;
  /** How many stops less light than the camera would give it, and held a little otherwise; 0 for the plain photo. */
  readonly stopsLess: number;
  /** What was printed on the sheet that the piece is laid on; null for the bare bench. */
  readonly onSheet: PrintOrder | null;
  readonly litFrom: LitFrom;
  /** Whether the piece was turned over: its back is seen. */
  readonly turned: boolean;
  /** Parts that were cut out: what has come loose of them is not laid on a light table. */
  readonly cutOut: readonly CutBox[];
}

/** Takes a photo of a printed sheet alone. */
export interface PhotographSheetJob
  extends Versioned, Omit<PhotographJob, 'task' | 'burn' | 'onSheet' | 'litFrom' | 'turned' | 'cutOut'> {
  readonly task: 'photograph-sheet';
  readonly order: PrintOrder;
}

/** Measures a frame sheet's greys from two photos of it in one light, one of them darker. */
export interface MeasureGreysJob extends Versioned {
  readonly task: 'measure-greys';
  readonly bytes: Uint8Array;
  readonly second: ExposureRatio & { readonly bytes: Uint8Array };
}

export type MeasureGreysAnswer = MeasuredGreys | { readonly fault: 'damaged' };

export interface PhotographAnswer {
  readonly jpeg: Uint8Array;
}

/** Sets a gauge of the bench on a part of the piece. */
export interface GaugeJob extends Versioned {
  readonly task: 'gauge';
  readonly burn: BenchBurn;
  readonly measures: GaugeMeasure;
  readonly box: CutBox;
  /** Which grip, counted from 0. */
  readonly turn: number;
}

/** Taps the sheet under parts of the piece. */
export interface TapJob extends Versioned {
  readonly task: 'tap';
  readonly burn: BenchBurn;
  readonly boxes: readonly CutBox[];
}

/** Looks after every pass of a part whether it has come loose. */
export interface CountPassesJob extends Versioned {
  readonly task: 'count-passes';
  readonly burn: BenchBurn;
  readonly box: CutBox;
}

/** After which pass it was loose, null where it is not yet; and how many it got. */
export interface CountPassesAnswer {
  readonly loose: number | null;
  readonly passes: number;
}

/** Pushes an offcut of the sheet into slots of the piece, or the part of it that a slot is for. */
export interface TrySlotsJob extends Versioned {
  readonly task: 'try-slots';
  readonly burn: BenchBurn;
  readonly boxes: readonly (CutBox & { readonly takes?: CutBox })[];
}

/** Holes or parts of one shape on a piece. */
interface CutMates {
  readonly burn: BenchBurn;
  readonly boxes: readonly CutBox[];
}

/** Puts parts into holes of the same piece or of another one; pairs by their places among the boxes. */
export interface TryMatesJob extends Versioned {
  readonly task: 'try-mates';
  readonly holes: CutMates;
  readonly parts: CutMates;
  readonly pairs: readonly { readonly hole: number; readonly part: number }[];
}

/** Bends flaps of the piece, and looks at dashes that are to look like stitches. */
export interface BendFlapsJob extends Versioned {
  readonly task: 'bend-flaps';
  readonly burn: BenchBurn;
  readonly flaps: readonly CutBox[];
  readonly stitches: readonly CutBox[];
}

export interface BendFlapsAnswer {
  readonly flaps: readonly BentFlap[];
  readonly stitches: readonly SeenStitches[];
}

/** Lays the piece on the bench's light table. */
export interface LightTableJob extends Versioned {
  readonly task: 'light-table';
  readonly burn: BenchBurn;
  /** What is tapped out of the sheet before, where it has come loose. */
  readonly cutOut: readonly CutBox[];
}

export interface LightTableAnswer {
  readonly png: Uint8Array;
}

export interface Jobs {
  readonly lay: { readonly job: LayJob; readonly answer: LayAnswer; readonly progress: never };
  readonly program: { readonly job: ProgramJob; readonly answer: ProgramAnswer; readonly progress: never };
  readonly export: { readonly job: ExportJob; readonly answer: ExportAnswer; readonly progress: Uint8Array };
  readonly pace: { readonly job: PaceJob; readonly answer: Pace; readonly progress: never };
  readonly read: { readonly job: ReadJob; readonly answer: ReadAnswer; readonly progress: ReadProgress };
  readonly gauge: { readonly job: GaugeJob; readonly answer: GaugeAnswer; readonly progress: never };
  readonly 'try-slots': { readonly job: TrySlotsJob; readonly answer: readonly TriedSlot[]; readonly progress: never };
  readonly 'try-mates': { readonly job: TryMatesJob; readonly answer: readonly TriedSlot[]; readonly progress: never };
  readonly 'bend-flaps': { readonly job: BendFlapsJob; readonly answer: BendFlapsAnswer; readonly progress: never };
  readonly 'count-passes': {
    readonly job: CountPassesJob;
    readonly answer: CountPassesAnswer;
    readonly progress: never;
  };
  readonly tap: { readonly job: TapJob; readonly answer: readonly Tapped[]; readonly progress: never };
  readonly 'light-table': { readonly job: LightTableJob; readonly answer: LightTableAnswer; readonly progress: never };
  readonly 'measure-greys': {
    readonly job: MeasureGreysJob;
    readonly answer: MeasureGreysAnswer;
    readonly progress: never;
  };
  readonly 'place-tone': { readonly job: PlaceToneJob; readonly answer: PlaceToneAnswer; readonly progress: never };
  readonly 'photograph-sheet': {
    readonly job: PhotographSheetJob;
    readonly answer: PhotographAnswer;
    readonly progress: never;
  };
  readonly photograph: { readonly job: PhotographJob; readonly answer: PhotographAnswer; readonly progress: never };
}

export type Task = keyof Jobs;
export type Job = Jobs[Task]['job'];

/** What a thread of the pool is given: a job, and where to say how far it has come. */
export interface WorkOrder {
  readonly job: Job;
  readonly progress: MessagePort;
}
