import Joi from 'joi';
import { planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { CUT_CHECK_VERSION } from './plan';

export const cutCheckSchemas: KindSchemas = {
  plan: planSchema(CUT_CHECK_VERSION, {
    shares: Joi.array().ordered(positive(1).required(), positive(1).required(), positive(1).required()).required(),
    sizeMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
