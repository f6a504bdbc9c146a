import { describe, expect, it } from 'vitest';
import type { Homography } from '../geometry/homography';
import { readEitherFace } from './either-face';

/** Two by one pixels, left and right told apart. */
const photo = { width: 2, height: 1, data: Uint8Array.of(1, 2, 3, 4, 5, 6) };
const SHIFT: Homography = [1, 0, 5, 0, 1, 0, 0, 0, 1];
type Outcome = { readonly outcome: string; readonly toPhoto?: Homography };
/** What is read of the photo as it is and of its mirror image, and which of them were looked at. */
function read(asItIs: Outcome, mirrored: Outcome) {
  const looked: boolean[] = [];
  const result = readEitherFace(100, ({ isMirrored, turn }): Outcome => {
    looked.push(isMirrored);
    expect([...turn(photo).data]).toEqual(isMirrored ? [4, 5, 6, 1, 2, 3] : [1, 2, 3, 4, 5, 6]);
    return isMirrored ? mirrored : asItIs;
  });
  return { result, looked };
}
const NONE = { outcome: 'needs-corners' };

describe('either face of a card', () => {
  it('is read as it is where that shows the card, and its mirror image is not looked at', () => {
    for (const asItIs of [{ outcome: 'read', toPhoto: SHIFT }, { outcome: 'unreadable' }])
      expect(read(asItIs, NONE)).toEqual({ result: asItIs, looked: [false] });
  });
  it('is read mirrored where only that shows it, with its map into the photo as it is', () => {
    const { result, looked } = read(NONE, { outcome: 'read', toPhoto: SHIFT });
    expect(looked).toEqual([false, true]);
    // What lies at 5 of 100 pixels in the mirror image lies at 94.
    expect(result).toEqual({ outcome: 'read', toPhoto: [-1, 0, 94, 0, 1, 0, 0, 0, 1] });
    expect(read(NONE, { outcome: 'other-card' }).result).toEqual({ outcome: 'other-card' });
  });
  it('is as it was where neither shows it', () => {
    const asItIs = { ...NONE, markers: 2 };
    expect(read(asItIs, NONE).result).toBe(asItIs);
  });
});
