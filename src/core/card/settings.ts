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
}

/** The settings that a card of power and speed keeps the same in every cell. */
export type Constants = Omit<BurnSettings, 'powerFraction' | 'speedMmPerS'>;

/** Settings as they were kept before run-up and scan offset were part of them. */
export function upgradeSettings<Settings extends object>(
  stored: Settings,
): Settings & Pick<BurnSettings, 'runUpMm' | 'scanOffsetMm'> {
  return { runUpMm: null, scanOffsetMm: 0, ...stored };
}
