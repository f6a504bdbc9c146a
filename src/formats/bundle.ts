import { strToU8, zipSync } from 'fflate';
import type { BedPlace } from '../core/card/check';
import type { Pairing } from '../core/card/contract';
import type { Layout } from '../core/card/layout';
import { cardSteps } from '../core/card/steps';
import type { WorkSetup } from '../core/card/work-setup';
import { outlineStep } from './outline';
import { listOfSteps } from './settings-list';
import { dxfOfSteps } from './steps-dxf';
import { svgOfSteps } from './steps-svg';

/** The earliest moment a zip can name: equal cards give equal bytes. */
const NO_TIME = new Date(1980, 0, 1);

/**
 * A card for machines that take no G-code, as a zip: the drawing as SVG and as DXF with one group or layer for each setting, what to set for
 * each of them as a page to be printed, the outline alone in both formats, and a picture. Equal input gives equal bytes.
 */
export function bundleOfCard(
  layout: Layout,
  pairing: Pairing,
  { bed, setup, png }: { readonly bed: BedPlace; readonly setup: WorkSetup; readonly png: Uint8Array },
): Uint8Array {
  const steps = cardSteps(layout, pairing.machine);
  const outline = [outlineStep(layout, pairing.machine)];
  const name = `card-${layout.code}`;
  const files = {
    [`${name}.svg`]: strToU8(svgOfSteps(steps, layout)),
    [`${name}.dxf`]: strToU8(dxfOfSteps(steps, layout)),
    [`${name}-settings.html`]: strToU8(listOfSteps(steps, layout, pairing, { bed, setup })),
    [`${name}-outline.svg`]: strToU8(svgOfSteps(outline, layout)),
    [`${name}-outline.dxf`]: strToU8(dxfOfSteps(outline, layout)),
    [`${name}.png`]: png,
  };
  return zipSync(files, { mtime: NO_TIME });
}
