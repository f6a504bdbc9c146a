export type Air = 'off' | 'low' | 'on';
/** The axis that sweeps run along: x or y of the card as it lies on the bed. */
export type LineDirection = 'horizontal' | 'vertical';

/**
 * Everything that decides how one burn is done, complete: nothing comes from the card around it. Power is a fraction of rated power.
 *
 * Focus, here and everywhere: the offset counts from the focus that the operator set. **Positive raises the head**: its sharp point
 * hangs that far above the face. **Negative lowers it**: the sharp point lies that far inside the stock.
 */
export interface BurnSettings {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  readonly focusOffsetMm: number;
  readonly air: Air;
  readonly direction: LineDirection;
  readonly bothWays: boolean;
  /** Run-up before and after the mark, each side; null for what the machine needs at this speed (nothing for followed lines). */
  readonly runUpMm: number | null;
  /** How much further along its own direction each line of the way back is laid, to undo the head's lag. */
  readonly scanOffsetMm: number;
  /** Each lit stretch of a line is drawn so much longer, half of it at either end, to undo that the beam comes on later than it goes out. */
  readonly lengthenMm: number;
  /** Lines of a fill are turned by this much from `direction`, counter-clockwise as the card is read: 0 up to 90. */
  readonly lineAngleDeg: number;
  /** Each pass of a fill is done again at right angles to itself: twice the lines, and twice the energy. */
  readonly crossHatch: boolean;
  /** Pulse rate; null where the source does not pulse, or was left as it is. */
  readonly frequencyKHz: number | null;
}

/** The settings that a card of power and speed keeps the same in every cell. */
export type Constants = Omit<BurnSettings, 'powerFraction' | 'speedMmPerS'>;

/** What settings have that say nothing about run-up, lag, length of dots, angle, hatch and pulses: everything plain. */
export const PLAIN_EXTRAS = {
  runUpMm: null,
  scanOffsetMm: 0,
  lengthenMm: 0,
  lineAngleDeg: 0,
  crossHatch: false,
  frequencyKHz: null,
} as const satisfies Partial<BurnSettings>;

/** Settings as they were kept before all of these were part of them. */
export function upgradeSettings<Settings extends object>(
  stored: Settings,
): Settings & Pick<BurnSettings, keyof typeof PLAIN_EXTRAS> {
  return { ...PLAIN_EXTRAS, ...stored };
}

/** How often the lines of a fill cross each place. */
export const crossingsOf = ({ passes, crossHatch }: Pick<BurnSettings, 'passes' | 'crossHatch'>): number =>
  passes * (crossHatch ? 2 : 1);

/** Settings as text, the same whatever the order of their fields: `{"passes":1}` is `[["passes",1]]`. */
export const settingsText = (settings: Partial<BurnSettings>): string =>
  JSON.stringify(Object.entries(settings).sort(([a], [b]) => (a < b ? -1 : 1)));
