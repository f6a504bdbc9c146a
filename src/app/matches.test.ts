import { expect, it } from 'vitest';
import type { AppContext } from './context';
import { receiveMatchPhoto } from './matches';
import { PHOTO_LIMITS } from '../workers/open-photo';

it('a photo beside a frame sheet is taken up to 25 MB, and nothing of a larger one is looked at', async () => {
  const sent = (bytes: number) => receiveMatchPhoto({} as AppContext, Buffer.alloc(bytes), 'a.jpg');
  await expect(sent(PHOTO_LIMITS.bytes + 1)).rejects.toMatchObject({ code: 'photo-too-large' });
  // As large as may be it is looked at, and is no photo.
  await expect(sent(PHOTO_LIMITS.bytes)).rejects.not.toMatchObject({ code: 'photo-too-large' });
});
