import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { THRESHOLD_VERSION } from './plan';

export const thresholdSchemas: KindSchemas = {
  plan: planSchema(THRESHOLD_VERSION, {
    way: Joi.valid('strip', 'search', 'firing').required(),
    power: axisSchema().required(),
    repeats: number().integer().min(1).max(100).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork('powerFraction', (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
