import type { Pairing } from '../../src/core/card/contract';
import {
  DEFAULT_LOWEST_FIRING,
  DEFAULT_POWER_CAP,
  USUAL_GALVO,
  type Machine,
  type SourceKind,
} from '../../src/core/machine/machine';
import { RECTANGLE } from '../../src/core/stock/outline';
import { DEFAULT_LIKED_UNITS } from '../../src/core/quantities/format';
import { bareFaceOf } from '../../src/core/stock/families';

/** Twelve pairings such as a real shop has, to hold proposals against what shops say. The machines are made up. */
export interface ShopPairing {
  readonly name: string;
  readonly pairing: Pairing;
  readonly expected: readonly Expected[];
}

/** A range that a proposal is held against, with where it comes from. */
export interface Expected {
  /** Lines per inch; areal energy in J/mm² that the card must reach; lowest power; what the cells' energies must stay under. */
  readonly of:
    | 'lines per inch'
    | 'energy on the card'
    | 'lowest power'
    | 'highest energy'
    | 'powers of the threshold strip';
  readonly from: number;
  readonly to: number;
  readonly basis: string;
}

const WAVELENGTH: Readonly<Record<SourceKind, number>> = {
  'blue-diode': 450,
  'co2-glass': 10600,
  'co2-rf': 10600,
  fibre: 1064,
  uv: 355,
};

interface Head {
  readonly head: Machine['head'];
  readonly topMmPerS: number;
  readonly accelerationMmPerS2: number;
}
const SLOW: Head = { head: 'gantry', topMmPerS: 200, accelerationMmPerS2: 2000 };
const QUICK: Head = { head: 'gantry', topMmPerS: 1000, accelerationMmPerS2: 15_000 };
const GALVO: Head = { head: 'galvo', topMmPerS: 4000, accelerationMmPerS2: 4e6 };

function pairing(
  sourceKind: SourceKind,
  watts: number,
  { head, topMmPerS, accelerationMmPerS2 }: Head,
  spot: readonly [xMm: number, yMm: number],
  [family, type, thicknessMm]: readonly [family: string, type: string, thicknessMm: number],
): Pairing {
  const face = bareFaceOf({ family, type });
  return {
    machine: {
      name: 'Shop',
      head,
      galvo: head === 'galvo' ? USUAL_GALVO : null,
      zero: head === 'galvo' ? 'bed-middle' : 'bed-front-left',
      xPlus: 'right',
      yPlus: 'away',
      sourceKind,
      wavelengthNm: WAVELENGTH[sourceKind],
      ratedPowerW: watts,
      lowestFiringCommand: DEFAULT_LOWEST_FIRING[sourceKind],
      powerTable: null,
      bedWidthMm: head === 'galvo' ? 110 : 500,
      bedDepthMm: head === 'galvo' ? 110 : 400,
      topSpeedXMmPerS: topMmPerS,
      topSpeedYMmPerS: topMmPerS,
      accelerationXMmPerS2: accelerationMmPerS2,
      accelerationYMmPerS2: accelerationMmPerS2,
      airAssist: 'on-off',
      automaticFocus: false,
      rampPower: 'follows-speed',
      addsRunUp: false,
      powerCap: DEFAULT_POWER_CAP[sourceKind],
      likedUnits: DEFAULT_LIKED_UNITS,
    },
    lens: {
      name: 'usual',
      focalLengthMm: 50,
      spotXMm: spot[0],
      spotYMm: spot[1],
      spotOrigin: 'measured',
      fieldMm: head === 'galvo' ? 110 : null,
    },
    stock: {
      name: type,
      family,
      type,
      colour: face.colour,
      bareLightness: face.lightness,
      coating: '',
      coatingSide: 'none',
      adhesiveBacking: false,
      grain: 'none',
      nominalThicknessMm: thicknessMm,
      thicknessReadingsMm: [thicknessMm],
      batch: '',
      outline: RECTANGLE,
      blanks: null,
      sheetWidthMm: 300,
      sheetDepthMm: 200,
    },
  };
}

const practice = 'common practice';
const memory = 'from memory';
const lines = (from: number, to: number, basis = practice): Expected => ({ of: 'lines per inch', from, to, basis });
const energy = (from: number, to: number, basis = practice): Expected => ({
  of: 'energy on the card',
  from,
  to,
  basis,
});
/** A source's own lowest command: nothing below it is to be tried. */
const fires = (from: number, basis = memory): Expected => ({ of: 'lowest power', from, to: 1, basis });
const under = (to: number, basis = practice): Expected => ({ of: 'highest energy', from: 0, to, basis });

const PLY = ['plywood', 'birch ply', 3] as const;
const SLATE = ['slate', 'roof slate', 5] as const;

export const SHOP: readonly ShopPairing[] = [
  {
    name: '10 W blue diode, slow gantry, on ply',
    pairing: pairing('blue-diode', 10, SLOW, [0.06, 0.08], PLY),
    // A first mark on pale wood comes at 6 to 9 % of 10 to 20 W.
    expected: [lines(190, 290), { of: 'powers of the threshold strip', from: 0.06, to: 0.09, basis: practice }],
  },
  {
    name: '5 W blue diode, slow gantry, on slate',
    pairing: pairing('blue-diode', 5, SLOW, [0.06, 0.08], SLATE),
    expected: [energy(3.6, 4.7), lines(200, 320, memory)],
  },
  {
    name: '20 W blue diode, quick gantry, on white-coated tile',
    pairing: pairing('blue-diode', 20, QUICK, [0.08, 0.1], ['tile', 'white glaze, dark-firing coat', 6]),
    expected: [energy(5, 14), under(18), lines(200, 320, memory)],
  },
  {
    name: '40 W blue diode, quick gantry, on maple',
    pairing: pairing('blue-diode', 40, QUICK, [0.12, 0.16], ['hardwood', 'maple', 5]),
    expected: [lines(190, 254)],
  },
  {
    name: '40 W CO2 tube, slow gantry, on cast acrylic',
    pairing: pairing('co2-glass', 40, SLOW, [0.12, 0.12], ['acrylic-cast', 'clear', 3]),
    expected: [fires(0.1), lines(200, 320, memory)],
  },
  {
    name: '60 W CO2 tube, quick gantry, on vegetable-tanned leather',
    pairing: pairing('co2-glass', 60, QUICK, [0.1, 0.1], ['leather-vegetable', 'natural', 2]),
    expected: [lines(290, 320), fires(0.1)],
  },
  {
    name: '60 W CO2 tube, quick gantry, on rubber',
    pairing: pairing('co2-glass', 60, QUICK, [0.1, 0.1], ['rubber', 'grey laser rubber', 2.3]),
    expected: [energy(4, 8, memory), fires(0.1)],
  },
  {
    name: '100 W CO2 tube, quick gantry, on card',
    pairing: pairing('co2-glass', 100, QUICK, [0.15, 0.15], ['card', 'grey board', 1]),
    expected: [fires(0.1)],
  },
  {
    name: '100 W CO2 tube, slow gantry, on MDF',
    pairing: pairing('co2-glass', 100, SLOW, [0.15, 0.15], ['mdf', 'MDF', 6]),
    expected: [lines(190, 254), fires(0.1)],
  },
  {
    name: '30 W CO2 RF galvo, on leatherette',
    pairing: pairing('co2-rf', 30, GALVO, [0.08, 0.08], ['leatherette', 'two-tone dark over light', 1]),
    expected: [lines(300, 500), fires(0.01)],
  },
  {
    name: '5 W UV galvo, on ply',
    pairing: pairing('uv', 5, GALVO, [0.02, 0.02], PLY),
    expected: [lines(1000, 1600, 'one mark width to 0.8 of it: ultraviolet light marks no wider than the spot')],
  },
  {
    name: '20 W fibre galvo, on leatherette',
    pairing: pairing('fibre', 20, GALVO, [0.04, 0.04], ['leatherette', 'two-tone dark over light', 1]),
    expected: [energy(0.15, 0.36), lines(508, 1270)],
  },
];
