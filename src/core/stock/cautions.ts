import { SOURCE_NAMES, type Machine } from '../machine/machine';
import { familyOf } from './families';
import type { Stock } from './stock';

/** One line to be ticked before each burn, with the longer text behind it. */
export interface Caution {
  readonly code: string;
  readonly text: string;
  readonly more: string;
}

/**
 * The pre-burn check for a pairing, to be ticked each time. Usual shop cautions; local codes and licensed practice come first.
 * Throws RangeError for a stock whose family is unknown: such stock is stopped before it gets here.
 */
export function preBurnCautions(machine: Machine, stock: Stock): Caution[] {
  const family = familyOf(stock.family);
  const cautions: Caution[] = [
    {
      code: 'attended',
      text: 'I stay with the machine until it has stopped and cooled.',
      more: 'Never run a laser unattended. Flare-ups start in fine detail, in resin and on slow, strong cells. A flame sensor is a help, not a guard.',
    },
    {
      code: 'fire',
      text: 'Extinguisher and water are at hand; the debris tray is empty.',
      more: 'Crumbs under the bed catch fire first. Know how to reach the stop and the main switch.',
    },
    {
      code: 'fumes',
      text: 'Extraction is running.',
      more: 'Start extraction before the beam. Leather, MDF, rubber and acrylic fumes are the worst.',
    },
    {
      code: 'eyes',
      text: `Lid and interlocks are closed, or eyewear rated for ${machine.wavelengthNm} nm is on.`,
      more: `Eyewear must be rated for this wavelength (${SOURCE_NAMES[machine.sourceKind]}, ${machine.wavelengthNm} nm); eyewear for another source gives no protection. Glossy faces and metal throw the beam back.`,
    },
    {
      code: 'material',
      text: `The sheet is what the label says: ${stock.name}${stock.batch ? `, batch ${stock.batch}` : ''}.`,
      more: 'PVC and vinyl, fluoropolymers, polycarbonate, ABS, composites, unknown plastics and coatings, and leather of unknown tanning are never burned.',
    },
    {
      code: 'flat',
      text: 'The sheet lies flat and is held; the head and its run-up are clear.',
      more: 'Warped stock shifts focus. Clamps must be lower than the head’s path, run-up included.',
    },
  ];
  family.cautions.forEach((text, index) => {
    cautions.push({ code: `family-${index + 1}`, text, more: `${family.name}: a usual caution of this family.` });
  });
  return cautions;
}
