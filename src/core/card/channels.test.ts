import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../quantities/format';
import { CHANNELS, letterOf, levelWords, signed, type ChannelId } from './channels';

const liked = DEFAULT_LIKED_UNITS;

describe('what varies from cell to cell', () => {
  it('is told in the order of power, speed, interval and the rest, words as they are', () => {
    expect(levelWords({ speed: 120, power: 0.35 }, liked)).toEqual(['35 %', '120 mm/s']);
    expect(levelWords({ side: 'outside', size: 20 }, liked)).toEqual(['20 mm', 'outside']);
    expect(levelWords({ passes: 3, interval: 0.1 }, liked)).toEqual(['0.1 mm', '3 passes']);
    expect(levelWords({}, liked)).toEqual([]);
  });
  it('shows raised and lowered focus with its sign, and none at the focus itself', () => {
    expect([1.5, 0, -1.5].map((mm) => CHANNELS.focus.show(mm, liked))).toEqual(['+1.5 mm', '0 mm', '-1.5 mm']);
    expect([1.5, 0, -1.5].map(signed)).toEqual(['+1.5', '0', '-1.5']);
  });
  it('is lettered as a bare number, with its unit in the caption', () => {
    expect(letterOf('speed', 60, { ...liked, speed: 'mm/min' })).toEqual({
      text: '3600',
      unit: 'mm/min',
      means: '3600 mm/min',
    });
    expect(letterOf('passes', 2, liked)).toEqual({ text: '2', unit: '', means: '2 passes' });
    expect(letterOf('air', 2, liked)).toMatchObject({ text: 'ON', unit: '' });
    expect(letterOf('air', 9, liked).text).toBe('?');
  });
  it('has a name of its own for each', () => {
    const names = (Object.keys(CHANNELS) as ChannelId[]).map((id) => CHANNELS[id].name);
    expect(new Set(names).size).toBe(names.length);
    for (const name of names) expect(name).toMatch(/^[A-Z][a-z]{2,}/);
  });
});
