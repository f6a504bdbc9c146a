import type { Lens, Machine } from '../core/machine/machine';
import type { Stock } from '../core/stock/stock';
import { RECTANGLE } from '../core/stock/outline';
import { DEFAULT_LIKED_UNITS } from '../core/quantities/format';

/** The made-up workshop of the demo: Saltgrass Seed Library. No real names, brands or places. */
export interface DemoMachine {
  readonly machine: Machine;
  readonly lenses: readonly Lens[];
}

export const DEMO_MACHINES = {
  heron: {
    machine: {
      name: 'Heron',
      head: 'gantry',
      galvo: null,
      zero: 'bed-front-left',
      xPlus: 'right',
      yPlus: 'away',
      sourceKind: 'blue-diode',
      wavelengthNm: 450,
      ratedPowerW: 10,
      lowestFiringCommand: 0.02,
      powerTable: null,
      bedWidthMm: 400,
      bedDepthMm: 400,
      topSpeedXMmPerS: 250,
      topSpeedYMmPerS: 200,
      accelerationXMmPerS2: 3500,
      accelerationYMmPerS2: 2500,
      airAssist: 'adjustable',
      automaticFocus: false,
      rampPower: 'follows-speed',
      addsRunUp: false,
      powerCap: 0.8,
      likedUnits: { ...DEFAULT_LIKED_UNITS, speed: 'mm/min' },
    },
    lenses: [{ name: 'fixed', focalLengthMm: 25, spotXMm: 0.09, spotYMm: 0.13, spotOrigin: 'measured', fieldMm: null }],
  },
  marl: {
    machine: {
      name: 'Marl',
      head: 'gantry',
      galvo: null,
      zero: 'bed-front-left',
      xPlus: 'right',
      yPlus: 'away',
      sourceKind: 'co2-glass',
      wavelengthNm: 10600,
      ratedPowerW: 55,
      lowestFiringCommand: 0.08,
      powerTable: [
        { command: 0.08, watts: 2.5 },
        { command: 0.2, watts: 10.5 },
        { command: 0.4, watts: 24 },
        { command: 0.6, watts: 36 },
        { command: 0.8, watts: 46 },
        { command: 0.9, watts: 50 },
      ],
      bedWidthMm: 700,
      bedDepthMm: 500,
      topSpeedXMmPerS: 600,
      topSpeedYMmPerS: 250,
      accelerationXMmPerS2: 9000,
      accelerationYMmPerS2: 3000,
      airAssist: 'on-off',
      automaticFocus: true,
      rampPower: 'constant',
      addsRunUp: false,
      powerCap: 0.9,
      likedUnits: DEFAULT_LIKED_UNITS,
    },
    lenses: [
      { name: '2 inch', focalLengthMm: 50.8, spotXMm: 0.13, spotYMm: 0.13, spotOrigin: 'measured', fieldMm: null },
      { name: '1.5 inch', focalLengthMm: 38.1, spotXMm: 0.1, spotYMm: 0.1, spotOrigin: 'computed', fieldMm: null },
    ],
  },
  tern: {
    machine: {
      name: 'Tern',
      head: 'galvo',
      galvo: { jumpSpeedMmPerS: 3000, jumpDelayS: 0.0003, markDelayS: 0.0004, frequencyKHz: { least: 20, most: 80 } },
      zero: 'bed-middle',
      xPlus: 'right',
      yPlus: 'away',
      sourceKind: 'fibre',
      wavelengthNm: 1064,
      ratedPowerW: 20,
      lowestFiringCommand: 0.05,
      powerTable: null,
      bedWidthMm: 180,
      bedDepthMm: 180,
      topSpeedXMmPerS: 3000,
      topSpeedYMmPerS: 3000,
      accelerationXMmPerS2: 1e6,
      accelerationYMmPerS2: 1e6,
      airAssist: 'none',
      automaticFocus: false,
      rampPower: 'follows-speed',
      addsRunUp: false,
      powerCap: 1,
      likedUnits: DEFAULT_LIKED_UNITS,
    },
    lenses: [
      {
        name: 'field 110',
        focalLengthMm: 160,
        spotXMm: 0.05,
        spotYMm: 0.05,
        spotOrigin: 'measured',
        fieldMm: 110,
      },
    ],
  },
} as const satisfies Readonly<Record<string, DemoMachine>>;

const SHEET = {
  outline: RECTANGLE,
  blanks: null,
  coating: '',
  coatingSide: 'none',
  adhesiveBacking: false,
  batch: '',
} as const;

export const DEMO_STOCKS = {
  birch: { ...SHEET, name: 'Birch ply', family: 'plywood', type: 'birch ply', colour: '#d8be93', bareLightness: 78, grain: 'along-width', nominalThicknessMm: 3, thicknessReadingsMm: [3.08, 3.12, 3.1, 3.11, 3.09], batch: 'SG-14', sheetWidthMm: 300, sheetDepthMm: 200 },
  alder: { ...SHEET, name: 'Alder board', family: 'hardwood', type: 'alder', colour: '#c79b6b', bareLightness: 67, grain: 'along-width', nominalThicknessMm: 6, thicknessReadingsMm: [6.02, 6.05, 5.98], batch: 'A-3', sheetWidthMm: 240, sheetDepthMm: 120 },
  leather: { ...SHEET, name: 'Veg-tanned leather', family: 'leather-vegetable', type: 'natural', colour: '#c89f77', bareLightness: 69, grain: 'none', nominalThicknessMm: 2, thicknessReadingsMm: [1.9, 2.1, 2.0, 1.95], batch: 'hide 7', sheetWidthMm: 200, sheetDepthMm: 150 },
  slate: { ...SHEET, name: 'Slate marker', family: 'slate', type: 'coaster slate', colour: '#4a5056', bareLightness: 34, grain: 'none', nominalThicknessMm: 5, thicknessReadingsMm: [5.2, 4.9, 5.4], batch: '', sheetWidthMm: 100, sheetDepthMm: 100, outline: { shape: 'rounded', radiusMm: 6 }, blanks: { count: 12 } },
  mdf: { ...SHEET, name: 'MDF', family: 'mdf', type: 'MDF', colour: '#b28f69', bareLightness: 62, grain: 'none', nominalThicknessMm: 3, thicknessReadingsMm: [3.02, 3.0, 3.01], batch: 'M-22', sheetWidthMm: 300, sheetDepthMm: 200 },
  cork: { ...SHEET, name: 'Cork sheet', family: 'cork', type: 'cork sheet', colour: '#c39a6a', bareLightness: 66, grain: 'none', nominalThicknessMm: 3, thicknessReadingsMm: [], batch: '', sheetWidthMm: 200, sheetDepthMm: 200 },
  twoLayer: { ...SHEET, name: 'Two-layer, moss over cream', family: 'two-layer', type: 'acrylic based, dark over light', colour: '#26302b', bareLightness: 19, coating: '', grain: 'none', nominalThicknessMm: 1.6, thicknessReadingsMm: [1.58, 1.6], batch: '', sheetWidthMm: 150, sheetDepthMm: 150 },
  felt: { ...SHEET, name: 'Wool felt, oat', family: 'felt', type: 'wool felt', colour: '#b9b4a6', bareLightness: 73, grain: 'none', nominalThicknessMm: 2, thicknessReadingsMm: [], batch: '', sheetWidthMm: 200, sheetDepthMm: 200 },
  linen: { ...SHEET, name: 'Linen, seed-bag', family: 'cloth', type: 'linen', colour: '#d8cdb4', bareLightness: 83, grain: 'along-width', nominalThicknessMm: 0.5, thicknessReadingsMm: [], batch: '', sheetWidthMm: 300, sheetDepthMm: 200 },
  acrylic: { ...SHEET, name: 'Cast acrylic, clear', family: 'acrylic-cast', type: 'clear', colour: '#2f3a3c', bareLightness: 24, grain: 'none', nominalThicknessMm: 3, thicknessReadingsMm: [2.85, 2.9], batch: '', sheetWidthMm: 200, sheetDepthMm: 150 },
  tile: { ...SHEET, name: 'Glazed tile', family: 'tile', type: 'white glaze, dark-firing coat', colour: '#e4e3dd', bareLightness: 90, coating: 'removable laser coat, data sheet on file', coatingSide: 'top', grain: 'none', nominalThicknessMm: 6, thicknessReadingsMm: [6.1], batch: '', sheetWidthMm: 100, sheetDepthMm: 100 },
  coated: { ...SHEET, name: 'Clear acrylic, slate coat', family: 'coated-clear', type: 'coat on the near face', colour: '#2b2e33', bareLightness: 19, coating: 'painted by its maker, data sheet on file', coatingSide: 'top', grain: 'none', nominalThicknessMm: 3, thicknessReadingsMm: [2.96, 2.98, 2.97], batch: '', sheetWidthMm: 200, sheetDepthMm: 150 },
} as const satisfies Readonly<Record<string, Stock>>; // prettier-ignore

export type DemoMachineName = keyof typeof DEMO_MACHINES;
export type DemoStockName = keyof typeof DEMO_STOCKS;

export interface DemoPairing {
  readonly machine: DemoMachineName;
  readonly lens: number;
  readonly stock: DemoStockName;
}
