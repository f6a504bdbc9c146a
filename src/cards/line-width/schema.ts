import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { LINE_WIDTH_VERSION } from './plan';

const NOT_OF_A_LINE = ['powerFraction', 'lineAngleDeg', 'crossHatch'];

export const lineWidthSchemas: KindSchemas = {
  plan: planSchema(LINE_WIDTH_VERSION, {
    power: axisSchema().required(),
    repeats: number().integer().min(1).max(1000).required(),
    lineMm: positive(1000).required(),
    pitchMm: positive(1000).required(),
    constants: settingsSchema.fork(NOT_OF_A_LINE, (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
