import { grid } from '../../src/cards/grid';
import { threshold } from '../../src/cards/threshold';
import type { GridPlan } from '../../src/cards/grid/plan';
import type { Pairing } from '../../src/core/card/contract';
import { plainNumber } from '../../src/core/quantities/format';
import type { Expected } from './shop';

const MM_PER_INCH = 25.4;

export interface Compared extends Expected {
  readonly proposed: string;
  readonly within: boolean;
}

/** A proposed grid against ranges. An energy is within when cells lie on both sides of the range, or in it from end to end. */
export function compared(plan: GridPlan, pairing: Pairing, expected: readonly Expected[]): Compared[] {
  const burned = grid.draw(plan, pairing).cells.filter((cell) => !cell.leftOut);
  const energies = burned.map((cell) => cell.risk);
  const [least, most] = [Math.min(...energies), Math.max(...energies)];
  const perInch = MM_PER_INCH / plan.constants.intervalMm;
  const words = (value: number, unit: string): string => `${plainNumber(value, 3)}${unit}`;
  return expected.map((one) => {
    const in_ = (value: number): boolean => value >= one.from - 1e-9 && value <= one.to + 1e-9;
    switch (one.of) {
      case 'lines per inch':
        return { ...one, proposed: words(perInch, ''), within: in_(perInch) };
      case 'lowest power':
        return { ...one, proposed: words(plan.across.from * 100, ' %'), within: in_(plan.across.from) };
      case 'powers of the threshold strip': {
        const { power } = threshold.propose({ pairing, facts: [] }).plan;
        const percent = (share: number): string => plainNumber(share * 100, 3);
        const proposed = `${percent(power.from)} to ${percent(power.to)} %`;
        return { ...one, proposed, within: power.from <= one.from && power.to >= one.to };
      }
      case 'highest energy':
        return { ...one, proposed: words(most, ' J/mm²'), within: in_(most) };
      case 'energy on the card':
        return {
          ...one,
          proposed: `${words(least, '')} to ${words(most, ' J/mm²')}`,
          within: least <= one.from && most >= one.to,
        };
    }
  });
}
