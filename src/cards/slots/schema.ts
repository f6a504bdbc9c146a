import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { MOST_SLOTS, SLOTS_VERSION } from './plan';

export const slotsSchemas: KindSchemas = {
  plan: planSchema(SLOTS_VERSION, {
    thicknessMm: positive(1000).required(),
    coatMm: number().min(0).max(100).required(),
    clearance: axisSchema('anything', MOST_SLOTS).required(),
    lengthMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({
    fit: Joi.valid('press', 'snug', 'slip').required(),
    thicknessMm: positive(1000).allow(null).required(),
  }),
  choice: Joi.object({}),
};
