import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { bed } from '../../cards/bed';
import { grid } from '../../cards/grid';
import { rectsOverlap } from '../geometry/point';
import { layCard } from './lay';
import type { Layout } from './layout';
import { markerIdsOfCard } from './markers';
import { cardIsFree, freePlace } from './place';
import { areasOf, gathered, layoutOfStation, numbersOf } from './station';

const pairing = demoPairing('marl', 'alder');
let layout: Layout;
let stations: NonNullable<Layout['stations']>;
beforeEach(() => {
  layout = layCard(bed, bed.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 4000 });
  stations = layout.stations!;
});

describe('a card that stands in several places', () => {
  it('has a frame around each, with the numbers after its own in their markers, and its code on all of them', () => {
    expect(stations.map(({ name }) => name)).toEqual(['A1', 'A2', 'A3', 'B1', 'B2', 'B3', 'C1', 'C2', 'C3']);
    expect(numbersOf(layout)).toBe(9);
    expect(layout.frame.markers).toHaveLength(4 * 9);
    stations.forEach(({ box, cells, cardNumber }, index) => {
      expect(cardNumber).toBe(4000 + index);
      const inside = layout.frame.markers.filter(
        ({ x, y, sizeMm }) =>
          x >= box.x && y >= box.y && x + sizeMm <= box.x + box.width + 1e-6 && y + sizeMm <= box.y + box.height + 1e-6,
      );
      expect(inside.map(({ id }) => id)).toEqual(markerIdsOfCard(cardNumber));
      for (const cell of cells) {
        const at = layout.cells[cell]!.box;
        expect(at.x).toBeGreaterThan(box.x);
        expect(at.x + at.width).toBeLessThan(box.x + box.width);
        expect(at.y).toBeGreaterThan(box.y);
        expect(at.y + at.height).toBeLessThan(box.y + box.height);
      }
    });
    const codes = layout.frame.lettering.filter(({ role }) => role === 'code').map(({ text }) => text);
    expect(codes).toEqual(stations.map(({ name }) => `${layout.code} ${name}`));
    expect(stations.flatMap(({ cells }) => cells).sort((a, b) => a - b)).toEqual(
      layout.cells.map(({ index }) => index),
    );
  });

  it('reaches from its first to its last station and no further, and none touches another', () => {
    expect(Math.min(...stations.map(({ box }) => box.x))).toBe(0);
    expect(Math.min(...stations.map(({ box }) => box.y))).toBe(0);
    expect(Math.max(...stations.map(({ box }) => box.x + box.width))).toBeCloseTo(layout.widthMm, 6);
    expect(Math.max(...stations.map(({ box }) => box.y + box.height))).toBeCloseTo(layout.heightMm, 6);
    stations.forEach(({ box }, index) => {
      for (const other of stations.slice(index + 1)) expect(rectsOverlap(box, other.box)).toBe(false);
    });
  });

  it('is laid alike around a station as a card by itself is', () => {
    const station = stations[5]!;
    const own = layoutOfStation(layout, station);
    expect(own).toMatchObject({ cardNumber: 4005, widthMm: station.box.width, heightMm: station.box.height });
    expect(own.stations).toBeUndefined();
    expect(own.frame.markers.map(({ corner }) => corner)).toEqual([
      'upper-left',
      'upper-right',
      'lower-right',
      'lower-left',
    ]);
    expect(own.frame.markers[0]).toMatchObject({ x: 0, y: 0 });
    expect(own.cells.map(({ index }) => index)).toEqual([0, 1, 2]);
    expect([...own.order].sort()).toEqual([0, 1, 2]);
    own.cells.forEach(({ box, burns, levels }, index) => {
      const of = layout.cells[station.cells[index]!]!;
      expect(levels).toEqual(of.levels);
      expect(box.x + station.box.x).toBeCloseTo(of.box.x, 6);
      expect(box.y + station.box.y).toBeCloseTo(of.box.y, 6);
      const [ring] = burns[0]!.shape.do === 'sweep' ? burns[0]!.shape.area : [];
      expect(ring![0]!.x).toBeCloseTo(box.x, 3);
      expect(ring![0]!.y).toBeCloseTo(box.y, 3);
    });
    expect(own.frame.lettering.filter(({ role }) => role === 'code').map(({ text }) => text)).toEqual([
      `${layout.code} B3`,
    ]);
  });

  it('is gathered to be looked at: stations beside each other as they stand, each as it is', () => {
    const close = gathered(layout);
    expect(close.widthMm).toBeLessThan(layout.widthMm / 2);
    close.stations!.forEach(({ box, name, cells }, index) => {
      const from = stations[index]!;
      expect([name, cells, box.width, box.height]).toEqual([from.name, from.cells, from.box.width, from.box.height]);
      for (const [later, other] of close.stations!.entries())
        if (later > index) expect(rectsOverlap(box, other.box)).toBe(false);
      // Right of, and in front of, the same ones as before.
      if (index % 3 > 0) expect(box.x).toBeGreaterThan(close.stations![index - 1]!.box.x);
      if (index > 2) expect(box.y).toBeGreaterThan(close.stations![index - 3]!.box.y);
      const [own, before] = [layoutOfStation(close, close.stations![index]!), layoutOfStation(layout, from)];
      own.cells.forEach((cell, k) => {
        expect(cell.box.x).toBeCloseTo(before.cells[k]!.box.x, 6);
        expect(cell.box.y).toBeCloseTo(before.cells[k]!.box.y, 6);
      });
      expect(own.frame.markers.map(({ id }) => id)).toEqual(before.frame.markers.map(({ id }) => id));
      expect(own.frame.lettering).toHaveLength(before.frame.lettering.length);
    });
    const { plan: few } = grid.propose({ pairing, facts: [] });
    const one = layCard(grid, few, pairing, { cardNumber: 1 });
    expect(gathered(one)).toBe(one);
  });

  it('takes of a sheet what its stations take, and leaves what lies between them', () => {
    expect(areasOf(layout)).toEqual(stations.map(({ box }) => box));
    const { plan: few } = grid.propose({ pairing, facts: [] });
    const one = layCard(grid, few, pairing, { cardNumber: 1 });
    expect(areasOf(one)).toEqual([{ x: 0, y: 0, width: one.widthMm, height: one.heightMm }]);
    const { stock } = pairing;
    const at = freePlace(stock, [], layout)!;
    const used = areasOf(layout).map((area) => ({ ...area, x: area.x + at.x, y: area.y + at.y }));
    const between = { widthMm: 30, heightMm: 20 };
    const place = freePlace(stock, used, between)!;
    expect(place.x + between.widthMm).toBeLessThan(layout.widthMm);
    // A card there keeps the stations off that place, and off no other.
    const taken = [{ ...place, width: between.widthMm, height: between.heightMm }];
    expect(cardIsFree(stock, taken, layout, at)).toBe(true);
    expect(cardIsFree(stock, [{ x: at.x + 1, y: at.y + 1, width: 5, height: 5 }], layout, at)).toBe(false);
    expect(cardIsFree(stock, [], layout, { x: stock.sheetWidthMm - 30, y: 2 })).toBe(false);
  });
});
