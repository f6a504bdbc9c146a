import Joi from 'joi';
import { number, planSchema, positive, tonesSchema, type KindSchemas } from '../plan-schemas';
import { TONE_VERSION } from './plan';

export const toneSchemas: KindSchemas = {
  plan: planSchema(TONE_VERSION, {
    ...tonesSchema,
    steps: number().integer().min(1).max(1000).required(),
    repeats: number().integer().min(1).max(100).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
