import Joi from 'joi';
import { flagSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { CUT_FOCUS_VERSION, MOST_REPEATS } from './plan';

export const cutFocusSchemas: KindSchemas = {
  plan: planSchema(CUT_FOCUS_VERSION, {
    steps: flagSchema().required(),
    repeats: number().integer().min(1).max(MOST_REPEATS).required(),
    sizeMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    thicknessMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
