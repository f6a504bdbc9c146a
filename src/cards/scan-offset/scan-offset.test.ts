import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { fillRegion } from '../../core/card/path';
import { proposeFill } from '../../core/card/propose-fill';
import { boxOfShape } from '../../core/card/shape';
import type { DotLaw } from '../../core/motion/dot-length';
import type { LagLaw } from '../../core/motion/lag';
import type { LineSeen } from '../../core/reading/lines/single-line';
import { barsOf } from '../../core/reading/lines/bars-of-cell';
import type { CellReading } from '../../core/reading/observations';
import { cardKind } from '../registry';
import type { ScanOffsetFinding } from './find';
import { scanOffset } from '.';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'leather');
const known = { pairing, facts: [] };
const lay = (change: object = {}): Layout =>
  layCard(scanOffset, { ...scanOffset.propose(known).plan, ...change }, pairing, { cardNumber: 5 });
/** What the head does along Y as well. */
const SLOW = { from: 40, to: 160, count: 4, spacing: 'even' };
const speedOf = (layout: Layout, index: number): number => mainBurn(layout.cells[index]!).settings.speedMmPerS;

describe('a card of both ways', () => {
  it.each(['horizontal', 'vertical'] as const)(
    'burns each pair as one fill, %s: one bar by the lines there, one by the lines back, every second pair the other way round',
    (direction) => {
      const { plan } = scanOffset.propose(known);
      const layout = lay({ speed: SLOW, constants: { ...plan.constants, direction } });
      expect(layout.cells).toHaveLength(plan.speed.count * plan.repeats);
      const [along, across] = direction === 'horizontal' ? (['x', 'y'] as const) : (['y', 'x'] as const);
      layout.cells.forEach(({ box, burns }, index) => {
        expect(burns).toHaveLength(1);
        const { shape, settings } = burns[0]!;
        const lines = [...fillRegion(shape.do === 'sweep' ? shape.area : [], settings, 0)];
        expect(lines.length % 2).toBe(0);
        const start = direction === 'horizontal' ? box.x : box.y;
        lines.forEach(({ from, to, lit }, line) => {
          const isThere = to[along] > from[along];
          expect(isThere).toBe(line % 2 === 0);
          expect(lit).toHaveLength(1);
          const first = isThere !== (index % plan.repeats) % 2 > 0;
          expect((from[along] + to[along]) / 2 - start).toBeCloseTo((first ? 0.5 : 1.5) * plan.pitchMm, 3);
          expect(Math.abs(to[along] - from[along])).toBeCloseTo(plan.barWidthMm, 3);
          if (line > 0) expect(from[across] - lines[line - 1]!.from[across]).toBeCloseTo(plan.constants.intervalMm, 3);
        });
        const drawn = boxOfShape(shape);
        const long = direction === 'horizontal' ? drawn.height : drawn.width;
        expect(Math.abs(long - plan.barMm)).toBeLessThan(2 * plan.constants.intervalMm);
      });
    },
  );
  it('lays its lines half as far apart as a fill’s, and told to a tenth of a micrometre', () => {
    const usual = proposeFill(known).settings.intervalMm;
    expect(scanOffset.propose(known).plan.constants.intervalMm).toBeCloseTo(usual / 2, 4);
    // What is as for any fill says why; what is this card's own says why it is.
    const { reasons } = scanOffset.propose(known);
    for (const field of ['air', 'direction']) expect(reasons[`constants.${field}`], field).toMatch(/\w{2}/);
    expect(reasons['constants.speedMmPerS']).toBeUndefined();
  });
  it('gives every line the same energy, and a sixth less to the second and third pair, down to what fires', () => {
    const layout = lay();
    const energies = layout.cells.map((cell) => deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm);
    const { repeats } = scanOffset.propose(known).plan;
    energies.forEach((energy, index) =>
      expect(energy / energies[0]!).toBeCloseTo([1, 5 / 6, 5 / 6, 1][(index % repeats) % 4]!, 2),
    );
    const weak = { ...pairing, machine: { ...pairing.machine, lowestFiringCommand: 0.2 } };
    const { plan } = scanOffset.propose({ pairing: weak, facts: [] });
    const powers = layCard(scanOffset, plan, weak, { cardNumber: 5 }).cells.map(
      (cell) => mainBurn(cell).settings.powerFraction,
    );
    expect(Math.min(...powers)).toBeGreaterThanOrEqual(0.2199);
    expect(Math.max(...powers)).toBe(plan.constants.powerFraction);
  });
  it('goes up to the fastest that pays, or that is still as dark, without any offset', () => {
    const { plan, reasons } = scanOffset.propose(known);
    expect(plan.constants.scanOffsetMm).toBe(0);
    expect(plan.speed.to / plan.speed.from).toBeCloseTo(4, 1);
    // No darker than is seen: faster than the usual fill.
    expect(plan.speed.to).toBeGreaterThan(proposeFill(known).settings.speedMmPerS);
    const strong = { ...pairing, machine: { ...pairing.machine, ratedPowerW: 400, powerTable: null } };
    expect(scanOffset.propose({ pairing: strong, facts: [] }).reasons['speed.to']).toContain('pays');
    expect(reasons['speed.to']).toContain('cap');
    const weak = { ...pairing, machine: { ...pairing.machine, ratedPowerW: 2, powerTable: null } };
    const slower = scanOffset.propose({ pairing: weak, facts: [] });
    expect(slower.plan.speed.to).toBeLessThan(plan.speed.to);
    expect(slower.reasons['speed.to']).toContain('cap');
    // A law that is known already is not laid into the card that asks for it.
    const lag = factNow(
      'lag',
      { lagS: 1e-4, standingMm: 0, fromMmPerS: 10, toMmPerS: 900 },
      { at: { direction: 'horizontal' } },
    );
    expect(scanOffset.propose({ pairing, facts: [lag] }).plan).toEqual(plan);
  });
  it('crosses the pairs of a speed in one sweep where they lie along it, and the head runs up to them', () => {
    const { plan } = scanOffset.propose(known);
    expect(lay().together).toHaveLength(plan.speed.count);
    expect(lay({ speed: SLOW, constants: { ...plan.constants, direction: 'vertical' } }).together).toEqual([]);
    const tern = demoPairing('tern', 'twoLayer');
    const mirrors = scanOffset.propose({ pairing: tern, facts: [] });
    expect(layCard(scanOffset, mirrors.plan, tern, { cardNumber: 5 }).together).toEqual([]);
  });
  it('is refused with bars that touch, too short or too many, or faster than the head', () => {
    const { plan } = scanOffset.propose(known);
    const fields = (change: object) => scanOffset.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ pitchMm: plan.barWidthMm + 1.4 })).toEqual(['pitchMm']);
    expect(fields({ barMm: 1.5 })).toEqual(['barMm']);
    expect(fields({ barWidthMm: 0.1 })).toEqual(['barWidthMm']);
    for (const repeats of [0, 9, 1.5]) expect(fields({ repeats })).toEqual(['repeats']);
    expect(fields({ speed: { ...plan.speed, to: 1e5 } })).toEqual(['speed.to']);
    expect(fields({ speed: { ...plan.speed, from: 0 } })).not.toEqual([]);
    const { powerCap } = pairing.machine;
    expect(fields({ constants: { ...plan.constants, powerFraction: powerCap + 0.05 } })).toEqual([
      'constants.powerFraction',
    ]);
  });
});

const bar = (besideMm: number, widthMm: number | null = null, depth: number | null = null): LineSeen => ({
  depth,
  besideMm,
  besideSigmaMm: 0.001,
  widthMm,
  widthSigmaMm: widthMm === null ? null : 0.002,
  raggedMm: null,
  raggedSigmaMm: null,
  profile: null,
});

describe('what both ways say', () => {
  let layout: Layout;
  beforeEach(() => {
    layout = lay();
  });
  /** Bars of a beam so late, in a drive with so much play. */
  const seenOf = (lateS: number, playMm = 0, answers: Seen['answers'] = []): Seen => ({
    readings: layout.order.map((cellIndex) => {
      const late = lateS * speedOf(layout, cellIndex);
      return { cellIndex, bars: { there: bar(late), back: bar(-late + playMm) } } as CellReading;
    }),
    answers,
  });
  const find = (seen: Seen): ScanOffsetFinding => scanOffset.find(layout, seen, known);

  it('is how much less far the way back is laid for a beam that burns late, at each speed', () => {
    const { law, fastest, pairs, says, missing, direction } = find(seenOf(0.1e-3));
    expect([missing, direction]).toEqual([[], 'horizontal']);
    expect(pairs).toHaveLength(layout.cells.length);
    expect(law!.lagS).toBeCloseTo(0.1e-3, 9);
    const top = Math.max(...layout.order.map((index) => speedOf(layout, index)));
    expect(fastest).toMatchObject({ speedMmPerS: top, offsetMm: expect.closeTo(-0.2e-3 * top, 9) });
    expect(says).toMatch(
      /lay the lines of the way back 0\.\d+ mm less far along\. The beam is 0\.1 ms late: the offset grows with speed\./,
    );
  });
  it('is what stands at every speed by itself, and that both ways meet where nothing shows', () => {
    const { law, says } = find(seenOf(0, 0.05));
    expect(law!.standingMm).toBeCloseTo(0.05, 9);
    expect(says).toMatch(/0\.05 mm further along\. 0\.05 mm stands at every speed/);
    expect(find(seenOf(0)).says).toMatch(/^Both ways meet at /);
    expect(find(seenOf(-0.1e-3, -0.05)).says).toMatch(/0\.1 ms early, and 0\.05 mm stands/);
  });
  it('adds what was laid aside on the card itself: a second card with the offset on finds the same', () => {
    const { plan } = scanOffset.propose(known);
    layout = lay({ constants: { ...plan.constants, scanOffsetMm: -0.03 } });
    // The way back lies 0.03 mm less far by itself, and so nearer to the way there.
    expect(find(seenOf(0.1e-3, 0.03)).law).toMatchObject({
      lagS: expect.closeTo(0.1e-3, 9),
      standingMm: expect.closeTo(0, 9),
    });
  });
  it('leaves out pairs that were called incomplete', () => {
    const [first, second, third] = layout.order;
    const said = (cellIndex: number, value: string) => ({ field: 'bars', cellIndex, repeat: 0, value });
    const { pairs } = find(seenOf(1e-4, 0, [said(first!, 'one'), said(second!, 'nothing'), said(third!, 'both')]));
    expect(pairs.map(({ cellIndex }) => cellIndex)).not.toContain(first);
    expect(pairs.map(({ cellIndex }) => cellIndex)).not.toContain(second);
    expect(pairs).toHaveLength(layout.order.length - 2);
  });
  it('is nothing without a photo, without bars, of one speed, or where no lag explains it', () => {
    expect(find({ readings: [], answers: [] }).missing[0]).toContain('No photo');
    const blind = {
      readings: layout.order.map((cellIndex) => ({ cellIndex, bars: null }) as CellReading),
      answers: [],
    };
    expect(find(blind).missing[0]).toContain('15 pixels');
    const all = seenOf(1e-4);
    const one = all.readings.filter(({ cellIndex }) => speedOf(layout, cellIndex) === speedOf(layout, 0));
    expect(find({ ...all, readings: one }).missing[0]).toContain('two speeds');
    const wild = withBars(all, (place) => ({ there: bar(0), back: bar(place % 2 === 0 ? 0.1 : -0.1) }));
    const { missing, law } = find(wild);
    expect(missing[0]).toMatch(/times as much as the photo’s own doubt/);
    expect(law).toBeNull();
    for (const seen of [blind, { ...all, readings: one }, wild]) expect(scanOffset.settle(find(seen))).toEqual([]);
  });
  it('is kept for the machine and the axis, and laid into what is planned next, at its own speed', () => {
    const finding = find(seenOf(0.1e-3));
    const [draft] = scanOffset.settle(finding);
    expect(draft).toMatchObject({
      name: 'lag',
      at: { direction: 'horizontal' },
      sigma: finding.fastest!.sigmaMm,
      cellIndex: null,
    });
    const fact = factNow('lag', draft!.value as LagLaw, { at: draft!.at });
    const { settings, reasons } = proposeFill({ pairing, facts: [fact] });
    expect(settings.scanOffsetMm).toBeCloseTo(-0.2e-3 * settings.speedMmPerS, 3);
    expect(reasons['constants.scanOffsetMm']).toContain('as measured on this machine');
    for (const kind of ['grid', 'threshold', 'interval', 'focus']) {
      const { plan, reasons: why } = cardKind(kind).propose({ pairing, facts: [fact] }) as unknown as {
        plan: { constants: { scanOffsetMm: number } };
        reasons: Record<string, string>;
      };
      expect(plan.constants.scanOffsetMm, kind).toBeLessThan(-0.001);
      expect(why['constants.scanOffsetMm'], kind).toMatch(/measured/);
    }
    const down = factNow('lag', draft!.value as LagLaw, { at: { direction: 'vertical' } });
    expect(proposeFill({ pairing, facts: [down] }).settings.scanOffsetMm).toBe(0);
  });
});

type Bars = NonNullable<CellReading['bars']>;
/** What is seen, with the bars of each pair made others: one for both ways, or each by itself. */
const withBars = (seen: Seen, barsAt: (place: number, old: Bars) => LineSeen | Bars): Seen => ({
  ...seen,
  readings: seen.readings.map((reading, place) => {
    const made = barsAt(place, reading.bars!);
    return { ...reading, bars: 'there' in made ? made : { there: made, back: made } };
  }),
});

describe('how long dots come out', () => {
  /** How deep a pair is by its energy, against that of the fastest strong ones, and how much longer for that: 0.1 mm for a whole depth. */
  const LONGER_BY_DEPTH = 0.1;
  const depthOf = (layout: Layout, cellIndex: number): number => {
    const energy = (index: number): number => deliveredBy(mainBurn(layout.cells[index]!).settings, pairing).lineJPerMm;
    return 0.3 + 0.3 * (energy(cellIndex) / energy(layout.cells.length - 1) - 1);
  };
  /** Bars of a beam that comes on so much later than it goes out, and of marks so much longer than drawn at rest. */
  const dotsOf = (layout: Layout, slowOnS: number, markMm = 0.05, answers: Seen['answers'] = []): Seen => ({
    readings: layout.order.map((cellIndex) => {
      const drawn = barsOf(layout.cells[cellIndex]!)!.there;
      const along = mainBurn(layout.cells[cellIndex]!).settings.direction === 'horizontal' ? drawn.width : drawn.height;
      const depth = depthOf(layout, cellIndex);
      const widthMm = along + markMm + LONGER_BY_DEPTH * depth - slowOnS * speedOf(layout, cellIndex);
      return { cellIndex, bars: { there: bar(0, widthMm, depth), back: bar(0, widthMm, depth) } } as CellReading;
    }),
    answers,
  });
  /** What deep marks add, of dots as deep as the fastest ones. */
  const addedAt = (layout: Layout): number => {
    const fastest = layout.cells.filter(
      (cell) =>
        mainBurn(cell).settings.speedMmPerS === Math.max(...layout.order.map((index) => speedOf(layout, index))),
    );
    return (LONGER_BY_DEPTH * fastest.reduce((sum, { index }) => sum + depthOf(layout, index), 0)) / fastest.length;
  };
  const find = (layout: Layout, seen: Seen): ScanOffsetFinding => scanOffset.find(layout, seen, known);

  it.each(['horizontal', 'vertical'] as const)(
    'is told by how long bars of several speeds are along the sweep, lines %s',
    (direction) => {
      const { plan } = scanOffset.propose(known);
      const layout = lay({ speed: SLOW, constants: { ...plan.constants, direction } });
      const { dots, says } = find(layout, dotsOf(layout, 0.1e-3));
      expect(dots.pairs).toHaveLength(layout.cells.length);
      expect(dots.law!.slowOnS).toBeCloseTo(0.1e-3, 9);
      expect(dots.law!.standingMm).toBeCloseTo(0.05 + addedAt(layout), 9);
      for (const { speedMmPerS, longerMm } of dots.pairs)
        expect(longerMm).toBeCloseTo(0.05 + addedAt(layout) - 0.1e-3 * speedMmPerS, 9);
      // 0.1 ms at 160 mm/s.
      expect(dots.fastest).toMatchObject({
        shorterMm: expect.closeTo(0.016, 9),
        longerMm: expect.closeTo(0.034 + addedAt(layout), 9),
      });
      expect(says).toMatch(
        /At 9600 mm\/min dots come out 0\.016 mm shorter than at rest: the beam comes on 0\.1 ms later than it goes out\.$/,
      );
      const { dots: later, says: other } = find(layout, dotsOf(layout, -0.1e-3));
      expect(later.fastest!.shorterMm).toBeCloseTo(-0.016, 9);
      expect(other).toMatch(/0\.016 mm longer than at rest: the beam goes out 0\.1 ms later/);
      expect(find(layout, dotsOf(layout, 0)).says).toMatch(
        /Dots are as long at 9600 mm\/min as at rest, to 0\.00\d+ mm\.$/,
      );
    },
  );
  it('adds what was drawn longer on the card itself: a second card with it finds the same', () => {
    const { plan } = scanOffset.propose(known);
    const layout = lay({ constants: { ...plan.constants, lengthenMm: 0.02 } });
    const seen = dotsOf(layout, 0.05e-3, 0.07);
    expect(find(layout, seen).dots.law).toMatchObject({
      slowOnS: expect.closeTo(0.05e-3, 9),
      standingMm: expect.closeTo(0.05 + addedAt(layout), 9),
    });
  });
  it('leaves out pairs that got much more energy, for the source fires no weaker, and says so where too few are left', () => {
    const weak = { pairing: { ...pairing, machine: { ...pairing.machine, lowestFiringCommand: 0.2 } }, facts: [] };
    const { plan } = scanOffset.propose(weak);
    const layout = layCard(scanOffset, plan, weak.pairing, { cardNumber: 5 });
    const { dots, missing } = scanOffset.find(layout, dotsOf(layout, 0.05e-3), weak);
    const told = dots.pairs.map(({ cellIndex }) => cellIndex);
    const at = (speed: number): number[] =>
      layout.cells.filter((cell) => mainBurn(cell).settings.speedMmPerS === speed).map(({ index }) => index);
    expect(told).toEqual(expect.arrayContaining(at(plan.speed.to)));
    for (const index of at(plan.speed.from)) expect(told).not.toContain(index);
    expect([missing, dots.law!.slowOnS]).toEqual([[], expect.closeTo(0.05e-3, 6)]);
    const one = {
      readings: dotsOf(layout, 0).readings.filter(({ cellIndex }) => at(plan.speed.to).includes(cellIndex)),
      answers: [],
    };
    expect(scanOffset.find(layout, one, weak).dots.missing).toMatch(/fires no weaker/);
  });
  it('is not told where no width was, where bars scatter, or by pairs that were called incomplete; the scan offset is all the same', () => {
    const layout = lay();
    const seen = dotsOf(layout, 0.05e-3);
    const [first] = layout.order;
    const said = { ...seen, answers: [{ field: 'bars', cellIndex: first!, repeat: 0, value: 'one' }] };
    expect(find(layout, said).dots.pairs.map(({ cellIndex }) => cellIndex)).not.toContain(first);
    const blind = withBars(seen, () => bar(0));
    const older = withBars(seen, () => bar(0, 0.4));
    const wild = withBars(seen, (place) => bar(0, 0.4 + (place % 3) * 0.1, 0.3 + (place % 2) * 0.1));
    for (const [look, words] of tuples([blind, /no bars show their width/], [older, /no bars/], [wild, /scatter/])) {
      const finding = find(layout, look);
      expect([finding.dots.law, finding.missing]).toEqual([null, []]);
      expect(finding.says).toMatch(words);
      expect(scanOffset.settle(finding).map(({ name }) => name)).toEqual(['lag']);
    }
  });
  it('is not told without pairs of two energies at two speeds: noise in their depth would pass for it', () => {
    const layout = lay();
    const noisy = dotsOf(layout, 0.05e-3);
    const strong = (cellIndex: number): boolean => [0, 3].includes(cellIndex % 4);
    const { readings } = withBars(noisy, (place, { there, back }) => {
      const depth = there.depth! + (place % 3) * 0.002;
      return { there: { ...there, depth }, back: { ...back, depth } };
    });
    const one = find(layout, { ...noisy, readings: readings.filter(({ cellIndex }) => strong(cellIndex)) });
    expect([one.dots.law, one.missing]).toEqual([null, []]);
    expect(one.says).toMatch(/takes pairs of two energies at two speeds/);
    // Both at one speed alone are not enough, at two they are.
    const upTo = (speeds: number) =>
      find(layout, {
        ...noisy,
        readings: readings.filter(({ cellIndex }) => strong(cellIndex) || cellIndex < 4 * speeds),
      });
    expect([upTo(1).dots.law === null, upTo(2).dots.law === null]).toEqual([true, false]);
  });
  it('is not told by bars that leave it open to more than a hundredth of a millimetre: no plan is drawn by noise', () => {
    const layout = lay();
    const seen = dotsOf(layout, 0.05e-3);
    const unsure = { widthSigmaMm: 0.03 };
    const blurred = withBars(seen, (_, { there, back }) => ({
      there: { ...there, ...unsure },
      back: { ...back, ...unsure },
    }));
    const finding = find(layout, blurred);
    expect(finding.dots.law).toBeNull();
    expect(finding.says).toMatch(/not told: this photo leaves ± 0\.0\d mm\. Burn darker bars/);
    expect(scanOffset.settle(finding).map(({ name }) => name)).toEqual(['lag']);
  });
  it('is kept for the machine and the axis, and drawn into what is planned next, at its own speed', () => {
    const layout = lay();
    const finding = find(layout, dotsOf(layout, 0.1e-3));
    const draft = scanOffset.settle(finding)[1]!;
    const { fromMmPerS, toMmPerS } = finding.law!;
    expect(draft).toEqual({
      name: 'dotLength',
      at: { direction: 'horizontal' },
      sigma: finding.dots.fastest!.shorterSigmaMm,
      cellIndex: null,
      value: { slowOnS: expect.closeTo(0.1e-3, 9), fromMmPerS, toMmPerS },
    });
    const fact = factNow('dotLength', draft.value as DotLaw, { at: draft.at });
    const { settings, reasons } = proposeFill({ pairing, facts: [fact] });
    expect(Math.abs(settings.lengthenMm - 0.1e-3 * settings.speedMmPerS)).toBeLessThan(0.00051);
    expect(settings.lengthenMm).toBeGreaterThan(0.003);
    expect(reasons['constants.lengthenMm']).toContain('as measured on this machine');
    for (const kind of ['grid', 'interval', 'focus', 'tone', 'showpiece']) {
      const { plan } = cardKind(kind).propose({ pairing, facts: [fact] }) as unknown as {
        plan: { constants: { lengthenMm: number } };
      };
      expect(plan.constants.lengthenMm, kind).toBeGreaterThan(0.002);
    }
    const down = factNow('dotLength', draft.value as DotLaw, { at: { direction: 'vertical' } });
    expect(proposeFill({ pairing, facts: [down] }).settings.lengthenMm).toBe(0);
    // The card that measures it is burned without.
    expect(scanOffset.propose({ pairing, facts: [fact] }).plan.constants.lengthenMm).toBe(0);
  });
});
