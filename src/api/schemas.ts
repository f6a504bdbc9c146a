import Joi from 'joi';
import { SHEET_FORMATS } from '../core/sheet/frame-sheet';
import { constantsSchema, number, positive, settingsSchema } from '../cards/plan-schemas';
import { CARD_KIND_NAMES, type CardKindName } from '../cards/registry';
import { CARD_SCHEMAS } from '../cards/schemas';
import { RUNG_IDS } from '../core/book/rungs';
import { COLUMN_MEANINGS } from '../core/book/settings-table';
import { SOURCE_WAVELENGTHS_NM, ZERO_PLACES, type SourceKind } from '../core/machine/machine';
import { OWN_SPEED_UNITS } from '../core/quantities/format';
import { BANNED_MATERIALS } from '../core/stock/banned';
import { FAMILIES } from '../core/stock/families';
import { DIARY_KIND_NAMES } from '../core/machine/diary';
import { OUTLINES } from '../core/stock/outline';

/** Schemas of what the endpoints take. Numbers must be numbers: "12" and NaN are refused. */
const text = (most: number): Joi.StringSchema => Joi.string().trim().max(most);
const name = text(60).required().label('name');
const id = Joi.number().integer().min(1).max(2147483647);

export const idParam = (param: string): Joi.ObjectSchema => Joi.object({ [param]: id.required() });

const sourceKinds = Object.keys(SOURCE_WAVELENGTHS_NM) as SourceKind[];

const wavelength = sourceKinds.reduce<Joi.AlternativesSchema | Joi.NumberSchema>((schema, kind) => {
  const [least, most] = SOURCE_WAVELENGTHS_NM[kind];
  return schema.when('sourceKind', {
    is: kind,
    then: number()
      .min(least)
      .max(most)
      .messages({
        'number.min': `A ${kind} source has ${least} to ${most} nm.`,
        'number.max': `A ${kind} source has ${least} to ${most} nm.`,
      }),
  });
}, number().required());

const ownSpeed = Joi.object({
  unit: Joi.valid(...OWN_SPEED_UNITS).required(),
  mmPerSPerUnit: positive(20000).required(),
});

const likedUnits = Joi.object({
  length: Joi.valid('mm', 'in').required(),
  speed: Joi.valid('mm/s', 'mm/min', 'own').required(),
  ownSpeed: ownSpeed.when('speed', {
    is: 'own',
    then: Joi.required(),
    otherwise: Joi.optional(),
  }),
  density: Joi.valid('mm', 'dpi', 'lines/cm').required(),
});

const powerTable = Joi.array()
  .items(Joi.object({ command: positive(1).required(), watts: number().min(0).max(2000).required() }))
  .min(2)
  .max(50)
  .custom((points: { command: number; watts: number }[], helpers) => {
    const ascending = points.every(
      (point, index) =>
        index === 0 || (point.command > points[index - 1]!.command && point.watts >= points[index - 1]!.watts),
    );
    return ascending ? points : helpers.error('any.ascending');
  })
  .messages({ 'any.ascending': 'Commands must rise from point to point, and watts must not fall.' });

const frequencies = Joi.object({
  least: positive(10_000).required(),
  most: positive(10_000)
    .min(Joi.ref('least'))
    .required()
    .messages({ 'number.min': 'The highest frequency is below the lowest.' }),
});

const galvoHead = Joi.object({
  jumpSpeedMmPerS: positive(50_000).required(),
  jumpDelayS: number().min(0).max(1).required(),
  markDelayS: number().min(0).max(1).required(),
  frequencyKHz: frequencies.allow(null).required(),
});

export const machineBody = Joi.object({
  name,
  head: Joi.valid('gantry', 'galvo').required(),
  galvo: Joi.when('head', { is: 'galvo', then: galvoHead.required(), otherwise: Joi.valid(null).required() }),
  zero: Joi.valid(...Object.keys(ZERO_PLACES)).required(),
  xPlus: Joi.valid('right', 'left').required(),
  yPlus: Joi.valid('away', 'toward').required(),
  sourceKind: Joi.valid(...sourceKinds).required(),
  wavelengthNm: wavelength,
  ratedPowerW: positive(2000).required(),
  lowestFiringCommand: number().min(0).less(1).required(),
  powerTable: powerTable.allow(null).required(),
  bedWidthMm: positive(10000).required(),
  bedDepthMm: positive(10000).required(),
  topSpeedXMmPerS: positive(20000).required(),
  topSpeedYMmPerS: positive(20000).required(),
  accelerationXMmPerS2: positive(1e6).required(),
  accelerationYMmPerS2: positive(1e6).required(),
  airAssist: Joi.valid('none', 'on-off', 'adjustable').required(),
  automaticFocus: Joi.boolean().strict().required(),
  rampPower: Joi.valid('follows-speed', 'constant').required(),
  addsRunUp: Joi.boolean().strict().required(),
  powerCap: positive(1)
    .greater(Joi.ref('lowestFiringCommand'))
    .required()
    .messages({ 'number.greater': 'The cap must be above the lowest firing command.' }),
  likedUnits: likedUnits.required(),
});

export const lensBody = Joi.object({
  name,
  focalLengthMm: positive(2000).required(),
  spotXMm: positive(5).required(),
  spotYMm: positive(5).required(),
  spotOrigin: Joi.valid('measured', 'computed').required(),
  fieldMm: positive(2000).allow(null).required(),
});

export const newMachineBody = Joi.object({ machine: machineBody.required(), lens: lensBody.required() });
export const lensChangeBody = Joi.object({ lens: lensBody.required(), retired: Joi.boolean().strict().required() });
export const retiredBody = Joi.object({ retired: Joi.boolean().strict().required() });

export const stockBody = Joi.object({
  name,
  family: Joi.valid(...FAMILIES.map((family) => family.id), ...BANNED_MATERIALS.map((material) => material.id))
    .required()
    .messages({
      'any.only': 'Unknown family. What is not known is not burned: choose its family, or record it as unknown.',
    }),
  type: text(60).allow('').required(),
  colour: Joi.string()
    .pattern(/^#[0-9a-f]{6}$/i)
    .required(),
  bareLightness: number().min(1).max(100).required(),
  coating: text(120).allow('').required(),
  coatingSide: Joi.valid('none', 'top', 'bottom', 'both').required(),
  adhesiveBacking: Joi.boolean().strict().required(),
  grain: Joi.valid('none', 'along-width', 'along-depth').required(),
  nominalThicknessMm: positive(500).required(),
  thicknessReadingsMm: Joi.array().items(positive(500)).max(50).required(),
  batch: text(60).allow('').required(),
  sheetWidthMm: positive(10000).required(),
  sheetDepthMm: positive(10000).required(),
  outline: Joi.object({
    shape: Joi.valid(...Object.keys(OUTLINES)).required(),
    radiusMm: number().min(0).max(5000).required(),
  }).required(),
  blanks: Joi.object({ count: number().integer().min(1).max(100_000).required() })
    .allow(null)
    .required(),
  acquiredOn: Joi.string()
    .pattern(/^\d{4}-\d{2}-\d{2}$/)
    .custom((day: string, helpers) => {
      const time = Date.parse(`${day}T00:00:00Z`);
      // 2026-02-31 would be read as a day in March.
      return !Number.isNaN(time) && new Date(time).toISOString().startsWith(day) ? day : helpers.error('any.day');
    })
    .allow(null)
    .required()
    .messages({
      'any.day': 'This is no day of the calendar.',
      'string.pattern.base': 'A day is written as 2026-02-28.',
    }),
});

export const pairingBody = Joi.object({ machineId: id.required(), lensId: id.required(), stockId: id.required() });

export const piecesBody = Joi.object({
  pieces: Joi.object({
    count: number().integer().min(1).max(1_000_000).required(),
    widthMm: positive(10000).required(),
    heightMm: positive(10000).required(),
  })
    .allow(null)
    .required(),
});

const kindName = Joi.valid(...CARD_KIND_NAMES);

/** A value whose schema is that of the kind named beside it. */
const byKind = (of: (name: CardKindName) => Joi.ObjectSchema): Joi.Schema =>
  Joi.when('kind', { switch: CARD_KIND_NAMES.map((name) => ({ is: name, then: of(name).required() })) });

export const kindParam = Joi.object({ pairingId: id.required(), kind: kindName.required() });

export const cardBody = Joi.object({
  pairingId: id.required(),
  kind: kindName.required(),
  plan: byKind((name) => CARD_SCHEMAS[name].plan).required(),
  sheetPlace: Joi.object({ xMm: number().min(0).max(10000).required(), yMm: number().min(0).max(10000).required() })
    .allow(null)
    .required(),
  piece: Joi.number().integer().min(1).max(100_000).allow(null).default(null),
  sheetOnBed: Joi.object({
    leftMm: number().min(0).max(10000).required(),
    rearMm: number().min(0).max(10000).required(),
  }).required(),
});

/** Seconds on a stopwatch. */
const tookS = number()
  .greater(0)
  .max(7 * 24 * 3600)
  .allow(null);

export const burnBody = Joi.object({
  cardId: id.required(),
  place: Joi.valid('bench', 'own-machine').required(),
  ticked: Joi.array().items(text(40)).max(40).required(),
  cells: Joi.array().items(number().integer().min(0).max(9999)).min(1).max(1000).allow(null).default(null),
  clock: Joi.boolean().strict().default(false),
  tookS: tookS.default(null),
}).when(Joi.object({ place: 'bench' }).unknown(), {
  then: Joi.object({ clock: Joi.valid(false), tookS: Joi.valid(null) }),
});

export const ownBurnEndBody = Joi.object({
  status: Joi.valid('done', 'stopped').default('done'),
  tookS: tookS.default(null),
});
export const zeroQuery = Joi.object({
  zero: Joi.valid(...Object.keys(ZERO_PLACES))
    .allow(null)
    .default(null),
});

export const roundBody = Joi.object({
  rungs: Joi.array()
    .items(Joi.valid(...RUNG_IDS))
    .unique()
    .min(1)
    .required(),
});
export const roundBurnBody = Joi.object({
  place: Joi.valid('bench', 'own-machine').required(),
  ticked: Joi.array().items(text(40)).max(40).required(),
  tookS: tookS.default(null),
}).when(Joi.object({ place: 'bench' }).unknown(), { then: Joi.object({ tookS: Joi.valid(null) }) });
export const burnTimeBody = Joi.object({ tookS: tookS.required() });

export const burnControlBody = Joi.object({
  action: Joi.valid('pause', 'resume', 'stop', 'proceed').required(),
  focusOffsetMm: number().min(-20).max(20).allow(null).default(null),
});

const photoPlace = Joi.object({
  x: number().min(0).max(100_000).required(),
  y: number().min(0).max(100_000).required(),
  radiusPx: positive(5000).required(),
});
export const matchBody = Joi.object({ place: photoPlace.required(), bare: photoPlace.allow(null).default(null) });

export const cornersBody = Joi.object({
  corners: Joi.array()
    .items(Joi.object({ x: number().required(), y: number().required() }))
    .length(4)
    .required(),
});

export const movePhotoBody = Joi.object({ cardId: id.required() });

/** Whether a photo counts in what its card is told by. */
export const countsBody = Joi.object({ counts: Joi.boolean().strict().required() });

export const answerBody = Joi.object({
  field: text(40).required(),
  cellIndex: number().integer().min(0).max(9999).allow(null).required(),
  repeat: number().integer().min(0).max(99).default(0),
  value: Joi.alternatives(number(), text(500)).allow(null).required(),
});

export const gaugeBody = Joi.object({
  field: text(40).required(),
  cellIndex: number().integer().min(0).max(9999).required(),
  repeat: number().integer().min(0).max(99).default(0),
});

/** Wish and choice are of the card's kind: they are checked where the card is known. */
export const findingBody = Joi.object({ wish: Joi.object().unknown().allow(null).default(null) });

export const keepBody = Joi.object({
  cardId: id.required(),
  wish: Joi.object().unknown().allow(null).default(null),
  choice: Joi.object().unknown().required(),
  note: text(1000).allow('').required(),
});

const shade = text(40).allow('').default('');
const note = text(1000).allow('').default('');

export const bringBody = Joi.object({
  settings: Joi.array()
    .items(Joi.object({ settings: settingsSchema.required(), shade, note }))
    .min(1)
    .max(500)
    .required(),
});

export const tableBody = Joi.object({
  text: Joi.string().max(500_000).required(),
  meanings: Joi.array()
    .items(Joi.valid(...Object.keys(COLUMN_MEANINGS)))
    .max(40)
    .allow(null)
    .default(null),
});

const oldAxis = (most: number) =>
  Joi.object({
    channel: Joi.valid('power', 'speed').required(),
    values: Joi.array().items(positive(most)).min(2).max(20).required(),
  });

export const adoptBody = Joi.object({
  pairingId: id.required(),
  old: Joi.object({
    across: oldAxis(20000).required(),
    down: oldAxis(20000).required(),
    cellMm: positive(1000).required(),
    gapMm: positive(1000).required(),
    constants: constantsSchema.required(),
  }).required(),
});

export const copyBody = Joi.object({ pairingId: id.required() });

export const favouriteBody = Joi.object({
  name,
  kind: kindName.required(),
  plan: byKind((of) => CARD_SCHEMAS[of].plan).required(),
});

export const favouritesQuery = Joi.object({ kind: kindName.allow(null).default(null) });
export const proveQuery = Joi.object({ prove: Joi.number().integer().min(1).allow(null).default(null) });

const page = Joi.number().integer().min(1).max(100_000).default(1);
export const pageQuery = Joi.object({ page });
export const bookQuery = Joi.object({ search: text(100).allow('').default(''), page });
export { id };

/** A frame sheet as it was printed: a ruler tells its rule to half a millimetre or better. */
export const frameSheetBody = Joi.object({
  name: name.description('what it is called, such as the printer and the day'),
  format: Joi.valid(...SHEET_FORMATS).required(),
  ruleMm: number().min(50).max(200).required().description('length of the printed rule of 100 mm, as measured'),
}).required();

/** What happened to a machine. */
export const diaryBody = Joi.object({
  at: Joi.string().isoDate().required(),
  kind: Joi.valid(...DIARY_KIND_NAMES).required(),
  note: text(500).allow('').required(),
  reading: Joi.object({ command: positive(1).required(), watts: number().min(0).max(2000).required() }).when('kind', {
    is: 'watts',
    then: Joi.required().messages({ 'object.base': 'Say what the meter showed, and at which power.' }),
    otherwise: Joi.valid(null).required().messages({ 'any.only': 'Only a measurement has watts.' }),
  }),
  // Who notes something else need not say that no card told it.
  share: Joi.when('kind', {
    is: 'inferred',
    then: positive(10).required().messages({ 'any.required': 'Say what it gives over what it gave before.' }),
    otherwise: Joi.valid(null).default(null).messages({ 'any.only': 'Only a card that was burned again tells that.' }),
  }),
});

export const struckBody = Joi.object({ struck: Joi.boolean().strict().required() });
