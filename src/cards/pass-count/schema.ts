import Joi from 'joi';
import { MOST_COUNTED } from '../../core/card/usual-asks';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { PASS_COUNT_VERSION } from './plan';

export const passCountSchemas: KindSchemas = {
  plan: planSchema(PASS_COUNT_VERSION, {
    sizeMm: positive(1000).required(),
    mostPasses: number().integer().min(2).max(MOST_COUNTED).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({
    certainty: number().min(0.8).max(0.995).required(),
    outlineMm: positive(100_000).allow(null).required(),
  }),
  choice: Joi.object({}),
};
