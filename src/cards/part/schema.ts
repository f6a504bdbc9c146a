import Joi from 'joi';
import { WANTED_FITS } from '../../core/fit/fit-bounds';
import { SCHOOLS } from '../../core/joint/clearance';
import { MOST_LINES, MOST_POINTS } from '../../core/part/drawing';
import { flagSchema, number, planSchema, positive, settingsSchema, type KindSchemas } from '../plan-schemas';
import { PART_VERSION } from './plan';

const place = (): Joi.NumberSchema => number().min(-10_000).max(10_000);

const lineSchema = Joi.object({
  closed: flagSchema().required(),
  at: Joi.array()
    .items(place())
    .min(4)
    .max(2 * MOST_POINTS)
    .custom((at: readonly number[], helpers) => (at.length % 2 === 0 ? at : helpers.error('any.invalid')))
    .required(),
});

export const partSchemas: KindSchemas = {
  plan: planSchema(PART_VERSION, {
    drawing: Joi.object({
      name: Joi.string().trim().max(80).required(),
      sizeSaidIn: Joi.valid('lengths', 'pixels').required(),
      lines: Joi.array().items(lineSchema).min(1).max(MOST_LINES).required(),
    }).required(),
    scale: positive(1000).required(),
    kerf: Joi.object({
      xMm: number().min(0).max(10).required(),
      yMm: number().min(0).max(10).required(),
      sigmaMm: number().min(0).max(10).allow(null).required(),
    }).required(),
    school: Joi.valid(...SCHOOLS).required(),
    clearanceMm: number().min(-10).max(10).required(),
    withSlot: flagSchema().required(),
    thicknessMm: positive(1000).required(),
    fit: Joi.valid(...WANTED_FITS).required(),
    slotFor: Joi.object(
      Object.fromEntries(WANTED_FITS.map((fit) => [fit, number().min(-10).max(10).required()])),
    ).required(),
    gapMm: positive(1000).required(),
    leadMm: number().min(0).max(100).required(),
    tabs: number().integer().min(0).max(100).required(),
    tabMm: positive(100).required(),
    cutsOpen: flagSchema().required(),
    cut: settingsSchema.required(),
  }),
  wish: Joi.object({}),
  choice: Joi.object({}),
};
