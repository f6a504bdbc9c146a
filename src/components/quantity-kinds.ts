import {
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  formatStopwatch,
  plainNumber,
  type LikedUnits,
} from '../core/quantities/format';
import {
  parseDuration,
  parseInterval,
  parseLength,
  parsePower,
  parseSpeed,
  QuantityError,
} from '../core/quantities/parse';
import { AIR_LEVELS, CHANNELS, type ChannelId } from '../core/card/channels';
import type { PlanField } from '../core/card/plan-fields';
import type { QuantityKind } from './QuantityField';

/** A bare number with an optional unit word that is dropped ("55 W", "450 nm"). */
const bare = (unit: string): QuantityKind => ({
  parse: (text) => {
    const typed = text.trim().replace(/,/g, '.');
    const hasUnit = unit !== '' && typed.toLowerCase().endsWith(unit.toLowerCase());
    const plain = hasUnit ? typed.slice(0, -unit.length).trim() : typed;
    const value = Number(plain);
    if (plain === '' || !Number.isFinite(value)) throw new QuantityError(`invalid number: "${text}"`);
    return value;
  },
  format: (value) => `${plainNumber(value, 6)} ${unit}`.trim(),
});

export interface QuantityKinds {
  readonly length: QuantityKind;
  readonly speed: QuantityKind;
  readonly power: QuantityKind;
  readonly interval: QuantityKind;
}

/** Fields in the units an operator likes; `ratedPowerW` lets power be typed in watts. */
export function quantityKinds(liked: LikedUnits, ratedPowerW?: number): QuantityKinds {
  return {
    length: { parse: (text) => parseLength(text, liked.length), format: (value) => formatLength(value, liked) },
    speed: {
      parse: (text) => parseSpeed(text, liked.speed, liked.ownSpeed),
      format: (value) => formatSpeed(value, liked),
    },
    power: { parse: (text) => parsePower(text, ratedPowerW), format: formatPower },
    interval: { parse: (text) => parseInterval(text, liked.density), format: (value) => formatInterval(value, liked) },
  };
}

export const WATTS = bare('W');
export const NANOMETRES = bare('nm');
export const DEGREES = bare('°');
export const KILOHERTZ = bare('kHz');
/** Seconds, typed and shown as milliseconds. */
export const MILLISECONDS: QuantityKind = {
  parse: (text) => bare('ms').parse(text) / 1000,
  format: (value) => bare('ms').format(Math.round(value * 1e6) / 1e3),
};
export const ACCELERATION = bare('mm/s²');
export const COUNT = bare('');
/** Seconds, typed as a stopwatch shows them. */
export const DURATION: QuantityKind = { parse: parseDuration, format: formatStopwatch };

/** A bare number with a unit of its own. */
export const numberWith = bare;
export const LIGHTNESS = bare('L*');

/** Air, typed and shown as a word. */
const AIR: QuantityKind = {
  parse: (text) => {
    const level = AIR_LEVELS.findIndex((word) => word === text.trim().toLowerCase());
    if (level < 0) throw new QuantityError(`invalid air: "${text}"; it is ${AIR_LEVELS.join(', ')}`);
    return level;
  },
  format: (level) => AIR_LEVELS[level] ?? '?',
};

/** How the levels of a channel are typed at an edge of a card. */
export function kindOfChannel(id: ChannelId, kinds: QuantityKinds): QuantityKind {
  const { as } = CHANNELS[id];
  if (as === 'count') return COUNT;
  if (as === 'air') return AIR;
  if (as === 'frequency') return KILOHERTZ;
  if (as === 'power' || as === 'speed' || as === 'interval') return kinds[as];
  return kinds.length;
}

/** Shares, typed and shown as per cent. */
const SHARE: QuantityKind = {
  parse: (text) => bare('%').parse(text) / 100,
  format: (value) => bare('%').format(Math.round(value * 1e6) / 1e4),
};

/** How a number of a plan is typed. */
export function kindOfField({ as, unit }: Pick<PlanField, 'as' | 'unit'>, kinds: QuantityKinds): QuantityKind {
  if (as === 'number') return bare(unit ?? '');
  if (as === 'share') return SHARE;
  if (as === 'count') return COUNT;
  if (as === 'power' || as === 'speed' || as === 'interval') return kinds[as];
  return kinds.length;
}
