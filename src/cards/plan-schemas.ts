import Joi from 'joi';
import { AXIS_COUNTS } from '../core/card/axis';
import { MARKER_CHOICES } from '../core/card/layout';
import { PLAIN_EXTRAS } from '../core/card/settings';
import { MOST_PLACES } from '../core/picture/greys';
import { PICTURE_MODES } from '../core/picture/mode';
import { TABLE_SIZE } from '../core/picture/tone-table';

/** Schemas of what plans are made of. Numbers must be numbers: "12" and NaN are refused. */
export const number = (): Joi.NumberSchema => Joi.number().strict().unsafe(false);
export const positive = (most: number): Joi.NumberSchema => number().greater(0).max(most);
const flag = (): Joi.BooleanSchema => Joi.boolean().strict();

export const axisSchema = (
  above: 'zero' | 'anything' = 'zero',
  mostSteps: number = AXIS_COUNTS.most,
  reach = 1000,
): Joi.ObjectSchema => {
  const end = above === 'zero' ? positive(1e6) : number().min(-reach).max(reach);
  return Joi.object({
    from: end.required(),
    to: end.required(),
    count: number().integer().min(AXIS_COUNTS.least).max(mostSteps).required(),
    spacing: Joi.valid('even', 'ratio').required(),
  });
};

const CONSTANTS = {
  intervalMm: positive(2).required(),
  passes: number().integer().min(1).max(20).required(),
  focusOffsetMm: number().min(-20).max(20).required(),
  air: Joi.valid('off', 'low', 'on').required(),
  direction: Joi.valid('horizontal', 'vertical').required(),
  bothWays: flag().required(),
  runUpMm: number().min(0).max(300).allow(null).required(),
  scanOffsetMm: number().min(-2).max(2).required(),
  // Settings that were kept before it was part of them have none.
  lengthenMm: number().min(-0.5).max(0.5).default(PLAIN_EXTRAS.lengthenMm),
  lineAngleDeg: number().min(0).less(90).required(),
  crossHatch: flag().required(),
  frequencyKHz: positive(10_000).allow(null).required(),
};

export const constantsSchema = Joi.object(CONSTANTS);

export const settingsSchema = Joi.object({
  powerFraction: positive(1).required(),
  speedMmPerS: positive(20000).required(),
  ...CONSTANTS,
});

const share = (): Joi.NumberSchema => number().min(0).max(1);

/** How greys are burned, and the table that corrects them. */
export const tonesSchema: Joi.SchemaMap = {
  mode: Joi.valid(...PICTURE_MODES).required(),
  floorFraction: number().min(0).less(1).required(),
  topFraction: positive(1).required(),
  corrected: flag().required(),
  table: Joi.object({
    mode: Joi.valid(...PICTURE_MODES).required(),
    floorFraction: share().required(),
    topFraction: share().required(),
    speedMmPerS: positive(20000).required(),
    intervalMm: positive(2).required(),
    passes: number().integer().min(1).max(20).required(),
    entries: Joi.array().items(share()).length(TABLE_SIZE).required(),
  })
    .allow(null)
    .required(),
  constants: settingsSchema
    .fork(['powerFraction', 'lineAngleDeg', 'crossHatch'], (schema) => schema.forbidden())
    .required(),
};

const side = (): Joi.NumberSchema => number().integer().min(1).max(MOST_PLACES);

/** A picture as it was chosen. */
export const chosenPictureSchema = Joi.object({
  name: Joi.string().trim().max(80).required(),
  columns: side().required(),
  rows: side().required(),
  data: Joi.string()
    .base64()
    .max(Math.ceil((4 * MOST_PLACES) / 3) + 4)
    .required(),
});

export const cropSchema = Joi.object({
  left: share().required(),
  top: share().required(),
  width: positive(1).required(),
  height: positive(1).required(),
});

export const frameSchema = Joi.object({
  marker: Joi.object({
    powerFraction: positive(1).required(),
    speedMmPerS: positive(20000).required(),
    intervalMm: positive(2).required(),
  }).required(),
  lettering: Joi.object({
    powerFraction: positive(1).required(),
    speedMmPerS: positive(20000).required(),
  }).required(),
  words: Joi.valid('short', 'full').required(),
  markers: Joi.valid(...MARKER_CHOICES),
});

const words = (): Joi.StringSchema => Joi.string().trim().max(80).allow('');

export const setupSchema = Joi.object({
  masked: flag().required(),
  wiped: flag().required(),
  dried: flag().required(),
  coatedWith: words().required(),
  support: Joi.valid('bed', 'honeycomb', 'pins', 'board').required(),
  heldBy: Joi.valid('nothing', 'magnets', 'clamps', 'tape').required(),
  focusSetBy: Joi.valid('not-said', 'spacer', 'automatic', 'ruler', 'trial').required(),
  airNozzle: words().required(),
  airPressureKPa: positive(2000).allow(null).required(),
  airFlowLPerMin: positive(2000).allow(null).required(),
  finish: Joi.valid('none', 'wiped', 'washed', 'brushed', 'sanded', 'stained').required(),
  lookedAt: Joi.valid('before', 'after', 'both').required(),
});

/** A plan of one version: what every plan has, and the kind's own fields. */
export const planSchema = (version: number, fields: Joi.SchemaMap): Joi.ObjectSchema =>
  Joi.object({
    version: Joi.valid(version).required(),
    frame: frameSchema.required(),
    setup: setupSchema.required(),
    ...fields,
  });

/** What a kind's plans, wishes and choices look like at the door. */
export interface KindSchemas {
  readonly plan: Joi.ObjectSchema;
  readonly wish: Joi.ObjectSchema;
  readonly choice: Joi.ObjectSchema;
}

export const flagSchema = flag;
export const cellIndexSchema = number().integer().min(0).max(9999);
