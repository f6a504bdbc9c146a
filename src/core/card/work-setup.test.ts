import { describe, expect, it } from 'vitest';
import { isSaid, momentWords, nextPhotoShows, setupChecks, setupWords, UNSAID_SETUP } from './work-setup';

describe('how a sheet is set up', () => {
  it('asks nothing where nothing was said', () => {
    expect(setupChecks(UNSAID_SETUP)).toEqual([]);
    expect(setupWords(UNSAID_SETUP)).toEqual([]);
    expect(isSaid(UNSAID_SETUP)).toBe(false);
  });
  it('checks what holds the sheet also where nobody said how the focus was set', () => {
    const setup = { ...UNSAID_SETUP, support: 'pins', heldBy: 'magnets' } as const;
    expect(setupChecks(setup)).toEqual(['The sheet lies on pins, held by magnets.']);
    expect(isSaid(setup)).toBe(true);
  });
  it('names face and focus, and what is done afterwards', () => {
    const setup = { ...UNSAID_SETUP, masked: true, coatedWith: 'chalk white', focusSetBy: 'spacer', airPressureKPa: 80, finish: 'washed' } as const; // prettier-ignore
    expect(setupChecks(setup)).toEqual([
      'The face is masked without bubbles, coated with chalk white.',
      'The sheet lies on the bare bed, focus set by a spacer.',
    ]);
    expect(setupWords(setup).join('; ')).toContain('air: 80 kPa; washed afterwards, looked at before the finish');
  });
});

describe('a photo before or after the finish', () => {
  const washed = { ...UNSAID_SETUP, finish: 'washed' } as const;
  it('shows what the piece is to be looked at as, and of both first the one before', () => {
    expect(nextPhotoShows(UNSAID_SETUP, [])).toBeNull();
    expect(nextPhotoShows({ ...washed, lookedAt: 'after' }, [])).toBe('after');
    expect(nextPhotoShows({ ...washed, lookedAt: 'before' }, ['before'])).toBe('before');
    expect(nextPhotoShows({ ...washed, lookedAt: 'both' }, [null])).toBe('before');
    expect(nextPhotoShows({ ...washed, lookedAt: 'both' }, ['before', null])).toBe('after');
  });
  it('says so in words, and nothing where nothing is done or known', () => {
    expect(momentWords(washed, 'before')).toBe('before it is washed');
    expect(momentWords(washed, 'after')).toBe('after it was washed');
    expect(momentWords(washed, null)).toBeNull();
    expect(momentWords(UNSAID_SETUP, 'after')).toBeNull();
  });
});
