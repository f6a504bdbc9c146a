import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import { layCard } from '../card/lay';
import { CORNER_NAMES, type CornerName, type Layout } from '../card/layout';
import { project } from '../geometry/homography';
import type { FoundMarker } from './find-markers';
import { locateCard } from './locate-card';
import { markerCornersMm, markersOfCard, placedByMarkers } from './markers-of-card';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'leather');
const { plan } = grid.propose({ pairing, facts: [] });
const layOf = (cardNumber: number): Layout => layCard(grid, plan, pairing, { cardNumber });
const layout = layOf(77);

/** A photo that shows the card 30 times its size in mm, turned by a right angle: x becomes down, y becomes left. */
const place = (x: number, y: number) => ({ x: 2000 - 30 * y, y: 100 + 30 * x });
const seen = (of: Layout, corner: CornerName, move = 0): FoundMarker => {
  const { id } = of.frame.markers.find((marker) => marker.corner === corner)!;
  const corners = markerCornersMm(of, corner).map(({ x, y }) => {
    const at = place(x, y);
    return { x: at.x + move, y: at.y };
  });
  return { id, wrongBits: 0, corners: corners as unknown as FoundMarker['corners'], lightOnDark: false };
};
const four = (of: Layout): FoundMarker[] => CORNER_NAMES.map((corner) => seen(of, corner));
const stray: FoundMarker = { ...seen(layout, 'upper-left'), id: 249 };

describe('where a card lies in a photo', () => {
  it('is told by four of its markers, or three, in whatever order they were found', () => {
    for (const missing of [null, ...CORNER_NAMES]) {
      const markers = CORNER_NAMES.filter((corner) => corner !== missing).map((corner) => seen(layout, corner));
      const found = locateCard(layout, markers.reverse());
      if (found.found !== 'card') throw new Error(found.found);
      expect(found).toMatchObject({ markers: missing === null ? 4 : 3, alsoSeen: [] });
      expect(found.rmsPx).toBeLessThan(1e-6);
      const at = project(found.toPhoto, 10, 20);
      expect(at.x).toBeCloseTo(place(10, 20).x, 6);
      expect(at.y).toBeCloseTo(place(10, 20).y, 6);
    }
  });
  it('says how far markers lie from where the map puts them', () => {
    const [first, ...rest] = four(layout);
    const found = locateCard(layout, [seen(layout, 'upper-left', 3), ...rest]);
    expect(first).toBeDefined();
    if (found.found !== 'card') throw new Error(found.found);
    expect(found.rmsPx).toBeGreaterThan(0.1);
    expect(found.rmsPx).toBeLessThan(3);
  });
  it('is not told by two, and strays spell nothing', () => {
    const two = [seen(layout, 'upper-left'), seen(layout, 'lower-right')];
    expect(locateCard(layout, two)).toEqual({ found: 'too-few-markers', markers: 2 });
    // A marker of no card, such as a frame sheet's, is not counted.
    expect(locateCard(layout, [...two, stray])).toEqual({ found: 'too-few-markers', markers: 2 });
    expect(locateCard(layout, [])).toEqual({ found: 'too-few-markers', markers: 0 });
  });
  it('goes by the markers that lie by each other, not by one that lies elsewhere', () => {
    const [, ...three] = four(layout);
    const astray = seen(layout, 'upper-left', 400);
    for (const markers of tuples([...four(layout), astray], [astray, ...four(layout)])) {
      const found = locateCard(layout, markers);
      expect(found).toMatchObject({ found: 'card', markers: 4 });
      if (found.found === 'card') expect(found.rmsPx).toBeLessThan(1e-6);
    }
    // Of two that both might be, the one that fits.
    for (const markers of [
      [...four(layout), seen(layout, 'upper-left', 6)],
      [seen(layout, 'upper-left', 6), ...four(layout)],
    ]) {
      const found = locateCard(layout, markers);
      expect(found.found === 'card' && found.rmsPx).toBeLessThan(1e-6);
    }
    // A neighbour's marker with the same code, where a hand covers the card's own.
    const found = locateCard(layout, [astray, ...three]);
    expect(found).toMatchObject({ found: 'card', markers: 3 });
    if (found.found === 'card') expect(found.rmsPx).toBeLessThan(1e-6);
  });
  it('is not sought among more markers than can be tried, nor told by corners on one line', () => {
    const copies = (count: number) =>
      Array.from({ length: count }, (_, k) => four(layout).map((one) => ({ ...one, wrongBits: k })));
    expect(markersOfCard(layout, copies(6).flat())!.markers).toHaveLength(4);
    expect(markersOfCard(layout, copies(7).flat())).toBeNull();
    const flat = seen(layout, 'upper-left');
    const line = {
      ...flat,
      corners: flat.corners.map((_, k) => ({ x: k, y: 2 * k })) as unknown as typeof flat.corners,
    };
    expect(placedByMarkers(layout, { 'upper-left': line })).toBeNull();
  });
  it('believes markers that are seen once and lie nowhere together, and says how far they are off', () => {
    const markers = CORNER_NAMES.slice(0, 3).map((corner, index) => seen(layout, corner, 400 * index * index));
    const found = locateCard(layout, markers);
    expect(found).toMatchObject({ found: 'card', markers: 3 });
    if (found.found === 'card') expect(found.rmsPx).toBeGreaterThan(30);
  });
  it('is told from cards with the next numbers that lie beside it, and names them', () => {
    // They share two markers each, and cover each other's corners in turn.
    const beside = [77, 78, 79].map(layOf);
    const markers = beside.flatMap((of, index) => CORNER_NAMES.map((corner) => seen(of, corner, -2000 * index)));
    beside.forEach((of, index) => {
      const found = locateCard(of, markers);
      if (found.found !== 'card') throw new Error(found.found);
      expect(found.markers).toBe(4);
      expect(found.rmsPx).toBeLessThan(1e-6);
      expect(project(found.toPhoto, 10, 20).x).toBeCloseTo(place(10, 20).x - 2000 * index, 5);
      expect(found.alsoSeen).toEqual([77, 78, 79].filter((number) => number !== of.cardNumber));
    });
    expect(locateCard(layOf(80), markers)).toMatchObject({ found: 'several-cards', cardNumbers: [77, 78, 79] });
  });
  it('counts the same card twice as several', () => {
    const both = [...four(layout), ...CORNER_NAMES.slice(1).map((corner) => seen(layout, corner, 400))];
    expect(locateCard(layout, both)).toEqual({ found: 'several-cards', cardNumbers: [77, 77] });
  });
  it('names the other card that it shows, or the others, lowest first, and those beside its own', () => {
    const [other, third] = [layOf(4321), layOf(9)];
    expect(locateCard(layout, four(other))).toEqual({ found: 'other-card', cardNumber: 4321 });
    expect(locateCard(layout, four(other).slice(1))).toEqual({ found: 'other-card', cardNumber: 4321 });
    const found = locateCard(layout, [...four(layout), ...four(other)]);
    expect(found).toMatchObject({ found: 'card', alsoSeen: [4321] });
    const several = locateCard(layout, [...four(other), ...four(third)]);
    if (several.found !== 'several-cards') throw new Error(several.found);
    expect(several.cardNumbers).toEqual(expect.arrayContaining([9, 4321]));
    expect(several.cardNumbers).toEqual([...several.cardNumbers].sort((a, b) => a - b));
  });
  it('is set by hand where a card has no markers of its own', () => {
    const bare = { ...layout, frame: { ...layout.frame, markers: [] } };
    expect(locateCard(bare, four(layout))).toEqual({ found: 'too-few-markers', markers: 4 });
  });
});
