import { cardCode } from '../../core/card/code';
import { PlanError, type CardIdentity, type Pairing } from '../../core/card/contract';
import {
  CORNER_NAMES,
  type Cell,
  type Fate,
  type Layout,
  type Lettering,
  type MarkerPlace,
} from '../../core/card/layout';
import { fittingHeightMm, letter } from '../../core/card/lettering';
import { markerIdsOfCard } from '../../core/card/markers';
import { burnOrder } from '../../core/card/order';
import type { BurnSettings } from '../../core/card/settings';
import { deliveredPowerW, sweepLimits } from '../../core/machine/machine';
import { arealEnergyJPerMm2, lineEnergyJPerMm } from '../../core/quantities/energy';
import { plainNumber } from '../../core/quantities/format';
import { suitability } from '../../core/stock/absorption';
import { familyOf } from '../../core/stock/families';
import { thicknessOf } from '../../core/stock/stock';
import { checkGridPlan } from './check';
import { axisValues, type GridPlan } from './plan';

const MARKER_MM = 6;
/** Bare stock around each marker: less than a module and the marker's edge is lost. */
const QUIET_MM = 1;
const LETTER_MM = 1.3;

/** Energy below this share of the family's faint mark is bound to leave nothing. */
const NO_MARK_SHARE = 0.45;

function fateOf(settings: BurnSettings, deliveredW: number, arealEnergy: number, { machine, stock }: Pairing): Fate {
  const family = familyOf(stock.family);
  const { absorption } = suitability(stock.family, machine.sourceKind, stock.type);
  if (deliveredW === 0) return 'does-not-fire';
  if (settings.speedMmPerS > sweepLimits(machine, settings.direction).topSpeedMmPerS + 1e-9) return 'too-fast';
  if (arealEnergy * absorption < family.energies.faint * NO_MARK_SHARE) return 'no-mark';
  if (arealEnergy * absorption > family.energies.over) return 'overburn';
  return 'plain';
}

function layCells(plan: GridPlan, pairing: Pairing, left: number, top: number): Cell[] {
  const powers = axisValues(plan.power);
  const speeds = axisValues(plan.speed).reverse();
  const pitch = plan.cellMm + plan.gapMm;
  return speeds.flatMap((speed, row) =>
    powers.map((power, column): Cell => {
      const settings: BurnSettings = {
        powerFraction: round(power, 4),
        speedMmPerS: round(speed, 2),
        ...plan.constants,
      };
      const deliveredW = deliveredPowerW(pairing.machine, Math.min(1, settings.powerFraction));
      const arealEnergy = arealEnergyJPerMm2(deliveredW, settings.speedMmPerS, settings.intervalMm, settings.passes);
      const fate = fateOf(settings, deliveredW, arealEnergy, pairing);
      return {
        index: row * powers.length + column,
        column,
        row,
        x: round(left + column * pitch, 4),
        y: round(top + row * pitch, 4),
        width: plan.cellMm,
        height: plan.cellMm,
        settings,
        deliveredW: round(deliveredW, 4),
        arealEnergyJPerMm2: arealEnergy,
        lineEnergyJPerMm: lineEnergyJPerMm(deliveredW, settings.speedMmPerS, settings.passes),
        fate,
        leftOut: plan.leaveOutFailing && fate !== 'plain',
      };
    }),
  );
}

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/** The line that names machine and stock, in lettering that fits between the upper markers. */
function headerText({ machine, stock }: Pairing): string {
  const thickness = plainNumber(round(thicknessOf(stock).meanMm, 2));
  return `${machine.name} ${plainNumber(machine.ratedPowerW)}W ${stock.name} ${thickness}MM`;
}

function constantsText({ constants }: GridPlan): string {
  const focus =
    constants.focusOffsetMm === 0
      ? '0'
      : `${constants.focusOffsetMm > 0 ? '+' : ''}${plainNumber(constants.focusOffsetMm)}`;
  return [
    `INT ${plainNumber(constants.intervalMm)}`,
    `N${constants.passes}`,
    `F${focus}`,
    `AIR ${constants.air}`,
    `${constants.direction === 'horizontal' ? 'X' : 'Y'}${constants.bothWays ? ' BOTH WAYS' : ' ONE WAY'}`,
  ].join(' ');
}

function layLettering(
  plan: GridPlan,
  pairing: Pairing,
  cells: readonly Cell[],
  width: number,
  height: number,
  code: string,
): Lettering[] {
  const between = width - 2 * (MARKER_MM + QUIET_MM);
  const centre = width / 2;
  const line = (role: Lettering['role'], text: string, y: number, most: number): Lettering => ({
    role,
    text,
    strokes: letter(text, { x: centre, y, heightMm: fittingHeightMm(text, between, most), anchor: 'middle' }),
  });
  const columns = cells.filter((cell) => cell.row === 0);
  const rows = cells.filter((cell) => cell.column === 0);
  const powerText = (cell: Cell): string => plainNumber(round(cell.settings.powerFraction * 100, 1));
  const speedText = (cell: Cell): string => plainNumber(cell.settings.speedMmPerS);
  const columnHeight = Math.min(
    ...columns.map((cell) => fittingHeightMm(powerText(cell), plan.cellMm * 0.96, LETTER_MM)),
  );
  const rowHeight = Math.min(
    LETTER_MM,
    plan.cellMm * 0.5,
    ...rows.map((cell) => fittingHeightMm(speedText(cell), MARKER_MM - 0.4, LETTER_MM)),
  );
  return [
    line('header', headerText(pairing), 0.2, LETTER_MM),
    line('constants', constantsText(plan), 2.1, 1.1),
    ...columns.map((cell): Lettering => {
      const place = { x: cell.x + cell.width / 2, y: cell.y - QUIET_MM - columnHeight, heightMm: columnHeight };
      return {
        role: 'axis',
        text: `${powerText(cell)} %`,
        strokes: letter(powerText(cell), { ...place, anchor: 'middle' }),
      };
    }),
    ...rows.map((cell): Lettering => {
      const place = { x: MARKER_MM, y: cell.y + (cell.height - rowHeight) / 2, heightMm: rowHeight };
      return {
        role: 'axis',
        text: `${speedText(cell)} mm/s`,
        strokes: letter(speedText(cell), { ...place, anchor: 'end' }),
      };
    }),
    line('axis', 'POWER % ACROSS / SPEED MM/S DOWN', height - 1.1, 1),
    line('code', code, height - MARKER_MM + 1.2, 2),
  ];
}

/**
 * Lays a power x speed card: four corner markers that carry the number, cells between them, axis values, header and code.
 * Least area for the counts asked for; upright; positions in card millimetres from the upper left corner.
 * Throws PlanError with every field at fault, RangeError for a card number the markers cannot carry.
 */
export function layGrid(plan: GridPlan, pairing: Pairing, { cardNumber }: CardIdentity): Layout {
  const problems = checkGridPlan(plan, pairing);
  if (problems.length > 0) throw new PlanError(problems);
  const pitch = plan.cellMm + plan.gapMm;
  const gridWidth = plan.power.count * pitch - plan.gapMm;
  const gridHeight = plan.speed.count * pitch - plan.gapMm;
  const margin = MARKER_MM + QUIET_MM;
  // The header needs room for its text even over a small grid.
  const innerWidth = Math.max(gridWidth, 16);
  const width = round(innerWidth + 2 * margin, 4);
  const height = round(gridHeight + 2 * margin, 4);
  const cells = layCells(plan, pairing, margin + (innerWidth - gridWidth) / 2, margin);
  const code = cardCode(cardNumber);
  const ids = markerIdsOfCard(cardNumber);
  const markers = CORNER_NAMES.map((corner, index): MarkerPlace => ({
    corner,
    id: ids[index]!,
    x: corner.endsWith('right') ? round(width - MARKER_MM, 4) : 0,
    y: corner.startsWith('lower') ? round(height - MARKER_MM, 4) : 0,
    sizeMm: MARKER_MM,
  }));
  const burned = cells.filter((cell) => !cell.leftOut);
  return {
    kind: 'grid',
    cardNumber,
    code,
    widthMm: width,
    heightMm: height,
    cells,
    markers,
    lettering: layLettering(plan, pairing, cells, width, height, code),
    order: burnOrder(burned.map((cell) => ({ ...cell, risk: cell.arealEnergyJPerMm2 }))),
    constants: plan.constants,
    markerSettings: plan.markerSettings,
    letteringSettings: plan.letteringSettings,
  };
}
