import { describe, expect, it } from 'vitest';
import { redoneReasons, type KeptHistory } from './redone';

const version = (value: object, day: string, sigma: number | null = null) => ({
  value: value as never,
  sigma,
  createdAt: `2026-11-${day}T10:00:00.000Z`,
});
const floor = (...versions: KeptHistory['versions']): KeptHistory => ({ name: 'floor', at: {}, versions });
const ceiling = { name: 'ceiling', createdAt: '2026-11-10T10:00:00.000Z' } as const;

describe('a rung below that was done again', () => {
  it('makes doubtful what was kept before, with what it says now and what it said then', () => {
    expect(
      redoneReasons(ceiling, [
        floor(
          version({ powerFraction: 0.08 }, '12'),
          version({ powerFraction: 0.05 }, '09'),
          version({ powerFraction: 0.07 }, '01'),
        ),
      ]),
    ).toEqual(['Threshold redone on 2026-11-12: floor 8 %, was floor 5 %']);
  });

  it('says nothing where it came out the same: within a twentieth, or within two of its sigmas', () => {
    const again = (to: number, sigma: number | null = null) =>
      redoneReasons(ceiling, [
        floor(version({ powerFraction: to }, '12', sigma), version({ powerFraction: 0.1 }, '09', sigma)),
      ]);
    expect(again(0.104)).toEqual([]);
    expect(again(0.106)).toHaveLength(1);
    expect(again(0.094)).toHaveLength(1);
    // Two sigmas of both together: 2 · sqrt(2) · 0.01.
    expect(again(0.128, 0.01)).toEqual([]);
    expect(again(0.129, 0.01)).toHaveLength(1);
  });

  it('says nothing of what was first done after, of what was kept since, and of rungs that it does not stand on', () => {
    expect(redoneReasons(ceiling, [floor(version({ powerFraction: 0.08 }, '12'))])).toEqual([]);
    const moved = floor(version({ powerFraction: 0.08 }, '12'), version({ powerFraction: 0.05 }, '09'));
    expect(redoneReasons({ ...ceiling, createdAt: '2026-11-13T10:00:00.000Z' }, [moved])).toEqual([]);
    expect(redoneReasons({ ...ceiling, name: 'interval' }, [moved])).toEqual([]);
    expect(redoneReasons({ ...ceiling, name: 'floor' }, [moved])).toEqual([]);
    // What answers no rung stands on none.
    expect(redoneReasons({ ...ceiling, name: 'watts' }, [moved])).toEqual([]);
    // Two rungs up it counts too.
    expect(redoneReasons({ ...ceiling, name: 'tone' }, [moved])).toHaveLength(1);
    expect(redoneReasons({ ...ceiling, name: 'photo' }, [moved])).toHaveLength(1);
  });

  it('takes a setting by the energy it lays down, and no shade beside the usual one', () => {
    const setting = (powerFraction: number, speedMmPerS: number, day: string, more = {}) =>
      version(
        {
          settings: { powerFraction, speedMmPerS, intervalMm: 0.1, passes: 1, ...more },
          lightness: 50,
          lightnessSigma: 0.5,
          confidence: 1,
        },
        day,
        0.5,
      );
    const grid = (at: object, ...versions: KeptHistory['versions']): KeptHistory[] => [
      { name: 'engrave', at: at as never, versions },
    ];
    expect(redoneReasons(ceiling, grid({}, setting(0.4, 200, '12'), setting(0.2, 100, '09')))).toEqual([]);
    expect(redoneReasons(ceiling, grid({}, setting(0.3, 100, '12'), setting(0.2, 100, '09')))).toEqual([
      'Grid redone on 2026-11-12: 30 %, 100 mm/s, was 20 %, 100 mm/s',
    ]);
    expect(
      redoneReasons(ceiling, grid({}, setting(0.2, 100, '12', { passes: 2 }), setting(0.2, 100, '09'))),
    ).toHaveLength(1);
    // Two passes at twice the speed lay down as much.
    expect(redoneReasons(ceiling, grid({}, setting(0.2, 200, '12', { passes: 2 }), setting(0.2, 100, '09')))).toEqual(
      [],
    );
    expect(
      redoneReasons(ceiling, grid({}, setting(0.2, 100, '12', { intervalMm: 0.2 }), setting(0.2, 100, '09'))),
    ).toHaveLength(1);
    expect(redoneReasons(ceiling, grid({ shade: 'pale' }, setting(0.3, 100, '12'), setting(0.2, 100, '09')))).toEqual(
      [],
    );
  });

  it('goes by ceilings, intervals and tone tables too', () => {
    const history = (name: KeptHistory['name'], now: object, then: object): KeptHistory[] => [
      { name, at: {}, versions: [version(now, '12'), version(then, '09')] },
    ];
    const tone = { ...ceiling, name: 'tone' } as const;
    expect(redoneReasons(tone, history('ceiling', { powerFraction: 0.5 }, { powerFraction: 0.4 }))).toHaveLength(1);
    expect(redoneReasons(tone, history('interval', { intervalMm: 0.12 }, { intervalMm: 0.1 }))).toHaveLength(1);
    expect(
      redoneReasons({ ...ceiling, name: 'photo' }, history('tone', { strongest: 40 }, { strongest: 30 })),
    ).toHaveLength(1);
    // A line's width is what nothing stands on.
    expect(redoneReasons(tone, history('line', { widthMm: 0.2 }, { widthMm: 0.1 }))).toEqual([]);
  });
});
