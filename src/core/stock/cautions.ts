import { SOURCE_NAMES, type Machine } from '../machine/machine';
import { familyOf } from './families';
import type { Stock } from './stock';

/** One line to be ticked before each burn, with the longer text behind it. */
export interface Caution {
  readonly code: string;
  readonly text: string;
  readonly more: string;
}

/** Whether the face of a stock reflects enough of a beam to be warned of: by family, or by what its coat or type is called. */
function reflects(stock: Stock): boolean {
  return (
    familyOf(stock.family).reflects === true ||
    /glaz|metal|mirror|foil|gold|silver|copper|brass|alumin|polish/i.test(`${stock.type} ${stock.coating}`)
  );
}

/**
 * The pre-burn check for a pairing, to be ticked each time. Usual shop cautions; local codes and licensed practice come first.
 * `setup` is how the card at hand is to be made ready and held, a line each. Throws RangeError for a stock whose family is unknown: such stock is stopped before it gets here.
 */
export function preBurnCautions(machine: Machine, stock: Stock, setup: readonly string[] = []): Caution[] {
  const family = familyOf(stock.family);
  const cautions: Caution[] = [
    {
      code: 'attended',
      text: 'I stay with the machine until it has stopped and cooled.',
      more: 'Never run a laser unattended. Flare-ups start in fine detail, in resin and on slow, strong cells. A flame sensor is a help, not a guard.',
    },
    {
      code: 'fire',
      text: 'An extinguisher for live machines (powder or CO2) is at hand; the debris tray is empty.',
      more: 'Water only on a smouldering piece, with the machine switched off. Crumbs under the bed catch fire first. Know how to reach the stop and the main switch.',
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
      more: 'PVC and vinyl, fluoropolymers, polycarbonate, ABS, polystyrene, composites, treated timber, unknown plastics and coatings, and leather of unknown make-up or tanning are never burned.',
    },
    {
      code: 'dry',
      text: 'Nothing on it is wet: cleaner, alcohol, paint and fresh finish have dried off.',
      more: 'Solvent vapour under a beam is a flash fire. Let wiped, painted and coated pieces dry in air first, away from the machine.',
    },
    {
      code: 'flat',
      text: 'The sheet lies flat on what carries it, and is held.',
      more: 'Warped stock shifts focus, and a loose sheet moves under air and the head’s jerks. Pins, magnets or board: whatever holds it stays out of the beam.',
    },
    {
      code: 'clearance',
      text: 'Guards stay on; the head has room under it, and no clamp stands in its way or its run-up.',
      more: 'Panels and shrouds are taken off for nothing. The head travels past the card at both ends of each line, and where the focus is lowered it travels lower: move it round the frame by hand first.',
    },
  ];
  if (machine.sourceKind === 'co2-glass') {
    cautions.push({
      code: 'coolant',
      text: 'Coolant runs through the tube and is cool.',
      more: 'A glass tube that fires without running coolant cracks within seconds. Look at the return line or the flow switch, not only at the pump.',
    });
  }
  if (family.dust === 'silica') {
    cautions.push({
      code: 'silica',
      text: 'Dust is drawn off and will be wiped up wet, not blown or swept.',
      more: 'Stone, slate and glazed tile leave dust with crystalline silica, which scars lungs. Extraction through a fine filter; a fitting mask for the clean-up.',
    });
  }
  if (reflects(stock)) {
    cautions.push({
      code: 'reflection',
      text: 'The face throws the beam back: the lid is closed, and nobody looks along the sheet.',
      more: 'Glazed, metallic and mirror-like coats reflect part of the beam, also into the lens. Start with the head clear of polished edges and clamps.',
    });
  }
  setup.forEach((text, index) => {
    cautions.push({
      code: `setup-${index + 1}`,
      text,
      more: 'As this card was planned: two burns of equal settings come out alike only where this is alike too. Soot is brushed or blown off afterwards, never rubbed in.',
    });
  });
  family.cautions.forEach((text, index) => {
    cautions.push({ code: `family-${index + 1}`, text, more: `${family.name}: a usual caution of this family.` });
  });
  return cautions;
}
