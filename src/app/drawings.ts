import { readSvg, SvgFault, type ReadSvg } from '../formats/read-svg';
import { Problem } from './problems';

/** The lines of an SVG drawing, and what of it is left out. Throws a Problem that says why it cannot be taken. */
export function readDrawing(text: string, name: string): ReadSvg {
  try {
    return readSvg(text, name);
  } catch (error) {
    if (!(error instanceof SvgFault)) throw error;
    throw new Problem('invalid-input', error.message, 'The drawing before still stands.');
  }
}
