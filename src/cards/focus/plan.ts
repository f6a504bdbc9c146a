import { axisValues, type Axis } from '../../core/card/axis';
import type { BasePlan } from '../../core/card/contract';
import { upgradeSettings, type BurnSettings } from '../../core/card/settings';
import { upgradeBase } from '../../core/card/stored';

export const FOCUS_VERSION = 3;

/** How patches come to lie at their offsets: the head stops at each, or one burn goes over a tilted board. */
export const FOCUS_WAYS = ['stops', 'tilt'] as const;
export type FocusWay = (typeof FOCUS_WAYS)[number];

/** The same patch at several focus offsets, side by side. */
export interface FocusPlan extends BasePlan {
  /** mm from the focus that the operator set; see `BurnSettings` for its sense. */
  readonly focus: Axis;
  readonly way: FocusWay;
  /** What the raised end of a tilted board stands on. */
  readonly spacerMm: number;
  readonly patchMm: number;
  readonly gapMm: number;
  readonly constants: Omit<BurnSettings, 'focusOffsetMm'>;
}

/** A frame takes so much beside the patches, and a board stands out a little beyond its card. */
const AROUND_MM = 36;

/** How long a board must be between the edge it rests on and its spacer: longer than the card, or it would tip over. */
export const leastBoardMm = ({ focus, patchMm, gapMm }: Pick<FocusPlan, 'focus' | 'patchMm' | 'gapMm'>): number =>
  focus.count * (patchMm + gapMm) + AROUND_MM;

/** Offsets of the patches, from the lowest head to the highest. */
export const patchOffsets = ({ focus }: Pick<FocusPlan, 'focus'>): number[] =>
  axisValues(focus).map((mm) => Math.round(mm * 1000) / 1000 + 0);

/** How far the face of a tilted board falls for each millimetre, so that patches side by side lie at their offsets. */
export const fallOf = ({ focus, patchMm, gapMm }: Pick<FocusPlan, 'focus' | 'patchMm' | 'gapMm'>): number =>
  (focus.to - focus.from) / ((focus.count - 1) * (patchMm + gapMm));

/** The thinnest spacer of whole millimetres that does not stand under the card. */
export const leastSpacerMm = (plan: Pick<FocusPlan, 'focus' | 'patchMm' | 'gapMm'>): number =>
  Math.max(1, Math.ceil(fallOf(plan) * leastBoardMm(plan)));

/** A plan from before boards were tilted. */
type SecondPlan = Omit<FocusPlan, 'way' | 'spacerMm'>;

export function upgradeFocusPlan(stored: object): FocusPlan {
  const { version } = stored as { version?: number };
  if (version === FOCUS_VERSION) return stored as FocusPlan;
  if (version !== 1 && version !== 2) throw new RangeError(`unknown focus plan version: ${version}`);
  const older = stored as SecondPlan;
  const second = version === 2 ? older : { ...upgradeBase(older), constants: upgradeSettings(older.constants) };
  return { ...second, version: FOCUS_VERSION, way: 'stops', spacerMm: leastSpacerMm(second) };
}
