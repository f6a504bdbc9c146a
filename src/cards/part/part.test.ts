import DxfParser from 'dxf-parser';
import { beforeEach, describe, expect, it } from 'vitest';
import { PLACE } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Answer } from '../../core/card/asks';
import { layCard, planProblems } from '../../core/card/lay';
import { linesOf } from '../../core/card/shape';
import type { Layout } from '../../core/card/layout';
import { cardSteps } from '../../core/card/steps';
import { lineOf, type Drawing } from '../../core/part/drawing';
import { boxOfRing, isInside } from '../../core/part/polygons';
import { gcodeChunks } from '../../formats/gcode';
import { dxfOfSteps } from '../../formats/steps-dxf';
import { checked } from '../../api/checked';
import { CARD_SCHEMAS } from '../schemas';
import type { PartPlan } from './plan';
import { part } from '.';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const kerf = { ...factNow('kerf', { xMm: 0.2, yMm: 0.3 }), sigma: 0.01 };
let plan: PartPlan;
let reasons: Readonly<Record<string, string>>;
beforeEach(() => {
  ({ plan, reasons } = part.propose({ pairing, facts: [kerf] }));
});
const lay = (change: Partial<PartPlan> = {}) => layCard(part, { ...plan, ...change }, pairing, { cardNumber: 31 });
const box = (x: number, y: number, width: number, height: number, closed = true) =>
  lineOf(
    [
      { x, y },
      { x: x + width, y },
      { x: x + width, y: y + height },
      { x, y: y + height },
    ],
    closed,
  );
const drawing = (...lines: Drawing['lines']): Drawing => ({ name: 'Gate', sizeSaidIn: 'lengths', lines });
const hundredths = (mm: number): number => Math.round(100 * mm) + 0;
const fieldsOf = (change: Partial<PartPlan>) => part.fields({ ...plan, ...change }, pairing);

describe('a part that is planned', () => {
  it('is drawn by the kerf that was kept, axis by axis: the path beside what is wanted', () => {
    const { cells } = lay();
    expect(cells.map(({ levels }) => levels.side)).toEqual(['part', 'hole', 'hole', 'slot']);
    const paths = cells.map((cell) => boxOfRing(linesOf(cell.burns[0]!.shape).flat()));
    const wider = paths.map(({ width }, index) => width - cells[index]!.box.width);
    const higher = paths.map(({ height }, index) => height - cells[index]!.box.height);
    expect(wider.map(hundredths)).toEqual([20, -20, -20, 0]);
    expect(higher.map(hundredths)).toEqual([30, -30, -30, 0]);
    expect(cells[0]!.wanted!.comesOut).toMatchObject({
      widthMm: 24,
      heightMm: 16,
      kerf: { xMm: 0.2, yMm: 0.3, sigmaMm: 0.01 },
    });
    for (const { wanted, box: drawn } of cells) {
      const around = boxOfRing(wanted!.outline);
      expect(Math.hypot(around.x - drawn.x, around.y - drawn.y)).toBeLessThan(0.001);
      expect(isInside(wanted!.on, wanted!.outline)).toBe(true);
    }
    // As drawn a part comes out smaller by the kerf, a hole larger.
    const [tag, hole] = lay({ school: 'nobody' }).cells;
    expect(tag!.wanted!.comesOut).toMatchObject({ widthMm: 23.8, heightMm: 15.7 });
    expect(hole!.wanted!.comesOut).toMatchObject({ widthMm: 8.2, heightMm: 7.3 });
    expect(reasons['kerf.xMm']).toBe('the kerf that was kept');
    const guessed = part.propose({ pairing, facts: [] });
    expect(guessed.plan.kerf.sigmaMm).toBeNull();
    expect(guessed.reasons['kerf.xMm']).toContain('nobody measured');
  });

  it('has a slot for its largest part on edge: as wide as the wanted fit says, a little longer than the part', () => {
    const value = {
      fromMm: { press: -0.3, snug: -0.2, slip: -0.1, loose: 0 },
      sigmaMm: { press: 0.01, snug: 0.01, slip: 0.01, loose: 0.01 },
      scatterMm: 0.02,
      thicknessMm: plan.thicknessMm,
    };
    const felt = part.propose({ pairing, facts: [kerf, factNow('fit', value)] }).plan;
    expect(felt.slotFor.press).toBeCloseTo(-0.25, 2);
    expect(felt.slotFor.snug).toBeCloseTo(-0.15, 2);
    expect([felt.fit, plan.fit]).toEqual(['press', 'press']);
    const bySlots = (stale: string[]) =>
      part.propose({ pairing, facts: [kerf, factNow('fit', value, { stale })] }).reasons['slotFor.snug'];
    expect(bySlots([])).not.toMatch(/stale/);
    expect(bySlots(['another batch'])).toMatch(/, which are stale: another batch/);
    // Where next to none are pressed in, as in brittle stock, it is drawn for the tightest that most come to.
    const brittle = { ...value, fromMm: { press: -0.205, snug: -0.2, slip: -0.1, loose: 0 } };
    const { plan: careful, reasons: why } = part.propose({ pairing, facts: [kerf, factNow('fit', brittle)] });
    expect(careful.fit).toBe('snug');
    expect(why['fit']).toMatch(
      /^the tightest of which more than half come out so: “pressed in” [\d.]+ of 100, “snug” [\d.]+ of 100/,
    );
    expect(why['withSlot']).toMatch(/for “snug”/);
    // Of none of which most come out so, the likeliest.
    const rough = { ...value, scatterMm: 0.2, fromMm: { press: -0.21, snug: -0.2, slip: -0.1, loose: 0.02 } };
    const unsure = part.propose({ pairing, facts: [kerf, factNow('fit', rough)] });
    expect(unsure.plan.fit).toBe('slip');
    expect(unsure.reasons['fit']).toMatch(/^the likeliest; of none do more than half come out so: /);
    // A part that was snug where it should have been pressed: the next slot is drawn narrower.
    const snug = factNow('part', {
      settings: plan.cut,
      kerf: { xMm: 0.2, yMm: 0.2 },
      offMm: 0,
      expectedMm: 0.1,
      goes: 'snug',
      slotMm: -0.25,
    });
    const next = part.propose({ pairing, facts: [kerf, factNow('fit', value), snug] });
    expect(next.plan.slotFor.press).toBeLessThan(felt.slotFor.press - 0.02);
    expect(next.reasons['slotFor.press']).toMatch(/moved by -0.0\d+ mm by how a part went in/);
    const slot = layCard(part, felt, pairing, { cardNumber: 31 }).cells.at(-1)!;
    expect(slot.box.width).toBeCloseTo(felt.thicknessMm + felt.slotFor.press, 3);
    // What the cut takes of its length is made up for.
    expect(slot.wanted).toMatchObject({ comesOut: { heightMm: 24.2 }, takes: { cellIndex: 0, fit: 'press' } });
    expect(lay({ withSlot: false }).cells).toHaveLength(3);
    const three = drawing(box(0, 0, 10, 6), box(20, 0, 20, 8), box(50, 0, 15, 5));
    const taking = lay({ drawing: three }).cells.at(-1)!.wanted!.takes!.cellIndex;
    expect(lay({ drawing: three }).cells[taking]!.box).toMatchObject({ width: 20, height: 8 });
  });

  it('cuts what lies inside before what is around it, in the program too, and is read back from DXF as it is cut', () => {
    const layout = lay();
    expect(layout.order.indexOf(0)).toBe(3);
    const program = [...gcodeChunks(layout, pairing.machine, PLACE)].join('');
    const names = [...program.matchAll(/\(cell (\d+)\)/g)].map(([, name]) => Number(name));
    expect(names).toEqual(layout.order);
    const dxf = new DxfParser().parseSync(dxfOfSteps(cardSteps(layout, pairing.machine), layout))!;
    const widths = dxf.entities.map((entity) => {
      const xs = (entity as unknown as { vertices: { x: number }[] }).vertices.map(({ x }) => x);
      return Math.max(...xs) - Math.min(...xs);
    });
    for (const wanted of [24.2, 7.8, 4.8]) expect(widths.some((mm) => Math.abs(mm - wanted) < 0.001)).toBe(true);
  });

  it('leads in and leaves tabs where they are wanted, on parts and not on holes', () => {
    const lines = ({ cells }: ReturnType<typeof lay>) => cells.map((cell) => linesOf(cell.burns[0]!.shape).length);
    expect(lines(lay())).toEqual([1, 1, 1, 1]);
    const held = lay({ tabs: 3, leadMm: 1 });
    expect(lines(held)).toEqual([3, 1, 1, 1]);
    const [tag] = held.cells;
    const from = linesOf(tag!.burns[0]!.shape)[0]![0]!;
    const { x, y, width, height } = tag!.box;
    const out = Math.max(x - from.x, from.x - x - width, y - from.y, from.y - y - height);
    expect(out).toBeGreaterThan(0.7);
    expect(out).toBeLessThan(1.2);
    expect(planProblems(part, { ...plan, leadMm: 1 }, pairing)).toEqual([]);
    // How wide tabs are is asked where there are some.
    const asksWidth = (tabs: number) => part.fields({ ...plan, tabs }, pairing).some(({ path }) => path === 'tabMm');
    expect([asksWidth(0), asksWidth(1)]).toEqual([false, true]);
  });

  it('says what it read of a drawing, and what each school leaves between parts', () => {
    const says = (of: Drawing, more: Partial<PartPlan> = {}) => fieldsOf({ drawing: of, ...more })[0]!.hint;
    const open = box(30, 0, 5, 5, false);
    expect(says(drawing(box(0, 0, 20, 20), box(5, 5, 5, 5), box(5, 5, 5, 5), open))).toBe(
      '1 part, 1 hole; a line ends (15 mm near 30, 0 mm); 1 drawn twice, cut once',
    );
    expect(says(drawing(box(0, 0, 20, 20), box(2, 2, 5, 5), box(10, 10, 5, 5), box(30, 0, 5, 5)))).toMatch(
      /^2 parts, 2 holes/,
    );
    const fans = [25, 40, 55, 70].map((x) => box(x, 0, 5, 5, false));
    expect(says(drawing(box(0, 0, 20, 20), ...fans))).toMatch(
      /; 4 lines end \(15 mm near 25, 0 mm; 15 mm near 40, 0 mm; 15 mm near 55, 0 mm\)$/,
    );
    expect(says({ ...drawing(box(0, 0, 20, 20)), sizeSaidIn: 'pixels' })).toContain('96 pixels to the inch');
    const even = { xMm: 0.2, yMm: 0.2, sigmaMm: null };
    const schools = fieldsOf({ kerf: even })
      .find(({ path }) => path === 'school')!
      .options!.map(({ name }) => name);
    expect(schools).toEqual([
      'Both come out true: flush',
      'Parts for both cuts: flush',
      'Holes for both cuts: flush',
      'Parts alone: 0.2 mm loose',
      'As drawn: 0.4 mm loose',
    ]);
    const tight = fieldsOf({ kerf: even, clearanceMm: -0.05 }).find(({ path }) => path === 'school')!;
    expect(tight.options![0]!.name).toBe('Both come out true: 0.05 mm tight');
    // A typed kerf is as sure as whoever typed it, which nobody knows.
    expect(part.follow(plan, 'kerf.xMm').kerf.sigmaMm).toBeNull();
    expect(part.follow(plan, 'scale')).toBe(plan);
    // A slot as long as a large part would take much of a sheet.
    expect(part.follow({ ...plan, scale: 3 }, 'scale').withSlot).toBe(false);
    expect(part.follow({ ...plan, scale: 3 }, 'leadMm').withSlot).toBe(true);
    const withOpen = { drawing: drawing(box(0, 0, 20, 20), open) };
    expect(lay(withOpen).before).toHaveLength(0);
    expect(lay({ ...withOpen, cutsOpen: true }).before).toHaveLength(1);
  });

  it.each([
    ['drawing', { drawing: drawing(box(0, 0, 9, 9, false)) }, 'nothing would drop'],
    ['drawing', { drawing: drawing(box(0, 0, 9, 9), box(5, 5, 9, 9)) }, 'Two lines cross'],
    ['drawing', { drawing: drawing(box(0, 0, 9, 9), box(9.2, 0, 9, 9)) }, 'nearer to each other'],
    [
      'kerf.xMm',
      { kerf: { xMm: 1.9, yMm: 1.9, sigmaMm: null }, drawing: drawing(box(0, 0, 9, 9), box(2, 2, 1.5, 1.5)) },
      'narrower than the cut',
    ],
    ['clearanceMm', { school: 'part', clearanceMm: 0.5 }, 'take another school'],
    ['slotFor.press', { thicknessMm: 0.5 }, 'one cut alone is wider'],
    ['tabs', { tabs: 40 }, '12 tabs'],
  ] as const)('is refused at %s where it cannot be cut', (field, change, words) => {
    const problems = planProblems(part, { ...plan, ...change }, pairing);
    expect(problems[0]).toMatchObject({ field });
    expect(problems[0]!.message).toContain(words);
  });

  it('is checked at the door', () => {
    const sent = (change: object) => checked(CARD_SCHEMAS.part.plan, { ...plan, ...change }, 'In the plan');
    expect(sent({})).toEqual(plan);
    const odd = { ...plan.drawing, lines: [{ closed: true, at: [0, 0, 1, 0, 1] }] };
    for (const change of [{ drawing: odd }, { kerf: { xMm: -0.1, yMm: 0.1, sigmaMm: null } }, { scale: 0 }])
      expect(() => sent(change)).toThrow();
  });
});

describe('a part that was cut', () => {
  let layout: Layout;
  beforeEach(() => {
    layout = lay();
  });
  const reading = (field: string, cellIndex: number, value: number, repeat = 0): Answer =>
    said(field, cellIndex, value, repeat);
  const find = (answers: readonly Answer[]) => part.find(layout, { readings: [], answers }, { pairing, facts: [] });
  const good = [reading('width-x', 0, 24.01), reading('width-y', 0, 15.99), reading('hole-x', 1, 8.02)];

  it('is as wanted where no size is off by more than kerf, axis and caliper explain', () => {
    const finding = find([...good, { field: 'fit', cellIndex: 3, repeat: 0, value: 'press' }]);
    expect(finding.says).toContain('none of 3 is off by more than 0.02 mm');
    expect(finding.says).toContain('pressed in, as wanted');
    const [hole, x] = finding.sizes;
    expect(x).toMatchObject({ cellIndex: 0, axis: 'x', side: 'part', wantedMm: 24 });
    expect(hole!.side).toBe('hole');
    // By hand: the kerf’s 0.01, a thousandth of 24 mm, and 0.01/√12 with 0.02/√3 of the caliper, twice.
    expect(x!.expectedMm).toBeCloseTo(2 * Math.hypot(0.01, 0.024, 0.01 / Math.sqrt(12), 0.02 / Math.sqrt(3)), 9);
    const [draft] = part.settle(finding, layout);
    expect(draft).toMatchObject({
      name: 'part',
      at: { part: 'Tag' },
      value: { kerf: { xMm: 0.2 }, goes: 'press', slotMm: plan.slotFor.press },
    });
    expect(draft!.value.offMm).toBeCloseTo(Math.sqrt((0.01 ** 2 + 0.01 ** 2 + 0.02 ** 2) / 3), 9);
  });

  it('is not where one is, and says which way', () => {
    const finding = find([reading('width-x', 0, 23.85), { field: 'fit', cellIndex: 3, repeat: 0, value: 'loose' }]);
    expect(finding.says).toContain('part 1 along X is 0.15 mm too small');
    expect(finding.says).toContain('loose; pressed in was wanted');
    expect(finding.off).toHaveLength(1);
  });

  it('says what is missing: nothing measured, another unit, what did not drop', () => {
    expect(find([]).missing[0]).toContain('Measure the part');
    expect(find([reading('width-x', 0, 0.945)]).missing[0]).toContain('in inches');
    const stuck = find([...good, { field: 'drop', cellIndex: 1, repeat: 0, value: 'hangs' }]);
    expect(stuck.missing[0]).toContain('Outline 2 did not come through');
    expect(stuck.says).toBe('');
    expect(part.settle(stuck, layout)).toEqual([]);
    // What tabs hold does not drop, and is measured once they are broken.
    const held = lay({ tabs: 2 });
    const answers = [...good, { field: 'drop', cellIndex: 0, repeat: 0, value: 'hangs' }];
    expect(part.find(held, { readings: [], answers }, { pairing, facts: [] }).missing).toEqual([]);
    expect(find(answers).stuck).toEqual([0]);
    // A gauge meant for holes says nothing of a part.
    expect(find([reading('hole-x', 0, 24)]).sizes).toEqual([]);
  });
});
