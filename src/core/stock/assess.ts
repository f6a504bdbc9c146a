import { SOURCE_NAMES, type Machine } from '../machine/machine';
import { banNamedIn, bannedMaterial, type BannedMaterial } from './banned';
import { familyOf } from './families';
import { responseOf } from './response';
import type { Stock } from './stock';

export interface Remark {
  readonly severity: 'stop' | 'warning';
  readonly code: string;
  readonly text: string;
  readonly whatToDo: string;
}

/** What stands against burning a stock at all, whatever the machine. Empty when nothing does. */
export function assessStock(stock: Pick<Stock, 'family' | 'type' | 'name' | 'coating'>): Remark[] {
  // Each field for itself: what one says is not denied by the next. Only a family that is a known sort of it speaks for the name.
  const known = (ban: BannedMaterial | undefined): BannedMaterial | undefined =>
    ban?.unlessFamily === stock.family ? undefined : ban;
  const ban =
    bannedMaterial(stock.family) ??
    banNamedIn(stock.type) ??
    known(banNamedIn(stock.name)) ??
    banNamedIn(stock.coating);
  if (ban) {
    return [
      {
        severity: 'stop',
        code: 'banned-material',
        text: `${ban.name}: never burn this. ${ban.reason}`,
        whatToDo:
          'Take it out of the machine. Use another stock, or record the maker’s data sheet as a known, permitted family.',
      },
    ];
  }
  return [];
}

/** What speaks against, or for care with, a stock under a machine's source: bans first, then the wavelength table, then the record. */
export function assessPairing(machine: Machine, stock: Stock): Remark[] {
  const stops = assessStock(stock);
  if (stops.length > 0) return stops;
  const remarks: Remark[] = [];
  const fit = responseOf(stock, machine);
  const source = `${SOURCE_NAMES[machine.sourceKind]} (${machine.wavelengthNm} nm)`;
  const name = familyOf(stock.family).name;
  if (fit.verdict === 'no') {
    remarks.push({
      severity: 'stop',
      code: 'wavelength-passes',
      text: `${name} under a ${source}: ${fit.reason}.`,
      whatToDo: 'Choose another machine or another stock.',
    });
  } else if (fit.verdict === 'badly') {
    remarks.push({
      severity: 'warning',
      code: 'wavelength-poor',
      text: `${name} under a ${source} works badly: ${fit.reason}.`,
      whatToDo: 'Burn a small card first and expect a narrow useful range.',
    });
  }
  if (stock.adhesiveBacking) {
    remarks.push({
      severity: 'warning',
      code: 'adhesive-backing',
      text: 'The adhesive backing smokes and can flare.',
      whatToDo: 'Check the adhesive’s data sheet and keep extraction and air on.',
    });
  }
  if (stock.thicknessReadingsMm.length === 0) {
    remarks.push({
      severity: 'warning',
      code: 'thickness-from-label',
      text: 'The thickness is the label’s, not measured.',
      whatToDo: 'Measure in three places and enter the readings.',
    });
  }
  return remarks;
}
