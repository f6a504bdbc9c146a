import { cellPlaces } from '../../core/card/cell-places';
import type { Layout } from '../../core/card/layout';
import { plainNumber } from '../../core/quantities/format';
import type { FaultName, PhotoFault } from '../../core/reading/photo-faults';

export interface FaultWords {
  /** What is wrong, short enough to stand on the photo. */
  readonly name: string;
  /** The same, and where. */
  readonly what: string;
  /** What was done about it, and what whoever takes the photo can do. */
  readonly so: string;
}

type Said = Omit<FaultWords, 'what'>;

const percent = (share: number): string => `${plainNumber(100 * share, 2)} %`;

const WORDS: Readonly<Record<FaultName, (amount: number) => Said>> = {
  overexposed: (share) => ({
    name: 'Overexposed',
    so: `${percent(share)} of the bare stock is as bright as the camera can tell, and what is left of it looks too dark. Take it again with the exposure set darker, or with less light.`,
  }),
  reflection: (share) => ({
    name: 'A lamp’s reflection',
    so: `It adds light, up to ${percent(share)} of white. It was taken off as far as the stock’s colour tells it. Turn the card, move the lamp aside or shade it.`,
  }),
  shadow: (leaves) => ({
    name: 'A shadow’s edge',
    so: `Beyond it there is ${percent(leaves)} of the light. Both sides were levelled. Keep hands and camera out of the lamp’s way.`,
  }),
  smoke: (takes) => ({
    name: 'Smoke round strong cells',
    so: `It takes up to ${percent(takes)} of the light off bare stock, and was divided out there. It may lie on the cells too: clean the piece, or mask the next one.`,
  }),
  'too-far': (pxPerMm) => ({
    name: 'Too far away',
    so: `The card is seen with ${plainNumber(pxPerMm, 2)} pixels for each millimetre, and 8 are wanted. Come closer, until the card fills most of the picture.`,
  }),
  'out-of-focus': (widthMm) => ({
    name: 'Not sharp',
    so: `Edges are ${plainNumber(widthMm, 2)} mm wide, and cells and bare stock run into each other. Tap on the card to focus, and hold still or rest your hands.`,
  }),
  'too-dark': (stops) => ({
    name: 'Dark',
    so: `It holds ${plainNumber(stops, 2)} stops less light than the camera could, so that dark cells are noise. Give it more light, or set the exposure brighter.`,
  }),
  'more-light': (share) => ({
    name: 'More light on it',
    so: `Another photo of this piece has more contrast, as if ${percent(share)} of white lay over this one from a bright wall or window in its mirror. Tones go by the other photo, and are less sure: as much may lie over that too. Hold something dark behind the camera and take one more.`,
  }),
  'not-flat': (offMm) => ({
    name: 'Not flat',
    so: `The markers lie ${plainNumber(offMm, 2)} mm beside where a flat card has them. Press the card flat at its edges and take it again.`,
  }),
};

/** A lamp's reflection lies in one place. What lies over most of a card is a bright wall, or no light at all. */
const isWide = (touched: readonly number[], { cells }: Pick<Layout, 'cells'>): boolean =>
  touched.length > cells.filter((cell) => !cell.leftOut).length / 2;

const veilWords = (share: number): Said => ({
  name: 'A veil of light, or bent tones',
  so: `Bare stock looks paler there by up to ${percent(share)} of white, as under a bright wall or window, or by a camera that bends tones. Turn the card away from it; a second photo, set one to two stops darker, tells which.`,
});

/** A fault of a photo in the words of somebody who can do something about it. */
export function faultWords({ fault, amount, cells }: PhotoFault, layout: Pick<Layout, 'cells'>): FaultWords {
  const { name, so } = fault === 'reflection' && isWide(cells, layout) ? veilWords(amount) : WORDS[fault](amount);
  const where = cellPlaces(layout, cells);
  return { name, what: where === '' ? name : `${name} ${fault === 'shadow' ? 'across' : 'over'} ${where}`, so };
}
