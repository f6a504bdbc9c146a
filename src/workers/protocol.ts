import type { BenchMachine, BenchPlace, BenchSheet } from '../bench/bench';
import type { Layout } from '../core/card/layout';
import type { Point } from '../core/geometry/point';
import type { CellReading } from '../core/reading/observations';
import type { ReadStep } from '../core/reading/read-card';

/** Messages to and from the server's worker threads. Expected failures travel as data: error classes are lost on the way. */
export const PROTOCOL_VERSION = 1;

export interface ReadJob {
  readonly version: typeof PROTOCOL_VERSION;
  readonly task: 'read';
  readonly bytes: Uint8Array;
  readonly layout: Layout;
  readonly stock: { readonly bareLightness: number; readonly colour: string };
  readonly corners: readonly Point[] | null;
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
      readonly toPhoto: readonly number[];
      readonly markers: number;
      readonly frameErrorMm: number;
      readonly photoPxPerMm: number;
      readonly alsoSeen: readonly number[];
      readonly straightenedJpeg: Uint8Array;
    }
  | { readonly outcome: 'other-card'; readonly cardNumber: number }
  | { readonly outcome: 'several-cards'; readonly cardNumbers: readonly number[] }
  | { readonly outcome: 'needs-corners'; readonly markers: number }
  | { readonly outcome: 'unreadable'; readonly reason: string }
);

export interface PhotographJob {
  readonly version: typeof PROTOCOL_VERSION;
  readonly task: 'photograph';
  readonly program: string;
  readonly lines: number;
  readonly machine: BenchMachine;
  readonly sheet: BenchSheet;
  readonly place: BenchPlace;
  readonly burnSeed: string;
  readonly shotSeed: string;
}

export interface PhotographAnswer {
  readonly jpeg: Uint8Array;
}

export type Job = ReadJob | PhotographJob;
