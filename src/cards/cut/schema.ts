import Joi from 'joi';
import { axisSchema, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { CUT_VERSION, MOST_STEPS } from './plan';

export const cutSchemas: KindSchemas = {
  plan: planSchema(CUT_VERSION, {
    speed: axisSchema('zero', MOST_STEPS).required(),
    rows: axisSchema('zero', MOST_STEPS)
      .append({ channel: Joi.valid('power', 'passes').required() })
      .required(),
    sizeMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({
    want: Joi.valid('faster', 'cooler', 'cleaner').required(),
    edge: Joi.valid('any', 'brown', 'pale').required(),
    certainty: Joi.number().strict().min(0.8).max(0.995).required(),
    outlineMm: positive(100_000).allow(null).required(),
    knife: Joi.boolean().strict().required(),
  }),
  choice: Joi.object({}),
};
