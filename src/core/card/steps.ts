import type { Machine } from '../machine/machine';
import { frameBurns } from './path';
import type { Cell, Layout } from './layout';
import { settingsText, type BurnSettings } from './settings';
import { burnedOf, powerOfShare } from './picture-shape';
import { ringsOfPicture, type Burn, type Shape } from './shape';

/** Everything of a card that is burned by one setting, as a step of its own for programs that make their own paths. */
export interface Step {
  /** In burn order, from 1. */
  readonly number: number;
  /** "03 cell 12" */
  readonly name: string;
  readonly does: Shape['do'];
  readonly settings: BurnSettings;
  readonly shapes: readonly Shape[];
  /** Cells by index; none for frame and common burns. */
  readonly cells: readonly number[];
}

interface Named {
  readonly what: string;
  readonly cell: Cell | null;
  readonly burn: Burn;
}

/** Programs that make their own paths know one power for a shape: a picture whose power follows grey is so many of them. */
const POWERS_OF_PICTURE = 16;

/** A burn as burns of one power each: a picture whose power follows grey as areas of a few powers, each at the middle of its range. */
function byPower(burn: Burn): Burn[] {
  const { shape, settings } = burn;
  if (shape.do !== 'picture' || shape.mode !== 'power') return [burn];
  const burned = burnedOf(shape);
  return Array.from({ length: POWERS_OF_PICTURE }, (_, step) => step).flatMap((step): Burn[] => {
    const isOfStep = (share: number): boolean =>
      share > 0 && Math.min(POWERS_OF_PICTURE - 1, Math.floor(share * POWERS_OF_PICTURE)) === step;
    const lies = settings.direction === 'horizontal';
    const area = ringsOfPicture(shape, lies, burned, (share) => (isOfStep(share) ? 1 : 0));
    const powerFraction = powerOfShare(shape, (step + 0.5) / POWERS_OF_PICTURE, settings.powerFraction);
    return area.length === 0
      ? []
      : [{ ...burn, shape: { do: 'sweep', area }, settings: { ...settings, powerFraction } }];
  });
}

/** All burns of a card in the order they are burned in. */
function burnsInOrder(layout: Layout, machine: Pick<Machine, 'rampPower' | 'head'>): Named[] {
  const common = (burns: readonly Burn[]): Named[] => burns.map((burn) => ({ what: 'common', cell: null, burn }));
  return [
    ...frameBurns(layout, machine).map(({ name, burn }) => ({ what: name.split(' ')[0]!, cell: null, burn })),
    ...common(layout.before),
    ...layout.order.flatMap((index) => {
      const cell = layout.cells[index]!;
      return cell.burns.flatMap(byPower).map((burn) => ({ what: 'cell', cell, burn }));
    }),
    ...common(layout.after),
  ];
}

/**
 * A card's burns gathered by setting: one step for each distinct one, in the order in which it is first needed, so that a program that
 * works through its layers from the first to the last burns the riskiest cells last. Areas to be filled and lines to be followed are
 * never in one step.
 */
export function cardSteps(layout: Layout, machine: Pick<Machine, 'rampPower' | 'head'>): Step[] {
  const steps = new Map<string, { what: string; burn: Burn; shapes: Shape[]; cells: number[] }>();
  for (const { what, cell, burn } of burnsInOrder(layout, machine)) {
    const key = `${burn.shape.do} ${settingsText(burn.settings)}`;
    const step = steps.get(key) ?? { what, burn, shapes: [], cells: [] };
    step.shapes.push(burn.shape);
    if (cell) step.cells.push(cell.index);
    steps.set(key, step);
  }
  return [...steps.values()].map(({ what, burn, shapes, cells }, index) => {
    const unique = [...new Set(cells)];
    const which = unique.length === 0 ? '' : ` ${unique.map((cell) => cell + 1).join(' ')}`;
    return {
      number: index + 1,
      name: `${String(index + 1).padStart(2, '0')} ${unique.length > 1 ? 'cells' : what}${which}`,
      does: burn.shape.do,
      settings: burn.settings,
      shapes,
      cells: unique,
    };
  });
}
