import Joi from 'joi';
import { TABLE_SIZE } from '../../core/fit/tone';
import { flagSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { PICTURE_MODES, TONE_VERSION } from './plan';

const share = (): Joi.NumberSchema => number().min(0).max(1);

export const toneSchemas: KindSchemas = {
  plan: planSchema(TONE_VERSION, {
    mode: Joi.valid(...PICTURE_MODES).required(),
    steps: number().integer().min(1).max(1000).required(),
    repeats: number().integer().min(1).max(100).required(),
    floorFraction: number().min(0).less(1).required(),
    topFraction: positive(1).required(),
    corrected: flagSchema().required(),
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
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema
      .fork(['powerFraction', 'lineAngleDeg', 'crossHatch'], (schema) => schema.forbidden())
      .required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
