import { beforeEach, describe, expect, it } from 'vitest';
import { PLACE } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import type { Seen } from '../../core/card/asks';
import { estimateCard } from '../../core/card/estimate';
import { layCard, planProblems } from '../../core/card/lay';
import { offsetOnTilt, spacerAwayMm } from '../../core/card/tilt';
import type { CellReading } from '../../core/reading/observations';
import { programOfCard } from '../../formats/gcode';
import { leastBoardMm, type FocusPlan } from './plan';
import { focus } from '.';

const pairing = demoPairing('heron', 'leather');
const known = { pairing, facts: [] };
let byHand: FocusPlan;
let tilted: FocusPlan;
beforeEach(() => {
  byHand = focus.propose(known).plan;
  tilted = focus.follow({ ...byHand, way: 'tilt' }, 'way', byHand, pairing);
});
const lay = (plan: FocusPlan = tilted, on = pairing) => layCard(focus, plan, on, { cardNumber: 5 });

/** Lines that show most at a waist, and less by the beam's own law to both sides. */
const seenAt = (layout: ReturnType<typeof lay>, waistMm: number): Seen => ({
  readings: layout.cells.map(({ index, levels }) => {
    const visibility = 0.6 * Math.exp(-(((Number(levels.focus) - waistMm) / 1.4) ** 2));
    return {
      cellIndex: index,
      lines: { visibility, visibilitySigma: 0.004, pitchMm: 0.2, gapMm: null, gapSigmaMm: null },
    } as unknown as CellReading;
  }),
  answers: [],
});

describe('a focus card over a tilted board', () => {
  it('has more patches over a wider range than a hand would stop at, both sides alike', () => {
    expect(tilted.focus.count).toBeGreaterThan(2 * byHand.focus.count);
    expect(tilted.focus.to).toBeGreaterThan(byHand.focus.to);
    expect(tilted.focus.from).toBe(-tilted.focus.to);
    expect(tilted.setup.support).toBe('board');
    expect(planProblems(focus, tilted, pairing)).toEqual([]);
    expect(focus.follow({ ...tilted, way: 'stops' }, 'way', tilted, pairing)).toEqual(byHand);
    expect(focus.follow({ ...byHand, patchMm: 7 }, 'patchMm', byHand, pairing).focus).toEqual(byHand.focus);
  });
  it('lies under a head that stays where it was set, each patch where the board brings it to its offset', () => {
    const layout = lay();
    for (const { burns, levels, box } of layout.cells) {
      expect(burns[0]!.settings.focusOffsetMm).toBe(0);
      expect(offsetOnTilt(layout.tilt!, box.x + box.width / 2)).toBeCloseTo(Number(levels.focus), 3);
    }
    expect(lay(byHand).tilt).toBeUndefined();
    expect(lay(byHand).cells[0]!.burns[0]!.settings.focusOffsetMm).toBe(byHand.focus.from);
  });
  it('is burned in one go once a hand has tilted the board: nothing before that', () => {
    const layout = lay();
    const { text, parts } = programOfCard(layout, pairing.machine, PLACE);
    const stops = text.split('\n').flatMap((line, index) => (line.startsWith('M0') ? [index] : []));
    expect(stops).toHaveLength(1);
    const firstCut = text.split('\n').findIndex((line) => /^G1 .*S[1-9]/.test(line));
    expect(stops[0]!).toBeLessThan(firstCut);
    expect(parts.find(({ hand }) => hand)!.hand).toEqual({
      text: expect.stringMatching(/^tilt the board: /),
      focusOffsetMm: null,
    });
    expect(estimateCard(layout, pairing.machine).handStops).toBe(1);
    expect(layout.together).toEqual([layout.cells.map(({ index }) => index)]);
  });
  it('stands on a spacer beyond the card, or is refused; steep ones and those that do not go through 0 are, too', () => {
    const fields = (change: Partial<FocusPlan>) =>
      planProblems(focus, { ...tilted, ...change }, pairing).map(({ field }) => field);
    const layout = lay();
    expect(spacerAwayMm(layout.tilt!)).toBeGreaterThan(layout.widthMm);
    expect(spacerAwayMm(layout.tilt!)).toBeGreaterThanOrEqual(leastBoardMm(tilted));
    expect(fields({ spacerMm: tilted.spacerMm - 1 })).toEqual(['spacerMm']);
    expect(fields({ spacerMm: 61 })).toEqual(['spacerMm']);
    expect(fields({ focus: { ...tilted.focus, from: 0.5 } })).toEqual(['focus.from']);
    expect(fields({ focus: { ...tilted.focus, to: -0.5 } })).toContain('focus.from');
    expect(fields({ focus: { ...tilted.focus, count: 4 }, spacerMm: 30 })).toEqual(['focus.to']);
    // What does not tilt asks for none of that.
    expect(planProblems(focus, { ...byHand, spacerMm: 1 }, pairing)).toEqual([]);
    const paths = (plan: FocusPlan) => focus.fields(plan, pairing).map(({ path }) => path);
    expect([paths(tilted).includes('spacerMm'), paths(byHand).includes('spacerMm')]).toEqual([true, false]);
  });
  it('tells the waist by where along the board lines show most, and no surer than focus is set on its mark', () => {
    const layout = lay();
    const finding = focus.find(layout, seenAt(layout, 0.6), known);
    const { waistMm, waistSigmaMm, fillMm, sigmaMm, says, missing } = finding;
    expect([waistMm, missing]).toEqual([expect.closeTo(0.6, 2), []]);
    expect(says).toMatch(/sharpest at about \+0\.6 mm/);
    // A millimetre beside the mark, and what a spacer under the head leaves open.
    const least = Math.hypot(layout.tilt!.fallMmPerMm, layout.focusScatterMm!);
    expect(waistSigmaMm!).toBeGreaterThan(least);
    expect(waistSigmaMm!).toBeLessThan(1.3 * least);
    // Two hundredths of an offset for its fall: by stops, nothing of that.
    const own = finding.fit!;
    expect(waistSigmaMm!).toBeCloseTo(Math.hypot(own.waistSigmaMm, 0.02 * waistMm!), 9);
    expect(sigmaMm!).toBeCloseTo(Math.hypot(own.fillSigmaMm, 0.02 * fillMm!), 9);
    const plain = lay({ ...tilted, way: 'stops' });
    const byStops = focus.find(plain, seenAt(plain, 0.6), known);
    expect(byStops.waistSigmaMm).toBe(byStops.fit!.waistSigmaMm);
  });
  it('says that the board may have lain level where all patches look alike', () => {
    const layout = lay();
    const answers = layout.cells.map(({ index }) => ({ field: 'gaps', cellIndex: index, repeat: 0, value: 'sharp' }));
    const finding = focus.find(layout, { readings: [], answers }, known);
    expect(finding.says).toMatch(/, or the board lay level\. Stay at 0\./);
    expect(finding).toMatchObject({ fillMm: 0, waistMm: null, waistSigmaMm: null });
    const plain = lay(byHand);
    const said = plain.cells.map(({ index }) => ({ field: 'gaps', cellIndex: index, repeat: 0, value: 'sharp' }));
    expect(focus.find(plain, { readings: [], answers: said }, known).says).not.toMatch(/board/);
  });
  it('is lettered with what is up, and crossed in no single sweep where lines run down or mirrors burn them', () => {
    const words = lay({ ...tilted, frame: { ...tilted.frame, words: 'full' } }).frame.lettering.map(({ text }) => text);
    expect(words).toContain('FOCUS MM, LEFT END UP');
    const down = { ...tilted, constants: { ...tilted.constants, direction: 'vertical' as const } };
    expect(lay(down).together).toEqual([]);
    const tern = demoPairing('tern', 'twoLayer');
    const first = focus.propose({ pairing: tern, facts: [] }).plan;
    const mirrors = focus.follow({ ...first, way: 'tilt' }, 'way', first, tern);
    expect(layCard(focus, mirrors, tern, { cardNumber: 5 }).together).toEqual([]);
  });
  it('of before boards were tilted stops at each patch', () => {
    const { way: _way, spacerMm: _spacer, ...older } = byHand;
    expect(focus.upgrade({ ...older, version: 2 })).toEqual(byHand);
    expect(() => focus.upgrade({ ...older, version: 4 })).toThrow(RangeError);
  });
});
