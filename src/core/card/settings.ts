/** Everything that decides how a patch is burned. Power is a fraction of rated power. */
export interface BurnSettings {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  /** Distance of the focus from the face, positive away from the head's sharp point. */
  readonly focusOffsetMm: number;
  readonly air: 'off' | 'low' | 'on';
  readonly direction: 'horizontal' | 'vertical';
  readonly bothWays: boolean;
}

/** The settings that a card keeps the same in every cell. */
export type Constants = Omit<BurnSettings, 'powerFraction' | 'speedMmPerS'>;
