import Joi from 'joi';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { MOST_STEPS, SCORE_VERSION } from './plan';

export const scoreSchemas: KindSchemas = {
  plan: planSchema(SCORE_VERSION, {
    dash: axisSchema('zero', MOST_STEPS).required(),
    skip: axisSchema('zero', MOST_STEPS).required(),
    scoreFrom: positive(1).required(),
    scoreTo: positive(1).required(),
    stitchFromMm: positive(1000).required(),
    stitchToMm: positive(1000).required(),
    flapWidthMm: positive(1000).required(),
    flapHeightMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    kerfMm: number().min(0).max(10).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({ want: Joi.valid('tear', 'fold', 'stitch').required() }),
  choice: Joi.object({}),
};
