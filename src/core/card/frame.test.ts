import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { PLAIN_FILL } from '../../../tests/support/settings';
import { cardKind } from '../../cards/registry';
import type { Drawn } from './contract';
import { frame } from './frame';
import { proposeFrame } from './frame-settings';
import { layCard } from './lay';
import { CORNER_NAMES, type FrameSettings, type Lettering } from './layout';
import { frameBurns } from './path';
import { boxOfShape, rectRing } from './shape';
import { listed } from '../../../tests/support/listed';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'alder');
let settings: FrameSettings;
beforeEach(() => {
  ({ settings } = proposeFrame(pairing));
});

/** A row of squares of 5 mm, 1 mm apart, each lettered above, and beside the first. */
function drawn(columns: number, change: Partial<Drawn> = {}): Drawn {
  const boxes = Array.from({ length: columns }, (_, index) => ({ x: 6 * index, y: 0, width: 5, height: 5 }));
  return {
    widthMm: 6 * columns - 1,
    heightMm: 5,
    cells: boxes.map((box, index) => ({
      box,
      levels: { power: 0.1 * (index + 1) },
      burns: [{ shape: { do: 'sweep', area: [rectRing(box)] }, settings: PLAIN_FILL }],
      risk: index,
      expected: null,
      leftOut: false,
    })),
    before: [],
    after: [],
    labels: [
      ...boxes.map((box, index) => ({
        text: String(10 * (index + 1)),
        means: `${10 * (index + 1)} %`,
        edge: 'above' as const,
        box,
      })),
      { text: '120', means: '120 mm/s', edge: 'beside', box: boxes[0]! },
    ],
    caption: 'POWER % ACROSS',
    units: '%',
    constants: 'LINES 0.1 MM',
    markers: 'four',
    air: 'off',
    ...change,
  };
}
const laid = (of: Drawn, words: 'short' | 'full' = 'short') =>
  frame('grid', of, { ...settings, words }, { cardNumber: 7 }, pairing);
const boxOf = (line: Lettering) => boxOfShape({ do: 'follow', lines: line.strokes });

describe('the frame of a card', () => {
  it('has a marker in each corner, clockwise, and bare stock of a millimetre around it', () => {
    const layout = laid(drawn(6));
    const { markers } = layout.frame;
    expect(markers.map(({ corner }) => corner)).toEqual(CORNER_NAMES);
    const [right, low] = [layout.widthMm - 3.2, layout.heightMm - 3.2];
    expect(markers.map(({ x, y }) => [x, y])).toEqual(
      [
        [0, 0],
        [right, 0],
        [right, low],
        [0, low],
      ].map((place) => place.map((mm) => expect.closeTo(mm, 3) as number)),
    );
    expect(new Set(markers.map(({ id }) => id)).size).toBe(4);
    expect(layout.inner).toEqual({ x: expect.closeTo(4.2, 3), y: expect.closeTo(4.2, 3), width: 35, height: 5 });
    expect(layout.widthMm).toBeCloseTo(35 + 2 * 4.2, 3);
    expect(layout.heightMm).toBeCloseTo(5 + 2 * 4.2, 3);
  });
  it.each([
    // The longest side with markers of 3.2 mm is 62 mm, with 4.8 mm 105 mm: by hand, cells of 53.6 and 93.4 mm.
    [9, 3.2],
    [10, 4.8],
    [15, 4.8],
    [16, 6.4],
  ])('has markers that a photo of a card of %i columns can show: %f mm', (columns, sideMm) => {
    const layout = laid(drawn(columns));
    expect(layout.frame.markers.map(({ sizeMm }) => sizeMm)).toEqual([sideMm, sideMm, sideMm, sideMm]);
    expect(layout.widthMm).toBeCloseTo(6 * columns - 1 + 2 * (sideMm + 1), 3);
  });
  it('keeps small cards wide enough for their words, cells in the middle', () => {
    const layout = laid(drawn(1));
    expect(layout.widthMm).toBeCloseTo(16 + 2 * 4.2, 3);
    expect(layout.cells[0]!.box.x + 2.5).toBeCloseTo(layout.widthMm / 2, 3);
    expect(boxOfShape(layout.cells[0]!.burns[0]!.shape)).toMatchObject({
      x: layout.cells[0]!.box.x,
      y: layout.cells[0]!.box.y,
      width: 5,
    });
  });
  it('letters the first and the last of each edge, their unit and the code; all of it in full words', () => {
    const words = (layout: ReturnType<typeof laid>) =>
      layout.frame.lettering.map(({ role, text }) => `${role} ${text}`);
    const code = `code ${laid(drawn(4)).code}`;
    expect(words(laid(drawn(4)))).toEqual(['axis 10 %', 'axis 40 %', 'axis 120 mm/s', 'axis %', code]);
    expect(words(laid(drawn(4), 'full'))).toEqual([
      ...listed(
        'header Marl 55W Alder board 6.02MM; constants LINES 0.1 MM; axis 10 %; axis 20 %; axis 30 %; ' +
          'axis 40 %; axis 120 mm/s; axis POWER % ACROSS',
      ),
      code,
    ]);
  });
  it('letters above a cell over its middle, beside it at half of its height, and neither on the cells', () => {
    const layout = laid(drawn(4));
    const [first, last, beside, unit, code] = layout.frame.lettering.map(boxOf);
    const cells = layout.cells.map(({ box }) => box);
    for (const [label, cell] of [
      [first!, cells[0]!],
      [last!, cells[3]!],
    ] as const) {
      expect(label.x + label.width / 2).toBeCloseTo(cell.x + cell.width / 2, 0);
      expect(label.y + label.height).toBeCloseTo(cell.y - 1, 3);
      expect(label.height).toBeCloseTo(0.9, 3);
    }
    expect(beside!.y + beside!.height / 2).toBeCloseTo(cells[0]!.y + 2.5, 3);
    expect(beside!.x + beside!.width).toBeCloseTo(cells[0]!.x - 1, 3);
    expect(beside!.x).toBeGreaterThan(0);
    for (const low of [unit!, code!]) {
      expect(low.x + low.width / 2).toBeCloseTo(layout.widthMm / 2, 0);
      expect(low.y).toBeGreaterThan(cells[0]!.y + 5 + 0.4);
      expect(low.y + low.height).toBeLessThan(layout.heightMm);
    }
    expect(unit!.y).toBeGreaterThan(code!.y + code!.height);
  });
  it('makes letters as small as their narrowest cell asks for, at each edge for itself', () => {
    const heights = (texts: { above: string; beside: string }) => {
      const labels = drawn(4).labels.map((label) => ({ ...label, text: texts[label.edge] }));
      return laid(drawn(4, { labels }))
        .frame.lettering.slice(0, 3)
        .map((line) => boxOf(line).height);
    };
    expect(heights({ above: '10', beside: '12345678' }).map((mm) => mm.toFixed(3))).toEqual([
      '0.900',
      '0.900',
      '0.900',
    ]);
    // By hand: eight signs take 8 - 1/3 letter heights, in 0.96 of a cell's 5 mm.
    const small = (0.96 * 5) / (8 - 1 / 3);
    expect(heights({ above: '12345678', beside: '10' })).toEqual([
      expect.closeTo(small, 3),
      expect.closeTo(small, 3),
      expect.closeTo(0.9, 3),
    ]);
  });
  it('letters above a cell wherever that lies, clear of it by a millimetre', () => {
    const labels = drawn(4).labels.map((label) => ({ ...label, box: { ...label.box, y: 3 } }));
    const layout = laid(drawn(4, { heightMm: 8, labels }));
    const [first] = layout.frame.lettering.map(boxOf);
    expect(first!.y + first!.height).toBeCloseTo(layout.inner.y + 3 - 1, 3);
  });
  it('fits its words between the markers, or between the edges where there are none', () => {
    const long = 'ABC DEF GHI JKM NPQ RST';
    for (const markers of ['four', 'none'] as const) {
      const layout = laid(drawn(3, { units: long, markers, labels: [] }));
      const box = boxOf(layout.frame.lettering[0]!);
      const clear = markers === 'four' ? 4.2 : 1;
      expect(box.x).toBeCloseTo(clear, 0);
      expect(box.x).toBeGreaterThan(clear - 0.01);
      expect(box.x + box.width).toBeLessThan(layout.widthMm - clear + 0.01);
    }
  });
  it('of a card that no photo answers is lettering alone, on little stock', () => {
    const layout = laid(drawn(4, { markers: 'none', labels: drawn(4).labels.filter(({ edge }) => edge === 'above') }));
    expect(layout.frame.markers).toEqual([]);
    expect(layout.inner.x).toBeCloseTo(1, 3);
    expect(layout.widthMm).toBeCloseTo(23 + 2, 3);
    expect(layout.heightMm).toBeLessThan(5 + 8);
    for (const line of layout.frame.lettering) {
      const box = boxOf(line);
      expect(box.x).toBeGreaterThan(0);
      expect(box.x + box.width).toBeLessThan(layout.widthMm);
      expect(box.y).toBeGreaterThan(0);
      expect(box.y + box.height).toBeLessThan(layout.heightMm);
    }
    expect(laid({ ...drawn(4), markers: 'none', labels: [] }).inner.x).toBe(1);
  });
  it('widens its left side for long words beside the cells', () => {
    const long = drawn(4).labels.map((label) => (label.edge === 'beside' ? { ...label, text: '120000' } : label));
    // Six signs of 0.9 mm, a millimetre of bare stock and 0.2 mm.
    expect(laid(drawn(4, { labels: long })).inner.x).toBeCloseTo(6.6, 3);
  });
});

describe('the way along the frame', () => {
  it('takes markers and lettering one after another as they lie, from the upper left', () => {
    const kind = cardKind('grid');
    const layout = layCard(kind, kind.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 7 });
    const burns = frameBurns(layout, pairing.machine);
    expect(burns).toHaveLength(4 + layout.frame.lettering.length);
    expect(burns[0]!.name).toBe('marker upper-left');
    // The right side comes before the lower left: no corner is gone to over the whole card and back.
    const markers = burns.map(({ name }) => name).filter((name) => name.startsWith('marker'));
    expect(markers).toEqual(['marker upper-left', 'marker upper-right', 'marker lower-right', 'marker lower-left']);
    const between = burns.findIndex(({ name }) => name === 'marker upper-right');
    expect(burns.slice(1, between).every(({ name }) => name === 'lettering')).toBe(true);
    expect(between).toBeGreaterThan(1);
    // Everything is burned, once.
    const strokes = burns.flatMap(({ burn: one }) => (one.shape.do === 'follow' ? one.shape.lines : []));
    expect(strokes).toHaveLength(layout.frame.lettering.flatMap((line) => line.strokes).length);
  });
});

describe('the burns of the frame', () => {
  it('are markers and lettering each at their own power and speed, sharp and in one pass', () => {
    const own = {
      marker: { powerFraction: 0.21, speedMmPerS: 110, intervalMm: 0.15 },
      lettering: { powerFraction: 0.34, speedMmPerS: 90 },
      words: 'short',
    } as const;
    const layout = frame('grid', drawn(6, { air: 'on' }), own, { cardNumber: 7 }, pairing);
    const shared = { passes: 1, focusOffsetMm: 0, air: 'on', intervalMm: 0.15 };
    for (const { name, burn } of frameBurns(layout, pairing.machine)) {
      const marks = name.startsWith('marker');
      expect(burn.settings, name).toMatchObject({ ...shared, ...(marks ? own.marker : own.lettering) });
      expect(burn.shape.do, name).toBe(marks ? 'sweep' : 'follow');
    }
  });
});

describe('rows that are crossed at once', () => {
  it('go by their riskiest cell, that row last, and are told only where there is more than one cell to cross', () => {
    const pitch = (index: number) => ({ x: 6 * (index % 3), y: 6 * Math.floor(index / 3), width: 5, height: 5 });
    const risks = [9, 1, 1, 2, 2, 2, 3, 3, 3, 4, 4, 4];
    const cells = risks.map((risk, index) => ({
      ...drawn(1).cells[0]!,
      box: pitch(index),
      risk,
      leftOut: index === 4 || index === 5,
    }));
    const rows = [
      [0, 1, 2],
      [3, 4, 5],
      [6, 7, 8],
      [9, 10, 11],
    ];
    const layout = laid({ ...drawn(3), heightMm: 23, cells, rows, labels: [] });
    expect(layout.order.slice(-3)).toEqual([0, 1, 2]);
    expect([...layout.order].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 6, 7, 8, 9, 10, 11]);
    expect(layout.together).not.toContainEqual([3]);
    expect([...layout.together].sort((a, b) => a[0]! - b[0]!)).toEqual(tuples([0, 1, 2], [6, 7, 8], [9, 10, 11]));
  });
});

describe('every kind', () => {
  it('has a frame that leads back to it: kind, number and code', () => {
    const kind = cardKind('kerf');
    expect(
      frame(
        'kerf',
        kind.draw(kind.propose({ pairing, facts: [] }).plan, pairing),
        settings,
        { cardNumber: 9 },
        pairing,
      ),
    ).toMatchObject({ kind: 'kerf', cardNumber: 9, adopted: false, version: 4 });
    expect(() => laid({ ...drawn(2) }) && frame('grid', drawn(2), settings, { cardNumber: -1 }, pairing)).toThrow(
      RangeError,
    );
  });
});
