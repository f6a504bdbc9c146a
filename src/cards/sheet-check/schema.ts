import Joi from 'joi';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { SHEET_CHECK_VERSION } from './plan';

export const sheetCheckSchemas: KindSchemas = {
  plan: planSchema(SHEET_CHECK_VERSION, {
    stepFraction: number().greater(0).less(1).required(),
    patchMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
