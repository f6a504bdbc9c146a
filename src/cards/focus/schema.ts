import Joi from 'joi';
import { axisSchema, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { FOCUS_VERSION, FOCUS_WAYS } from './plan';

export const focusSchemas: KindSchemas = {
  plan: planSchema(FOCUS_VERSION, {
    focus: axisSchema('anything').required(),
    way: Joi.valid(...FOCUS_WAYS).required(),
    spacerMm: positive(100).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork('focusOffsetMm', (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
