import { levelWords } from '../card/channels';
import { isPictureMode, PICTURE_MODE_NAMES } from '../picture/mode';
import type { LikedUnits } from '../quantities/format';

/** The settings and mode a fact was measured at, for those that hold only there: part of what it is. */
export type Conditions = Readonly<Record<string, number | string>>;

/** Conditions as the text that tells facts of one name apart: keys in order. */
export function conditionsKey(at: Conditions): string {
  return JSON.stringify(Object.fromEntries(Object.entries(at).sort(([a], [b]) => (a < b ? -1 : 1))));
}

/** The conditions of a shade: none for the usual one. */
export const shadeConditions = (shade: string): Conditions => (shade.trim() === '' ? {} : { shade: shade.trim() });

/** Conditions in words: "strong", "120 mm/s, 0.1 mm". */
export function conditionWords(at: Conditions, liked: LikedUnits): string {
  const { shade, direction, picture } = at;
  return [
    ...(shade === undefined ? [] : [String(shade)]),
    ...(isPictureMode(picture) ? [PICTURE_MODE_NAMES[picture]] : []),
    ...levelWords(at, liked),
    ...(direction === undefined ? [] : [direction === 'horizontal' ? 'lines along X' : 'lines along Y']),
  ].join(', ');
}
