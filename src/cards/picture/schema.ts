import Joi from 'joi';
import {
  chosenPictureSchema,
  cropSchema,
  flagSchema,
  planSchema,
  positive,
  tonesSchema,
  type KindSchemas,
} from '../plan-schemas';
import { PICTURE_VERSION } from './plan';

export const pictureSchemas: KindSchemas = {
  plan: planSchema(PICTURE_VERSION, {
    ...tonesSchema,
    picture: chosenPictureSchema.required(),
    crop: cropSchema.required(),
    widthMm: positive(1000).required(),
    negative: flagSchema().required(),
    wholeRange: flagSchema().required(),
    beside: flagSchema().required(),
    gapMm: positive(1000).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
