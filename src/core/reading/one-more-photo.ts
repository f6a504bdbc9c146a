import { LOW_CONFIDENCE, type CellReading, type Doubt } from './observations';

/** How the next photo should be taken, to tell what the ones before could not. */
export type NextPhoto = 'turned' | 'darker' | 'closer' | 'flat' | 'same-light' | 'to-decide';

/** What another photo mends. What lies in the piece itself no photo does; a camera of which nothing is known asks for two, whatever they show. */
const MENDS: Readonly<Partial<Record<Doubt, NextPhoto>>> = {
  reflection: 'turned',
  'far-from-bare-stock': 'turned',
  'photos-disagree': 'to-decide',
  clipped: 'darker',
  'stock-clipped': 'darker',
  blurred: 'closer',
  'off-frame': 'flat',
  'few-markers': 'flat',
  'tones-unsure': 'same-light',
};

export interface OneMorePhoto {
  readonly how: NextPhoto;
  /** Indexes of the cells that it would tell, in order. */
  readonly cells: readonly number[];
}

/** The one more photo that would help most: the kind of it that most of the cells in doubt ask for; null where no photo would help. */
export function oneMorePhoto(readings: readonly CellReading[]): OneMorePhoto | null {
  const asked = new Map<NextPhoto, number[]>();
  for (const { cellIndex, confidence, doubts } of readings) {
    if (confidence >= LOW_CONFIDENCE || !doubts.every((doubt) => MENDS[doubt])) continue;
    const how = doubts[0] && MENDS[doubts[0]];
    if (how) asked.set(how, [...(asked.get(how) ?? []), cellIndex]);
  }
  const most = [...asked].sort(([, a], [, b]) => b.length - a.length)[0];
  return most ? { how: most[0], cells: [...most[1]].sort((a, b) => a - b) } : null;
}
