import Joi from 'joi';
import { MOST_PLACES } from '../../core/picture/greys';
import { flagSchema, number, planSchema, positive, tonesSchema, type KindSchemas } from '../plan-schemas';
import { PICTURE_VERSION } from './plan';

const share = (): Joi.NumberSchema => number().min(0).max(1);
const side = (): Joi.NumberSchema => number().integer().min(1).max(MOST_PLACES);

export const pictureSchemas: KindSchemas = {
  plan: planSchema(PICTURE_VERSION, {
    ...tonesSchema,
    picture: Joi.object({
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
    negative: flagSchema().required(),
    wholeRange: flagSchema().required(),
    beside: flagSchema().required(),
    gapMm: positive(1000).required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
