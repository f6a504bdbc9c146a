import { createContext, useContext } from 'react';
import { useWatch } from 'react-hook-form';
import { DEFAULT_LOWEST_FIRING, type Machine } from '../../core/machine/machine';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import { quantityKinds } from '../../components/quantity-kinds';

export const FRESH_MACHINE: Machine = {
  name: '',
  head: 'gantry',
  galvo: null,
  zero: 'bed-front-left',
  xPlus: 'right',
  yPlus: 'away',
  sourceKind: 'blue-diode',
  wavelengthNm: 450,
  ratedPowerW: 10,
  lowestFiringCommand: DEFAULT_LOWEST_FIRING['blue-diode'],
  powerTable: null,
  bedWidthMm: 400,
  bedDepthMm: 400,
  topSpeedXMmPerS: 200,
  topSpeedYMmPerS: 200,
  accelerationXMmPerS2: 2000,
  accelerationYMmPerS2: 2000,
  airAssist: 'on-off',
  automaticFocus: false,
  rampPower: 'constant',
  addsRunUp: false,
  powerCap: 0.8,
  likedUnits: DEFAULT_LIKED_UNITS,
};

/** What the server said of a field of the machine, if anything. */
export const MachineMessages = createContext<(field: string) => string | undefined>(() => undefined);
export const useMachineMessages = () => useContext(MachineMessages);

/** The machine as it stands in the form, and how its own units are typed. */
export function useMachineNow() {
  const now = useWatch() as Machine;
  return { now, kinds: quantityKinds(now.likedUnits ?? DEFAULT_LIKED_UNITS, now.ratedPowerW) };
}
