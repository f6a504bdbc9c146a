import { aBSchemas } from './a-b/schema';
import { bedSchemas } from './bed/schema';
import { ceilingSchemas } from './ceiling/schema';
import { cutSchemas } from './cut/schema';
import { cutCheckSchemas } from './cut-check/schema';
import { cutFocusSchemas } from './cut-focus/schema';
import { focusSchemas } from './focus/schema';
import { gridSchemas } from './grid/schema';
import { hingeSchemas } from './hinge/schema';
import { intervalSchemas } from './interval/schema';
import { kerfSchemas } from './kerf/schema';
import { knobsSchemas } from './knobs/schema';
import { lineWidthSchemas } from './line-width/schema';
import { partSchemas } from './part/schema';
import { passCountSchemas } from './pass-count/schema';
import { passesSchemas } from './passes/schema';
import { pictureSchemas } from './picture/schema';
import type { KindSchemas } from './plan-schemas';
import type { CardKindName } from './registry';
import { runUpSchemas } from './run-up/schema';
import { scanOffsetSchemas } from './scan-offset/schema';
import { scoreSchemas } from './score/schema';
import { sheetCheckSchemas } from './sheet-check/schema';
import { showpieceSchemas } from './showpiece/schema';
import { slotsSchemas } from './slots/schema';
import { thresholdSchemas } from './threshold/schema';
import { toneSchemas } from './tone/schema';

/** Each kind's schemas, for the endpoints: a line for each kind. */
export const CARD_SCHEMAS = {
  grid: gridSchemas,
  'sheet-check': sheetCheckSchemas,
  'a-b': aBSchemas,
  threshold: thresholdSchemas,
  ceiling: ceilingSchemas,
  'line-width': lineWidthSchemas,
  interval: intervalSchemas,
  tone: toneSchemas,
  showpiece: showpieceSchemas,
  picture: pictureSchemas,
  focus: focusSchemas,
  'scan-offset': scanOffsetSchemas,
  'run-up': runUpSchemas,
  bed: bedSchemas,
  cut: cutSchemas,
  'cut-check': cutCheckSchemas,
  'cut-focus': cutFocusSchemas,
  'pass-count': passCountSchemas,
  passes: passesSchemas,
  kerf: kerfSchemas,
  slots: slotsSchemas,
  knobs: knobsSchemas,
  part: partSchemas,
  hinge: hingeSchemas,
  score: scoreSchemas,
} as const satisfies Record<CardKindName, KindSchemas>;
