import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { CEILING_VERSION } from './plan';

export const ceilingSchemas: KindSchemas = {
  plan: planSchema(CEILING_VERSION, {
    top: axisSchema().required(),
    floorFraction: number().min(0).less(1).required(),
    steps: number().integer().min(1).max(1000).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork(['powerFraction'], (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
