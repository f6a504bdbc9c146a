import Joi from 'joi';
import { axisSchema, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { INTERVAL_VERSION } from './plan';

export const intervalSchemas: KindSchemas = {
  plan: planSchema(INTERVAL_VERSION, {
    interval: axisSchema().required(),
    stripWidthMm: positive(1000).required(),
    stripHeightMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork('intervalMm', (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
