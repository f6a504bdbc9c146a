import Joi from 'joi';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { MOST_PASSES_TRIED, MOST_REPEATS, PASSES_VERSION } from './plan';

export const passesSchemas: KindSchemas = {
  plan: planSchema(PASSES_VERSION, {
    most: number().integer().min(2).max(MOST_PASSES_TRIED).required(),
    repeats: number().integer().min(1).max(MOST_REPEATS).required(),
    sizeMm: positive(1000).required(),
    tipDeg: positive(180).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
