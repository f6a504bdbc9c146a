import type { BaseFinding } from '../../src/core/card/contract';
import { aBObserver } from './a-b';
import { bedObserver } from './bed';
import { ceilingObserver } from './ceiling';
import { cutObserver } from './cut';
import { cutCheckObserver } from './cut-check';
import { cutFocusObserver } from './cut-focus';
import { focusObserver } from './focus';
import { gridObserver } from './grid';
import { hingeObserver } from './hinge';
import { intervalObserver } from './interval';
import { kerfObserver } from './kerf';
import { knobsObserver } from './knobs';
import { lineWidthObserver } from './line-width';
import type { Observer } from './observer';
import { partObserver } from './part';
import { passCountObserver } from './pass-count';
import { passesObserver } from './passes';
import { pictureObserver } from './picture';
import { runUpObserver } from './run-up';
import { scanOffsetObserver } from './scan-offset';
import { scoreObserver } from './score';
import { sheetCheckObserver } from './sheet-check';
import { showpieceObserver } from './showpiece';
import { slotsObserver } from './slots';
import { thresholdObserver } from './threshold';
import { toneObserver } from './tone';

/** For every kind of card one who looks at it: a kind without is not finished. */
const OBSERVERS: Readonly<Record<string, unknown>> = {
  'a-b': aBObserver,
  bed: bedObserver,
  ceiling: ceilingObserver,
  cut: cutObserver,
  'cut-check': cutCheckObserver,
  'cut-focus': cutFocusObserver,
  focus: focusObserver,
  grid: gridObserver,
  hinge: hingeObserver,
  interval: intervalObserver,
  kerf: kerfObserver,
  knobs: knobsObserver,
  'line-width': lineWidthObserver,
  part: partObserver,
  'pass-count': passCountObserver,
  passes: passesObserver,
  picture: pictureObserver,
  'run-up': runUpObserver,
  'scan-offset': scanOffsetObserver,
  score: scoreObserver,
  'sheet-check': sheetCheckObserver,
  showpiece: showpieceObserver,
  slots: slotsObserver,
  threshold: thresholdObserver,
  tone: toneObserver,
};

export function observerOf(kind: string): Observer<BaseFinding> {
  const observer = OBSERVERS[kind];
  if (observer === undefined) throw new Error(`nobody looks at cards of kind ${kind}`);
  return observer as Observer<BaseFinding>;
}
