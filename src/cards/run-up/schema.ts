import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { RUN_UP_VERSION } from './plan';

const NOT_OF_BARS = ['runUpMm', 'lineAngleDeg', 'crossHatch'];

export const runUpSchemas: KindSchemas = {
  plan: planSchema(RUN_UP_VERSION, {
    runUp: axisSchema('anything').required(),
    repeats: number().integer().min(1).max(1000).required(),
    lengthMm: positive(1000).required(),
    barMm: positive(1000).required(),
    constants: settingsSchema.fork(NOT_OF_BARS, (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
