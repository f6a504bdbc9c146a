import {
  formatInterval,
  formatLength,
  formatPower,
  formatSpeed,
  plainNumber,
  type LikedUnits,
} from '../quantities/format';

export interface Channel {
  readonly name: string;
  /** How a level is typed and shown. */
  readonly as: 'power' | 'speed' | 'interval' | 'length' | 'offset' | 'count' | 'word';
  /** For the lettering on the card: the bare number or word, in the unit that `unit` names. */
  readonly letter: (level: number) => string;
  readonly unit: string;
  readonly show: (level: number, liked: LikedUnits) => string;
}

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;
export const signed = (mm: number): string => `${mm > 0 ? '+' : ''}${plainNumber(mm)}`;

/** Everything that may vary from cell to cell on a card. */
export const CHANNELS = {
  power: { name: 'Power', as: 'power', unit: '%', letter: (level) => plainNumber(round(level * 100, 1)), show: (level) => formatPower(level) },
  speed: { name: 'Speed', as: 'speed', unit: 'mm/s', letter: (level) => plainNumber(level), show: formatSpeed },
  interval: { name: 'Line interval', as: 'interval', unit: 'mm', letter: (level) => plainNumber(level), show: formatInterval },
  focus: { name: 'Focus offset', as: 'offset', unit: 'mm', letter: signed, show: (level, liked) => `${level > 0 ? '+' : ''}${formatLength(level, liked)}` },
  passes: { name: 'Passes', as: 'count', unit: '', letter: String, show: String },
  size: { name: 'Size', as: 'length', unit: 'mm', letter: (level) => plainNumber(level), show: formatLength },
  side: { name: 'Cut', as: 'word', unit: '', letter: String, show: String },
} as const satisfies Readonly<Record<string, Channel>>; // prettier-ignore

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
