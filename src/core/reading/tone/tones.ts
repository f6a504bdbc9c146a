import type { SheetFormat } from '../../sheet/frame-sheet';
import type { SheetFault } from '../sheet/sheet-tones';

/**
 * What is known of how the camera stores tones: what a second exposure or a frame sheet told; or, from one photo or where they could not tell it, whether
 * the camera was found to be true to light before.
 */
export type Tones =
  | { readonly told: 'by-one-photo'; readonly cameraIsTrue: boolean }
  | { readonly told: 'by-two'; readonly bentBy: number }
  | { readonly told: 'by-sheet'; readonly bentBy: number; readonly format: SheetFormat }
  | { readonly told: 'not-told'; readonly cameraIsTrue: boolean; readonly why: 'not-found' | 'no-curve' | SheetFault };

/** Whether light can be told from stored tones: it was told by this photo or with it, or the camera was found true to light before. */
export const areKnown = (tones: Tones): boolean => 'bentBy' in tones || tones.cameraIsTrue;
