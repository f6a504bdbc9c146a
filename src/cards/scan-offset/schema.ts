import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { SCAN_OFFSET_VERSION } from './plan';

const NOT_OF_BARS = ['speedMmPerS', 'passes', 'bothWays', 'lineAngleDeg', 'crossHatch'];

export const scanOffsetSchemas: KindSchemas = {
  plan: planSchema(SCAN_OFFSET_VERSION, {
    speed: axisSchema().required(),
    repeats: number().integer().min(1).max(1000).required(),
    barWidthMm: positive(1000).required(),
    barMm: positive(1000).required(),
    pitchMm: positive(1000).required(),
    constants: settingsSchema.fork(NOT_OF_BARS, (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
