import Joi from 'joi';
import {
  axisSchema,
  cellIndexSchema,
  constantsSchema,
  flagSchema,
  number,
  planSchema,
  positive,
  type KindSchemas,
} from '../plan-schemas';
import { GRID_VERSION } from './plan';

export const gridSchemas: KindSchemas = {
  plan: planSchema(GRID_VERSION, {
    power: axisSchema().required(),
    speed: axisSchema().required(),
    cellMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: constantsSchema.required(),
    leaveOutFailing: flagSchema().required(),
    sweeps: Joi.valid('cells', 'rows').required(),
  }),
  wish: Joi.object({
    lightness: number().min(0).max(100).allow(null).default(null),
    powerCap: positive(1).default(1),
    pace: Joi.valid('fast-and-strong', 'slow-and-low').default('fast-and-strong'),
    cleared: flagSchema(),
  }),
  choice: Joi.object({
    cellIndex: cellIndexSchema.required(),
    shade: Joi.string().trim().max(40).allow('').default(''),
  }),
};
