import type { SheetGreys } from '../core/reading/sheet/sheet-greys';
import type { SheetFormat } from '../core/sheet/frame-sheet';

/** A frame sheet as somebody printed it. */
export interface FrameSheetRecord {
  readonly id: number;
  readonly name: string;
  readonly format: SheetFormat;
  /** How long its rule of 100 mm came out. */
  readonly ruleMm: number;
  /** What its greys send back, with how far greys of one step scatter, as a share; null until two photos told it. */
  readonly greys: SheetGreys | null;
  readonly scatter: number | null;
  readonly measuredAt: string | null;
  readonly createdAt: string;
  /** Photos of it that are kept until its greys are measured. */
  readonly photos: number;
}
