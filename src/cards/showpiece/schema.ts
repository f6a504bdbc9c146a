import Joi from 'joi';
import {
  chosenPictureSchema,
  cropSchema,
  planSchema,
  positive,
  settingsSchema,
  type KindSchemas,
} from '../plan-schemas';
import { SHOWPIECE_VERSION } from './plan';

export const showpieceSchemas: KindSchemas = {
  plan: planSchema(SHOWPIECE_VERSION, {
    drawing: chosenPictureSchema.required(),
    crop: cropSchema.required(),
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
