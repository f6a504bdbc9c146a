import Joi from 'joi';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { A_B_VERSION, COMPARABLE } from './plan';

const words = (): Joi.StringSchema => Joi.string().trim().max(40).allow('');

export const aBSchemas: KindSchemas = {
  plan: planSchema(A_B_VERSION, {
    what: Joi.valid(...COMPARABLE, 'prepared', 'cleaned').required(),
    pairs: number().integer().min(1).max(1000).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.required(),
    other: settingsSchema
      .fork(['powerFraction', 'speedMmPerS', 'runUpMm', 'scanOffsetMm'], (field) => field.forbidden())
      .keys({ lengthenMm: Joi.forbidden() }),
    prepared: Joi.object({ a: words().required(), b: words().required() }).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
