import {
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  plainNumber,
  type LikedUnits,
} from '../quantities/format';
import type { Air } from './settings';

export interface Channel {
  readonly name: string;
  /** How a level is typed and shown. */
  readonly as: 'power' | 'speed' | 'interval' | 'length' | 'offset' | 'count' | 'air' | 'frequency' | 'word';
  /** A level with its unit, as the operator likes to read it. */
  readonly show: (level: number, liked: LikedUnits) => string;
}

export const signed = (mm: number): string => `${mm > 0 ? '+' : ''}${plainNumber(mm)}`;
const plus = (level: number): string => (level > 0 ? '+' : '');

/** Air by level, as an axis counts it. */
export const AIR_LEVELS = ['off', 'low', 'on'] as const satisfies readonly Air[];

/** Everything that may vary from cell to cell on a card. */
export const CHANNELS = {
  place: { name: 'Place on the bed', as: 'word', show: String },
  part: { name: 'Part', as: 'word', show: String },
  power: { name: 'Power', as: 'power', show: (level) => formatPower(level) },
  top: { name: 'Wedge up to', as: 'power', show: (level) => `wedge up to ${formatPower(level)}` },
  grey: { name: 'Grey', as: 'power', show: (level) => `${formatPower(level)} grey` },
  burnedAs: { name: 'Burned as', as: 'power', show: (level) => `burned as ${formatPower(level)}` },
  speed: { name: 'Speed', as: 'speed', show: formatSpeed },
  interval: { name: 'Line interval', as: 'interval', show: formatInterval },
  focus: {
    name: 'Focus offset',
    as: 'offset',
    show: (level, liked) => `${plus(level)}${formatLength(level, liked, 3)}`,
  },
  passes: { name: 'Passes', as: 'count', show: (count) => (count === 1 ? '1 pass' : `${count} passes`) },
  air: { name: 'Air', as: 'air', show: (level) => `air ${AIR_LEVELS[level] ?? '?'}` },
  frequency: { name: 'Frequency', as: 'frequency', show: (level) => `${plainNumber(level)} kHz` },
  runUp: { name: 'Run-up', as: 'length', show: (level, liked) => formatLength(level, liked, 3) },
  clearance: {
    name: 'Clearance',
    as: 'offset',
    show: (level, liked) => `${plus(level)}${formatLength(level, liked, 3)}`,
  },
  tighter: {
    name: 'Tighter a side',
    as: 'offset',
    show: (level, liked) => `${plus(level)}${formatLength(level, liked, 3)}`,
  },
  dash: { name: 'Dash', as: 'length', show: (level, liked) => formatLength(level, liked, 3) },
  skip: { name: 'Skip', as: 'length', show: (level, liked) => formatLength(level, liked, 3) },
  stitch: { name: 'Stitch', as: 'length', show: (level, liked) => `stitch ${formatLength(level, liked, 3)}` },
  score: { name: 'Scored', as: 'power', show: (level) => `scored at ${formatPower(level)}` },
  pitch: { name: 'Pitch', as: 'length', show: (level, liked) => formatLength(level, liked, 3) },
  size: { name: 'Size', as: 'length', show: formatLength },
  table: { name: 'Table', as: 'word', show: String },
  either: { name: 'Compared', as: 'word', show: String },
  side: { name: 'Cut', as: 'word', show: String },
} as const satisfies Readonly<Record<string, Channel>>;

export type ChannelId = keyof typeof CHANNELS;

/** What a cell stands for: a level of each channel that varies, in the channel's own unit. */
export type Levels = Readonly<Partial<Record<ChannelId, number | string>>>;

/** What a cell stands for, in words: "35 %, 120 mm/s". */
export function levelWords(levels: Levels, liked: LikedUnits): string[] {
  return (Object.keys(CHANNELS) as ChannelId[]).flatMap((id) => {
    const level = levels[id];
    if (level === undefined) return [];
    return [typeof level === 'string' ? level : CHANNELS[id].show(level, liked)];
  });
}

/**
 * A level for the lettering on a card: the bare number in the operator's unit, which the caption names, and the words of both together.
 *
 * letterOf('speed', 60, { ...DEFAULT_LIKED_UNITS, speed: 'mm/min' }) -> { text: '3600', unit: 'mm/min', means: '3600 mm/min' }
 */
export function letterOf(
  id: ChannelId,
  level: number,
  liked: LikedUnits,
): { readonly text: string; readonly unit: string; readonly means: string } {
  const channel: Channel = CHANNELS[id];
  const means = channel.show(level, liked);
  if (channel.as === 'air') return { text: (AIR_LEVELS[level] ?? '?').toUpperCase(), unit: '', means };
  // What is counted is said by the channel's own name.
  if (channel.as === 'count') return { text: String(level), unit: '', means };
  const blank = means.indexOf(' ');
  return blank < 0
    ? { text: means, unit: '', means }
    : { text: means.slice(0, blank), unit: means.slice(blank + 1), means };
}
