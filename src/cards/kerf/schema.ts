import Joi from 'joi';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { KERF_VERSION } from './plan';

export const kerfSchemas: KindSchemas = {
  plan: planSchema(KERF_VERSION, {
    sizeMm: positive(1000).required(),
    smallMm: positive(1000).allow(null).required(),
    count: number().integer().min(1).max(100).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
