import Joi from 'joi';
import { PATTERNS } from '../../core/hinge/lattice';
import { axisSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { HINGE_VERSION, MOST_SAMPLES } from './plan';

export const hingeSchemas: KindSchemas = {
  plan: planSchema(HINGE_VERSION, {
    pattern: Joi.valid(...PATTERNS, 'both').required(),
    pitch: axisSchema('zero', MOST_SAMPLES).required(),
    slitMm: positive(1000).required(),
    crossed: Joi.object({
      between: axisSchema('zero', MOST_SAMPLES).required(),
      slitMm: positive(1000).required(),
    }).required(),
    bridgeMm: positive(1000).required(),
    widthMm: positive(1000).required(),
    fieldMm: positive(1000).required(),
    holdMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    thicknessMm: positive(1000).required(),
    kerfMm: number().min(0).max(10).required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({
    radiusMm: positive(10_000).required(),
    angleDeg: positive(360).required(),
    widthMm: positive(10_000).required(),
  }),
  choice: Joi.object({}),
};
