import Joi from 'joi';
import { MOST_PLACES } from '../../core/picture/greys';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { SHOWPIECE_VERSION } from './plan';

const share = (): Joi.NumberSchema => number().min(0).max(1);
const side = (): Joi.NumberSchema => number().integer().min(1).max(MOST_PLACES);

export const showpieceSchemas: KindSchemas = {
  plan: planSchema(SHOWPIECE_VERSION, {
    drawing: Joi.object({
      name: Joi.string().trim().max(80).required(),
      columns: side().required(),
      rows: side().required(),
      data: Joi.string()
        .base64()
        .max(Math.ceil((4 * MOST_PLACES) / 3) + 4)
        .required(),
    }).required(),
    crop: Joi.object({
      left: share().required(),
      top: share().required(),
      width: positive(1).required(),
      height: positive(1).required(),
    }).required(),
    widthMm: positive(1000).required(),
    words: Joi.string().trim().max(80).required(),
    heights: Joi.object({
      smallMm: positive(1000).required(),
      middleMm: positive(1000).required(),
      largeMm: positive(1000).required(),
    }).required(),
    hairlineMm: positive(1000).required(),
    pointMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: settingsSchema.fork(['lineAngleDeg', 'crossHatch'], (schema) => schema.forbidden()).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
