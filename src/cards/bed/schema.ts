import Joi from 'joi';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { BED_VERSION } from './plan';

const places = (): Joi.NumberSchema => number().integer().min(1).max(1000).required();

export const bedSchemas: KindSchemas = {
  plan: planSchema(BED_VERSION, {
    columns: places(),
    rows: places(),
    acrossMm: positive(10_000).required(),
    downMm: positive(10_000).required(),
    offsetMm: positive(1000).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork('focusOffsetMm', (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
