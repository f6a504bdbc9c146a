import type { FactName, FactValues } from '../core/book/fact-values';
import { FACTS, isUnproven, type FactOrigin } from '../core/book/facts';
import { FIT_WORDS } from '../core/fit/fit-bounds';
import { conditionWords } from '../core/book/conditions';
import { leastThatHoldsWords, type LeastThatHolds } from '../core/book/least-that-holds';
import {
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  plainNumber,
  type LikedUnits,
} from '../core/quantities/format';
import { OF_FILLS } from '../core/card/plan-fields';
import { PLAIN_EXTRAS, type BurnSettings } from '../core/card/settings';
import type { FactRecord, FactVersionRecord } from '../records/fact';

type Value = string | number | boolean | null;

const FIELDS: Readonly<
  Record<keyof BurnSettings, readonly [name: string, words: (value: Value, liked: LikedUnits) => string]>
> = {
  powerFraction: ['Power', (value) => formatPower(Number(value))],
  speedMmPerS: ['Speed', (value, liked) => formatSpeed(Number(value), liked)],
  intervalMm: ['Line interval', (value, liked) => formatInterval(Number(value), liked)],
  passes: ['Passes', String],
  focusOffsetMm: [
    'Focus offset',
    (value, liked) => `${Number(value) > 0 ? '+' : ''}${formatLength(Number(value), liked)}`,
  ],
  air: ['Air', String],
  direction: ['Lines run', (value) => (value === 'horizontal' ? 'along X' : 'along Y')],
  bothWays: ['Burns', (value) => (value ? 'both ways' : 'one way')],
  runUpMm: ['Run-up', (value, liked) => (value === null ? 'as the speed needs' : formatLength(Number(value), liked))],
  scanOffsetMm: ['Scan offset', (value, liked) => formatLength(Number(value), liked)],
  lengthenMm: ['Longer dots', (value, liked) => formatLength(Number(value), liked)],
  lineAngleDeg: ['Lines turned', (value) => `${Number(value)}°`],
  crossHatch: ['Cross-hatched', (value) => (value ? 'yes' : 'no')],
  frequencyKHz: ['Frequency', (value) => (value === null ? 'as it is' : `${plainNumber(Number(value))} kHz`)],
};

/** What only some machines have is not shown where it says nothing. */
const isPlain = (field: keyof BurnSettings, settings: BurnSettings): boolean =>
  ['lengthenMm', 'lineAngleDeg', 'crossHatch', 'frequencyKHz'].includes(field) &&
  settings[field] === PLAIN_EXTRAS[field as keyof typeof PLAIN_EXTRAS];

/** Facts of what is followed, and has no lines beside each other. */
const isOfCuts = (name: FactName): boolean =>
  name === 'cut' || name === 'part' || name === 'passes' || name === 'score';

/** How light an engraving came out, and how sure that is. */
function lightnessRows(
  { lightness, lightnessSigma, confidence }: FactValues['engrave'],
  origin: FactOrigin,
): [label: string, value: string][] {
  const untold = isUnproven(origin) ? 'nothing was burned here' : 'not read: kept by eye';
  const told = (light: number): string =>
    `L* ${plainNumber(light, 3)} ± ${plainNumber(2 * (lightnessSigma ?? 0), 2)} (95 %)`;
  return [
    ['Lightness', lightness === null ? untold : told(lightness)],
    ...(confidence === null ? [] : [['Confidence', `${plainNumber(confidence * 100, 3)} %`] as [string, string]]),
  ];
}

/** How a picture came out that was burned so. */
const pictureRows = ({
  floorFraction,
  table,
  offL,
  strongest,
}: FactValues['photo']): [label: string, value: string][] => [
  ...(floorFraction > 0 ? [['Next to nothing', formatPower(floorFraction)] as [string, string]] : []),
  ['Tone table', table ? 'through it' : 'without one'],
  ['Black', `${plainNumber(strongest, 3)} L* from bare stock`],
  ['Off what was wanted', `${plainNumber(offL, 2)} L* rms`],
];

/** What held of a drawing that was burned so. */
const showpieceRows = (value: FactValues['showpiece'], liked: LikedUnits): [label: string, value: string][] => {
  const told = (least: LeastThatHolds | null): string => (least ? leastThatHoldsWords(least, liked) : 'not told');
  return [
    ['Lettering is legible', told(value.letteringMm)],
    ['Hairlines hold', told(value.hairlineMm)],
    ['Points hold', told(value.pointMm)],
  ];
};

/** What a cut drops, of which sheets. */
const cutRows = (value: FactValues['cut'], liked: LikedUnits): [label: string, value: string][] => {
  const { certainty, outlineMm, thicknessMm, laidDown, comesThrough, edge } = value;
  return [
    ['Drops', `${plainNumber(100 * certainty, 3)} of 100 parts with ${formatLength(outlineMm, liked, 3)} of outline`],
    ['Good for sheets of', `${formatLength(thicknessMm.from, liked, 3)} to ${formatLength(thicknessMm.to, liked, 3)}`],
    [
      'Lays down',
      `${plainNumber(laidDown, 3)} J/mm for each mm of thickness; sound stock comes through at ${plainNumber(comesThrough, 3)}`,
    ],
    ['Edge', edge ?? 'not looked at'],
  ];
};

/** How a drawing came out that was cut so. */
const partRows = (value: FactValues['part'], liked: LikedUnits): [label: string, value: string][] => [
  ['Kerf made up for', `X ${formatLength(value.kerf.xMm, liked, 3)}, Y ${formatLength(value.kerf.yMm, liked, 3)}`],
  [
    'Sizes off',
    `${formatLength(value.offMm, liked, 2)} rms; up to ${formatLength(value.expectedMm, liked, 2)} was expected`,
  ],
  ['In its slot', value.goes === null ? 'not tried' : FIT_WORDS[value.goes]],
];

/** A version's numbers in words, in the units the operator likes; with `plain` also those that only some machines have and that say nothing. */
export function factRows(
  fact: FactRecord,
  version: FactVersionRecord,
  liked: LikedUnits,
  plain = false,
): [label: string, value: string][] {
  const { value, sigma } = version;
  const definition = FACTS[fact.name];
  const rows: [string, string][] = [];
  if ('settings' in value) {
    for (const field of Object.keys(FIELDS) as (keyof BurnSettings)[]) {
      if (isOfCuts(fact.name) && OF_FILLS.some((one) => one === field)) continue;
      if (!plain && isPlain(field, value.settings)) continue;
      const [name, words] = FIELDS[field];
      rows.push([name, words(value.settings[field], liked)]);
    }
    if ('confidence' in value) rows.push(...lightnessRows(value, version.origin));
    else if ('offL' in value) rows.push(...pictureRows(value));
    else if ('laidDown' in value) rows.push(...cutRows(value, liked));
    else if ('skipMm' in value) rows.push([definition.title, definition.show(value as never, liked)]);
    else if ('dropped' in value) rows.push(['Dropped whole', `${value.dropped} of ${value.dropped}`]);
    else rows.push(...('goes' in value ? partRows(value, liked) : showpieceRows(value, liked)));
  } else {
    const show = definition.show as (value: unknown, liked: LikedUnits) => string;
    rows.push([definition.title, show(value, liked)]);
    rows.push(['How sure', sigma === null ? 'not known' : definition.sure(sigma, liked)]);
  }
  const { shade, ...at } = fact.at;
  if (shade !== undefined) rows.unshift(['Shade', String(shade)]);
  const measuredAt = conditionWords(at, liked);
  if (measuredAt !== '') rows.push(['Measured at', measuredAt]);
  return rows;
}

/**
 * What is told of a version otherwise than of the one before it, row by row: `['Power: 40 % → 45 %']`; nothing where their values are the
 * same, and that there is something where only numbers differ of which no row tells.
 */
export function changesBetween(
  fact: FactRecord,
  before: FactVersionRecord,
  after: FactVersionRecord,
  liked: LikedUnits,
): string[] {
  const then = new Map(factRows(fact, before, liked, true));
  const now = new Map(factRows(fact, after, liked, true));
  const told = (value: string | undefined): string => value ?? 'not told';
  const changes = [...new Set([...now.keys(), ...then.keys()])]
    .filter((label) => then.get(label) !== now.get(label))
    .map((label) => `${label}: ${told(then.get(label))} → ${told(now.get(label))}`);
  const isSame = JSON.stringify(before.value) === JSON.stringify(after.value);
  return changes.length > 0 || isSame ? changes : ['numbers that are not shown here'];
}
