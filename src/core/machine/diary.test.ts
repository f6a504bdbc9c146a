import { describe, expect, it } from 'vitest';
import { FACTS } from '../book/facts';
import { DIARY_KIND_NAMES, diaryReasons, diaryWords, doubtsOf, wattsChange, type DiaryEntry } from './diary';

const entry = (day: string, kind: DiaryEntry['kind'], watts?: number, command = 0.8): DiaryEntry => ({
  at: `2026-05-${day}T12:00:00.000Z`,
  kind,
  note: '',
  reading: watts === undefined ? null : { command, watts },
  share: null,
});
const SINCE = '2026-05-10T00:00:00.000Z';
const reasons = (of: readonly DiaryEntry[], fact: keyof typeof FACTS) => diaryReasons(of, SINCE, FACTS[fact].staleBy);

describe('a machine’s diary', () => {
  it('makes doubtful what came before it, by what it is, and nothing that came after', () => {
    const cleaned = [entry('12', 'cleaned'), entry('02', 'source')];
    expect(reasons(cleaned, 'engrave')).toEqual(['optics cleaned on 2026-05-12']);
    // How far off focus is, and when the beam fires, no cleaning changes.
    for (const fact of ['focus', 'lag', 'runUp', 'spot', 'thickness'] as const)
      expect(reasons(cleaned, fact)).toEqual([]);
    expect(reasons([entry('12', 'aligned')], 'focus')).toEqual(['mirrors or lens aligned on 2026-05-12']);
    expect(reasons([entry('12', 'repaired')], 'runUp')).toHaveLength(1);
    expect(reasons([entry('12', 'repaired')], 'lag')).toHaveLength(1);
    expect(reasons([entry('12', 'repaired')], 'engrave')).toEqual([]);
    expect(reasons([entry('12', 'levelled')], 'bed')).toEqual(['bed levelled or moved on 2026-05-12']);
    expect(reasons([entry('12', 'levelled')], 'engrave')).toEqual([]);
    for (const fact of ['engrave', 'focus', 'lag', 'runUp', 'watts', 'kerf'] as const)
      expect(reasons([entry('12', 'fire')], fact)).toHaveLength(1);
    for (const kind of DIARY_KIND_NAMES) expect(reasons([entry('12', kind)], 'thickness')).toEqual([]);
    expect(reasons([entry('12', 'note')], 'engrave')).toEqual([]);
  });
  it('tells all of it, in the order in which it happened', () => {
    expect(reasons([entry('20', 'source'), entry('12', 'cleaned')], 'floor')).toEqual([
      'optics cleaned on 2026-05-12',
      'source replaced on 2026-05-20',
    ]);
  });
  it('goes by a meter where it shows otherwise than before at the same power', () => {
    const first = entry('01', 'watts', 10);
    const same = entry('12', 'watts', 9.6);
    const weak = entry('14', 'watts', 8.64);
    const other = entry('16', 'watts', 3, 0.4);
    const all = [first, same, weak, other];
    expect(all.map((one) => wattsChange(all, one)?.toFixed(3))).toEqual([undefined, '-0.040', '-0.100', undefined]);
    expect(all.map((one) => doubtsOf(all, one).length)).toEqual([0, 0, 1, 0]);
    expect(reasons(all, 'engrave')).toEqual(['10 % fewer watts measured on 2026-05-14']);
    expect(diaryWords(all, first)).toBe('watts measured by a meter');
    expect(diaryWords([weak, entry('20', 'watts', 9.504)], entry('20', 'watts', 9.504))).toBe(
      '10 % more watts measured',
    );
    // What was struck out is not among the entries, and changes nothing.
    expect(
      reasons(
        all.filter((one) => one !== weak),
        'engrave',
      ),
    ).toEqual([]);
  });
  it('goes by a card that was burned again, where it tells that the machine gives otherwise than before', () => {
    const told = (day: string, share: number): DiaryEntry => ({ ...entry(day, 'inferred'), share });
    const weak = told('12', 0.91);
    expect(wattsChange([weak], weak)).toBeCloseTo(-0.09, 12);
    expect(doubtsOf([weak], weak)).toEqual(['power']);
    expect(reasons([weak], 'engrave')).toEqual(['9 % fewer watts inferred from a card on 2026-05-12']);
    expect(reasons([weak], 'focus')).toEqual([]);
    expect(reasons([told('12', 1.08)], 'kerf')).toEqual(['8 % more watts inferred from a card on 2026-05-12']);
    // As a meter repeats itself.
    expect(doubtsOf([], told('12', 0.96))).toEqual([]);
    // No meter's reading is compared with it.
    const meter = entry('14', 'watts', 10);
    expect(wattsChange([weak, meter], meter)).toBeNull();
  });
});
