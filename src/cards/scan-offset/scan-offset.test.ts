import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { factNow } from '../../../tests/support/facts';
import type { Seen } from '../../core/card/asks';
import { deliveredBy } from '../../core/card/energy';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { fillRegion } from '../../core/card/path';
import { proposeFill } from '../../core/card/propose-fill';
import { boxOfShape } from '../../core/card/shape';
import type { LineSeen } from '../../core/reading/lines/single-line';
import type { CellReading } from '../../core/reading/observations';
import { cardKind } from '../registry';
import type { ScanOffsetFinding } from './find';
import { scanOffset } from '.';

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
  it('gives every line the same energy, down to what fires', () => {
    const layout = lay();
    const energies = layout.cells.map((cell) => deliveredBy(mainBurn(cell).settings, pairing).lineJPerMm);
    for (const energy of energies) expect(energy / energies[0]!).toBeCloseTo(1, 2);
    const weak = { ...pairing, machine: { ...pairing.machine, lowestFiringCommand: 0.2 } };
    const { plan } = scanOffset.propose({ pairing: weak, facts: [] });
    const powers = layCard(scanOffset, plan, weak, { cardNumber: 5 }).cells.map((cell) => mainBurn(cell).settings.powerFraction); // prettier-ignore
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
    const lag = factNow('lag', { lagS: 1e-4, standingMm: 0, fromMmPerS: 10, toMmPerS: 900 }, { at: { direction: 'horizontal' } });
    expect(scanOffset.propose({ pairing, facts: [lag] }).plan).toEqual(plan);
  }); // prettier-ignore
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
    expect(fields({ constants: { ...plan.constants, powerFraction: powerCap + 0.05 } })).toEqual(['constants.powerFraction']);
  }); // prettier-ignore
});

const bar = (besideMm: number): LineSeen => ({ besideMm, besideSigmaMm: 0.001, widthMm: null, widthSigmaMm: null, raggedMm: null, raggedSigmaMm: null, profile: null }); // prettier-ignore

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
    expect(says).toMatch(/lay the lines of the way back 0\.\d+ mm less far along\. The beam is 0\.1 ms late: the offset grows with speed\./);
  }); // prettier-ignore
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
    expect(find(seenOf(0.1e-3, 0.03)).law).toMatchObject({ lagS: expect.closeTo(0.1e-3, 9), standingMm: expect.closeTo(0, 9) }); // prettier-ignore
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
    const wild = all.readings.map((reading, place) => ({ ...reading, bars: { there: bar(0), back: bar(place % 2 === 0 ? 0.1 : -0.1) } })); // prettier-ignore
    const { missing, law } = find({ ...all, readings: wild });
    expect(missing[0]).toMatch(/times as much as the photo’s own doubt/);
    expect(law).toBeNull();
    for (const seen of [blind, { ...all, readings: one }, { ...all, readings: wild }])
      expect(scanOffset.settle(find(seen))).toEqual([]);
  });
  it('is kept for the machine and the axis, and laid into what is planned next, at its own speed', () => {
    const finding = find(seenOf(0.1e-3));
    const [draft] = scanOffset.settle(finding);
    expect(draft).toMatchObject({ name: 'lag', at: { direction: 'horizontal' }, sigma: finding.fastest!.sigmaMm, cellIndex: null });
    const fact = factNow('lag', draft!.value, { at: draft!.at });
    const { settings, reasons } = proposeFill({ pairing, facts: [fact] });
    expect(settings.scanOffsetMm).toBeCloseTo(-0.2e-3 * settings.speedMmPerS, 3);
    expect(reasons['constants.scanOffsetMm']).toContain('as measured on this machine');
    for (const kind of ['grid', 'threshold', 'interval', 'focus']) {
      const { plan, reasons: why } = cardKind(kind).propose({ pairing, facts: [fact] }) as unknown as { plan: { constants: { scanOffsetMm: number } }; reasons: Record<string, string> };
      expect(plan.constants.scanOffsetMm, kind).toBeLessThan(-0.001);
      expect(why['constants.scanOffsetMm'], kind).toMatch(/measured/);
    }
    const down = factNow('lag', draft!.value, { at: { direction: 'vertical' } });
    expect(proposeFill({ pairing, facts: [down] }).settings.scanOffsetMm).toBe(0);
  }); // prettier-ignore
});
