import Joi from 'joi';
import { KNOB_SHAPES } from '../../core/joint/knob';
import { number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { CUT_HERE, KNOBS_VERSION, MOST_MATES } from './plan';

const count = (): Joi.NumberSchema => number().integer().min(1).max(MOST_MATES);

export const knobsSchemas: KindSchemas = {
  plan: planSchema(KNOBS_VERSION, {
    shape: Joi.valid(...KNOB_SHAPES).required(),
    headMm: positive(1000).required(),
    holes: count().required(),
    parts: count().required(),
    fromMm: number().min(-10).max(10).required(),
    stepMm: positive(10).required(),
    cutHere: Joi.valid(...CUT_HERE).required(),
    otherStock: Joi.string().allow('').max(60).required(),
    otherKerfMm: number().min(0).max(10).required(),
    kerfMm: number().min(0).max(10).required(),
    gapMm: positive(1000).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({ fit: Joi.valid('press', 'snug', 'slip').required() }),
  choice: Joi.object({}),
};
