import { squareFillTimeS } from '../../../core/card/fill-time';
import { levelWords } from '../../../core/card/channels';
import type { Machine } from '../../../core/machine/machine';
import {
  formatAgainstBare,
  formatDuration,
  formatPower,
  formatSpeed,
  plainNumber,
} from '../../../core/quantities/format';
import { foretell, settingsAt, type GridSurface, type Level } from '../surface';

/** What the surface says of a place, as rows of figures: what to set, what it gives, how sure, and what it costs. */
export function foretoldRows(surface: GridSurface, place: Level, machine: Machine): [label: string, value: string][] {
  const { lightness, sigma } = foretell(surface, place);
  const settings = settingsAt(surface, place);
  const varied = { [surface.across.channel]: place.across, [surface.down.channel]: place.down };
  const { power: _power, speed: _speed, ...others } = varied as Record<string, number>;
  return [
    ['Power', formatPower(settings.powerFraction)],
    ['Speed', formatSpeed(settings.speedMmPerS, machine.likedUnits)],
    ...levelWords(others, machine.likedUnits).map((words): [string, string] => ['With', words]),
    ['Foretold tone', `${formatAgainstBare(lightness, surface.bare)} ± ${plainNumber(2 * sigma, 2)}`],
    ['10 × 10 cm take', formatDuration(squareFillTimeS(settings, machine, 100))],
  ];
}
