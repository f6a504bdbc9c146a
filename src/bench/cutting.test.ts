import { describe, expect, it } from 'vitest';
import { CELL, cutSquare, PART, square } from '../../tests/support/bench';
import { caliperReading, depthReading, isLoose } from './gauges';
import { lightTable } from './light-table';
import type { Trace } from './laser';
import { burnPiece, trueLuminanceRatio, type BurnRequest } from './piece';
import { SPECIMENS } from './specimens';

describe('cutting on the bench', () => {
  // Common practice: about 1 J/mm for each mm of MDF.
  it('comes through with enough energy and not with little; thicker sheets ask for more', () => {
    expect(isLoose(burnPiece(cutSquare(6, 1)), PART)).toBe(true);
    expect(isLoose(burnPiece(cutSquare(0.8, 1)), PART)).toBe(false);
    expect(isLoose(burnPiece(cutSquare(6, 1, { thicknessMm: 9 })), PART)).toBe(false);
  });
  // Common practice: a fibre marks coated and leather-like faces, and cuts neither their core nor their backing.
  it('goes through leatherette and two-layer sheet under far infrared, and only marks their faces under a fibre', () => {
    for (const family of ['leatherette', 'two-layer']) {
      const cut = (band: 'near' | 'far') =>
        isLoose(burnPiece(cutSquare(3, 1, { band, specimen: SPECIMENS[family]! })), PART);
      expect([cut('far'), cut('near')], family).toEqual([true, false]);
      const marks = (band: 'near' | 'blue') =>
        trueLuminanceRatio(burnPiece(square(0.3, { band, specimen: SPECIMENS[family]! })), CELL);
      expect(marks('near'), family).toBeGreaterThan(1.5);
      expect(marks('near'), family).toBeGreaterThan(marks('blue'));
    }
  });
  it('comes through in several passes where one does not, but char makes them dearer than their sum', () => {
    const least = (passes: number): number => {
      let [low, high] = [0.3, 8];
      for (let turn = 0; turn < 7; turn++) {
        const middle = (low + high) / 2;
        if (isLoose(burnPiece(cutSquare(middle / passes, passes)), PART)) high = middle;
        else low = middle;
      }
      return high;
    };
    const [one, three] = [least(1), least(3)];
    expect(three).toBeGreaterThan(one);
    expect(three).toBeLessThan(3 * one);
  });
  it('asks for as much round an outline of many short legs as along straight sides: a way gone in one go is one crossing', () => {
    const round = (joulesPerMm: number): BurnRequest => {
      const at = (k: number) => ({ x: 8 + 4 * Math.cos((k * Math.PI) / 18), y: 8 + 4 * Math.sin((k * Math.PI) / 18) });
      const traces = Array.from({ length: 36 }, (_, k): Trace => {
        const [from, to] = [at(k), at(k + 1)];
        const way = { x0: from.x, y0: from.y, x1: to.x, y1: to.y };
        return { ...way, joulesPerMm, watts: 30, speedMmPerS: 20, focusOffsetMm: 0, air: 'on' };
      });
      return { ...cutSquare(joulesPerMm, 1), traces };
    };
    const least = (request: (joulesPerMm: number) => BurnRequest): number => {
      let [low, high] = [0.3, 8];
      for (let turn = 0; turn < 8; turn++) {
        const middle = (low + high) / 2;
        if (isLoose(burnPiece(request(middle)), PART)) high = middle;
        else low = middle;
      }
      return high;
    };
    expect(least(round) / least((joulesPerMm) => cutSquare(joulesPerMm, 1))).toBeCloseTo(1, 1);
  });
  it('is wider above than below, takes a usual kerf away, and shows on the light table', () => {
    const piece = burnPiece(cutSquare(5, 1));
    const gauge = { owner: 'Tester', turn: 0 };
    const across = caliperReading(piece, PART, { axis: 'x', on: 'part' }, gauge);
    const lost = 8 - Number('shows' in across && across.shows);
    expect(lost).toBeGreaterThan(0.03);
    expect(lost).toBeLessThan(0.4);
    // Across the left side: wider near the face than where it comes through.
    const row = Math.round((8 + 1) * piece.pxPerMm) * piece.width;
    const wide = (share: number): number => {
      const line = piece.depthMm.subarray(row, row + Math.round(8 * piece.pxPerMm));
      return line.filter((depth) => depth >= share * piece.thicknessMm).length / piece.pxPerMm;
    };
    expect(wide(0.2)).toBeGreaterThan(wide(0.995));
    expect(wide(0.995)).toBeGreaterThan(0.03);
    const light = lightTable(piece);
    const at = (x: number, y: number): number =>
      light.data[Math.round((y + 1) * piece.pxPerMm) * light.width + Math.round((x + 1) * piece.pxPerMm)]!;
    expect(at(4, 8)).toBeGreaterThan(200);
    expect(at(8, 8)).toBeLessThan(20);
  });
  it('cannot be measured before it has come loose, and repeats scatter by hundredths', () => {
    expect(
      caliperReading(burnPiece(cutSquare(0.8, 1)), PART, { axis: 'x', on: 'part' }, { owner: 'Tester', turn: 0 }),
    ).toHaveProperty('cannot');
    const piece = burnPiece(cutSquare(6, 1));
    const shown = [0, 1, 2, 3, 4, 5].map((turn) => {
      const answer = caliperReading(piece, PART, { axis: 'x', on: 'part' }, { owner: 'Tester', turn });
      return Number('shows' in answer ? answer.shows : NaN);
    });
    expect(new Set(shown).size).toBeGreaterThan(1);
    expect(Math.max(...shown) - Math.min(...shown)).toBeLessThan(0.08);
    expect(caliperReading(piece, PART, { axis: 'x', on: 'part' }, { owner: 'Tester', turn: 3 })).toEqual({
      shows: shown[3]!.toFixed(2),
    });
  });
  it('leaves a hole that is as much wider than it was drawn as the part is narrower, by the inside jaws', () => {
    const piece = burnPiece(cutSquare(6, 1));
    for (const axis of ['x', 'y'] as const) {
      const [part, hole] = (['part', 'hole'] as const).map((on) => {
        const answer = caliperReading(piece, PART, { axis, on }, { owner: 'Tester', turn: 0 });
        return Number('shows' in answer ? answer.shows : NaN);
      });
      expect(part).toBeLessThan(8);
      expect(hole).toBeGreaterThan(8);
      // Either jaw is off by up to 0.015 mm, and shakes.
      expect(Math.abs(part! + hole! - 16)).toBeLessThan(0.07);
    }
  });
  it('is measured at its narrowest where something stands into a hole', () => {
    const piece = burnPiece(cutSquare(6, 1));
    const hole = (): number => {
      const answer = caliperReading(piece, PART, { axis: 'x', on: 'hole' }, { owner: 'Tester', turn: 0 });
      return Number('shows' in answer ? answer.shows : NaN);
    };
    const whole = hole();
    // A burr on the right rim, along the upper half only: it does not reach the part.
    const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
    for (let y = px(4); y < px(8); y++) piece.depthMm.fill(0, y * piece.width + px(12.02), y * piece.width + px(12.3));
    expect(hole()).toBeLessThan(whole - 0.02);
  });
  it('has a depth gauge that finds more ground gone after more energy, none where it is through', () => {
    const depth = (energy: number): number => {
      const answer = depthReading(burnPiece(square(energy)), CELL, { owner: 'Tester', turn: 0 });
      return 'shows' in answer ? Number(answer.shows) : Infinity;
    };
    expect(depth(0)).toBeLessThan(0.02);
    expect(depth(6)).toBeGreaterThan(depth(3));
    expect(depth(40)).toBe(Infinity);
  });
  it('flares up only where stock is resinous, more often the longer the beam dwells', () => {
    const charred = (resin: number, speedMmPerS: number): number => {
      const mdf = SPECIMENS['mdf']!;
      const traces = square(3).traces.map((trace): Trace => ({ ...trace, speedMmPerS, air: 'off' }));
      const burned = (own: number): Float32Array =>
        burnPiece(square(3, { traces, specimen: { ...mdf, smoke: 0, solid: { ...mdf.solid, resin: own } } })).after;
      const [with_, without] = [burned(resin), burned(0)];
      return with_.reduce((count, value, index) => count + (value === without[index] ? 0 : 1), 0);
    };
    expect(charred(0, 1)).toBe(0);
    expect(charred(1, 1)).toBeGreaterThan(0);
    expect(charred(1, 500)).toBeLessThan(charred(1, 1));
  });
  it('scorches the stock beside a cut: more without air, when it dwells, and where stock chars; wiping does not help', () => {
    const beside = { x: 4.4, y: 5, width: 0.4, height: 6 };
    const dim = (change: Partial<Trace>, more: Partial<BurnRequest> = {}): number => {
      const request = cutSquare(5, 1, more);
      const traces = request.traces.map((trace) => ({ ...trace, ...change }));
      return 1 - trueLuminanceRatio(burnPiece({ ...request, traces }), beside);
    };
    const plain = dim({});
    expect(plain).toBeGreaterThan(0.03);
    expect(dim({ air: 'off' })).toBeGreaterThan(1.2 * plain);
    expect(dim({ speedMmPerS: 2 })).toBeGreaterThan(1.2 * plain);
    // The same energy in quick passes is the usual remedy.
    expect(dim({ speedMmPerS: 100 })).toBeLessThan(0.8 * plain);
    const acrylic = { ...SPECIMENS['acrylic-cast']!, smoke: 0 };
    expect(Math.abs(dim({}, { specimen: acrylic }))).toBeLessThan(0.5 * plain);
    expect(dim({}, { wiped: true })).toBeCloseTo(plain, 6);
  });
  it('is held up by pockets inside the sheet', () => {
    const mdf = SPECIMENS['mdf']!;
    const shallowest = (pockets: number): number => {
      const specimen = { ...mdf, smoke: 0, texture: { ...mdf.texture, pockets } };
      const piece = burnPiece(cutSquare(2.5, 1, { specimen }));
      const row = Math.round((4 + 1) * piece.pxPerMm - 0.5) * piece.width;
      const from = Math.round(6 * piece.pxPerMm);
      return Math.min(...piece.depthMm.subarray(row + from, row + Math.round(12 * piece.pxPerMm)));
    };
    expect(shallowest(400)).toBeLessThan(0.95 * shallowest(0));
  });
  it('leaves soot that wipes off, more without air', () => {
    const sooty = { ...SPECIMENS['mdf']!, smoke: 0.7 };
    const beside = { x: 0, y: 0.4, width: 10, height: 1 };
    const dim = (change: Partial<BurnRequest>): number =>
      trueLuminanceRatio(burnPiece(square(3, { specimen: sooty, ...change })), beside);
    const noAir = square(3).traces.map((trace): Trace => ({ ...trace, air: 'off' }));
    expect(dim({ traces: noAir })).toBeLessThan(dim({}));
    expect(dim({ wiped: true })).toBeGreaterThan(dim({}));
  });
});
