import { MM_PER_INCH } from './quantity';

/** How an operator likes to read quantities. Storage is canonical (mm, mm/s, fraction) whatever stands here. */
export interface LikedUnits {
  readonly length: 'mm' | 'in';
  readonly speed: 'mm/s' | 'mm/min' | 'own';
  /** The machine's own scale of speed, once it was told; needed where `speed` is `own`. */
  readonly ownSpeed?: OwnSpeed;
  readonly density: 'mm' | 'dpi' | 'lines/cm';
}

/** Units of their own that machines state speed in: per cent of their top speed, or dots a second at their own dot pitch. */
export const OWN_SPEED_UNITS = ['% speed', 'dots/s'] as const;

export interface OwnSpeed {
  readonly unit: (typeof OWN_SPEED_UNITS)[number];
  readonly mmPerSPerUnit: number;
}

export const DEFAULT_LIKED_UNITS: LikedUnits = { length: 'mm', speed: 'mm/s', density: 'mm' };

/** At most `digits` significant digits, no exponent, no trailing zeros: 3.1, 0.085, 1200. */
export function plainNumber(value: number, digits = 3): string {
  if (!Number.isFinite(value)) return '–';
  if (value === 0) return '0';
  const magnitude = Math.floor(Math.log10(Math.abs(value)));
  const decimals = Math.max(0, Math.min(6, digits - 1 - magnitude));
  const text = value.toFixed(decimals);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

export function formatLength(valueMm: number, liked: LikedUnits = DEFAULT_LIKED_UNITS, digits = 4): string {
  return liked.length === 'in'
    ? `${plainNumber(valueMm / MM_PER_INCH, digits)} in`
    : `${plainNumber(valueMm, digits)} mm`;
}

/** Width and height with one unit: "40.2 × 30 mm". */
export function formatSize(widthMm: number, heightMm: number, liked: LikedUnits = DEFAULT_LIKED_UNITS): string {
  const width = formatLength(widthMm, liked, 3);
  return `${width.slice(0, width.indexOf(' '))} × ${formatLength(heightMm, liked, 3)}`;
}

export function formatSpeed(valueMmPerS: number, liked: LikedUnits = DEFAULT_LIKED_UNITS): string {
  if (liked.speed === 'own' && liked.ownSpeed)
    return `${plainNumber(valueMmPerS / liked.ownSpeed.mmPerSPerUnit, 4)} ${liked.ownSpeed.unit}`;
  return liked.speed === 'mm/min'
    ? `${plainNumber(valueMmPerS * 60, 4)} mm/min`
    : `${plainNumber(valueMmPerS, 4)} mm/s`;
}

/** A fraction of rated power as per cent, to a tenth: 0.645 -> "64.5 %". */
export function formatPower(fraction: number): string {
  return `${plainNumber(Math.round(fraction * 1000) / 10, 4)} %`;
}

export function formatInterval(intervalMm: number, liked: LikedUnits = DEFAULT_LIKED_UNITS): string {
  if (liked.density === 'dpi') return `${plainNumber(MM_PER_INCH / intervalMm, 4)} DPI`;
  if (liked.density === 'lines/cm') return `${plainNumber(10 / intervalMm, 4)} lines/cm`;
  return `${plainNumber(intervalMm, 3)} mm`;
}

/** Duration in the largest two units: 9.4 s, 2 min 10 s, 1 h 05 min. */
export function formatDuration(valueS: number): string {
  if (!Number.isFinite(valueS)) return '–';
  if (valueS < 59.95) return `${plainNumber(Math.round(valueS * 10) / 10, 3)} s`;
  const total = Math.round(valueS);
  if (total < 3600) return `${Math.floor(total / 60)} min ${String(total % 60).padStart(2, '0')} s`;
  const minutes = Math.round(total / 60);
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
}

/** Duration as a stopwatch shows it, to the second: 0:42, 11:46, 1:05:00. */
export function formatStopwatch(valueS: number): string {
  const total = Math.max(0, Math.round(valueS));
  const two = (value: number): string => String(value).padStart(2, '0');
  const minutes = Math.floor(total / 60);
  return minutes < 60
    ? `${minutes}:${two(total % 60)}`
    : `${Math.floor(minutes / 60)}:${two(minutes % 60)}:${two(total % 60)}`;
}

/** Areal energy with its unit: 0.853 J/mm². */
export function formatArealEnergy(jPerMm2: number): string {
  return `${plainNumber(jPerMm2, 3)} J/mm²`;
}

/**
 * A tone against the bare stock, in words of the shop, with L* as the detail: "18 darker than bare (L* 60)".
 *
 * formatAgainstBare(60, 78) -> '18 darker than bare (L* 60)'
 */
export function formatAgainstBare(lightness: number, bareLightness: number): string {
  const difference = lightness - bareLightness;
  const detail = `L* ${plainNumber(lightness, 3)}`;
  if (Math.abs(difference) < 0.05) return `like bare (${detail})`;
  return `${plainNumber(Math.abs(difference), 2)} ${difference < 0 ? 'darker' : 'brighter'} than bare (${detail})`;
}

/**
 * Run-up as a length and as a share of speed, which is how some machines state it: mm over mm/s.
 *
 * formatRunUp(5, 100) -> '5 mm each side, 5 % of speed'
 */
export function formatRunUp(runUpMm: number, speedMmPerS: number, liked: LikedUnits = DEFAULT_LIKED_UNITS): string {
  const share = speedMmPerS > 0 ? `, ${plainNumber((runUpMm / speedMmPerS) * 100, 2)} % of speed` : '';
  return `${formatLength(runUpMm, liked, 3)} each side${share}`;
}

/**
 * How far a tone lies from bare stock's, with twice its standard uncertainty.
 *
 * formatStrength({ strength: 24.31, sigma: 0.42 }) -> "24.3 L* ± 0.84 from bare stock"
 */
export function formatStrength({ strength, sigma }: { readonly strength: number; readonly sigma: number }): string {
  return `${plainNumber(strength, 3)} L* ± ${plainNumber(2 * sigma, 2)} from bare stock`;
}
