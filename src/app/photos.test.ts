import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { photoTypeOf } from './photos';

const picture = sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } });
const bytes = (...parts: (string | number)[]): Buffer =>
  Buffer.concat(parts.map((part) => (typeof part === 'string' ? Buffer.from(part, 'latin1') : Buffer.from([part]))));

describe('what a file is, by its own bytes', () => {
  it('is one of three that are opened', async () => {
    expect(await photoTypeOf(await picture.jpeg().toBuffer())).toBe('image/jpeg');
    expect(await photoTypeOf(await picture.png().toBuffer())).toBe('image/png');
    expect(await photoTypeOf(await picture.webp().toBuffer())).toBe('image/webp');
  });
  it.each(['heic', 'heix', 'mif1', 'msf1', 'avif'])('is a phone’s own format, told what to set: %s', async (brand) => {
    const file = bytes(0, 0, 0, 24, `ftyp${brand}`, 0, 0, 0, 0, 'mif1', brand);
    await expect(photoTypeOf(file)).rejects.toMatchObject({ code: 'photo-heic' });
  });
  it.each([
    bytes('RIFF', 0, 0, 0, 0, 'WAVEfmt '),
    bytes('<svg xmlns="http://www.w3.org/2000/svg">'),
    bytes('GIF89a', 1, 0, 1, 0, 0, 0, 0),
    bytes('%PDF-1.7'),
    bytes(0xff, 0xd8),
    bytes('\x89PNG\r\n\x1a\n'),
    Buffer.alloc(0),
  ])('or is refused: %#', async (file) => {
    await expect(photoTypeOf(file)).rejects.toMatchObject({ code: 'photo-not-readable' });
  });
});
