import { levelWords } from '../../core/card/channels';
import { mainBurn, type Cell } from '../../core/card/layout';
import { formatPower, formatSpeed, type LikedUnits } from '../../core/quantities/format';

/** A cell in words: its power and speed, and what else varies on its card. */
export function settingWords(cell: Cell, liked: LikedUnits): string {
  const { powerFraction, speedMmPerS } = mainBurn(cell).settings;
  const { power: _power, speed: _speed, ...others } = cell.levels;
  return [`${formatPower(powerFraction)} at ${formatSpeed(speedMmPerS, liked)}`, ...levelWords(others, liked)].join(
    ', ',
  );
}
