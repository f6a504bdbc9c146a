import Joi from 'joi';
import { AXIS_COUNTS } from '../../core/card/axis';
import {
  axisSchema,
  cellIndexSchema,
  flagSchema,
  number,
  planSchema,
  positive,
  settingsSchema,
  type KindSchemas,
} from '../plan-schemas';
import { GRID_CHANNELS } from './axes';
import { GRID_VERSION, MOST_REPEATS } from './plan';

/** Air counts from 0, and offsets go through it; what else is wrong with an end is said by the card's own check. */
const gridAxisSchema = axisSchema('anything', AXIS_COUNTS.most, 20_000).append({
  channel: Joi.valid(...GRID_CHANNELS).required(),
});

export const gridSchemas: KindSchemas = {
  plan: planSchema(GRID_VERSION, {
    across: gridAxisSchema.required(),
    down: gridAxisSchema.required(),
    repeats: number().integer().min(1).max(MOST_REPEATS).required(),
    placing: Joi.valid('ordered', 'scattered').required(),
    cellMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.required(),
    leaveOutFailing: flagSchema().required(),
    sweeps: Joi.valid('cells', 'rows').required(),
  }),
  wish: Joi.object({
    lightness: number().min(0).max(100).allow(null).default(null),
    powerCap: positive(1).default(1),
    pace: Joi.valid('fast-and-strong', 'slow-and-low').default('fast-and-strong'),
    cleared: flagSchema(),
    unevenness: number().greater(0).max(50).allow(null),
    clean: flagSchema(),
  }),
  choice: Joi.object({
    cellIndex: cellIndexSchema,
    at: Joi.object({ across: number().required(), down: number().required() }),
    shade: Joi.string().trim().max(40).allow('').default(''),
  }).xor('cellIndex', 'at'),
};
