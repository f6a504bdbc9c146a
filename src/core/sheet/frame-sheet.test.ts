import { Matrix, QrDecomposition, SingularValueDecomposition } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { cornerOfMarker, MARKER_MODULES, markerModules } from '../card/markers';
import { rectsOverlap, type Rect } from '../geometry/point';
import { fittingSheet, frameSheet, GREY_STEPS, SHEET_FORMATS } from './frame-sheet';
import { markerBars } from './marker-bars';

/** Sizes of the papers, as ISO 216 and ANSI/ASME Y14.1 have them, held across. */
const PAPERS = { a5: [210, 148], letter: [279.4, 215.9] } as const;

describe.each(SHEET_FORMATS)('a frame sheet on %s', (format) => {
  const sheet = frameSheet(format);
  const markers: Rect[] = sheet.markers.map(({ x, y, sizeMm }) => ({ x, y, width: sizeMm, height: sizeMm }));
  const patches = sheet.patches.map(({ box }) => box);
  it('fits on its paper with its rule, a hand’s breadth of no printer’s margin away', () => {
    expect([sheet.paper.widthMm, sheet.paper.heightMm]).toEqual(PAPERS[format]);
    const { x, y } = sheet.onPaper;
    expect(Math.min(x, y)).toBeGreaterThan(6);
    expect(x + sheet.widthMm).toBeLessThan(sheet.paper.widthMm - 6);
    expect(y + sheet.rule.y + 5).toBeLessThan(sheet.paper.heightMm - 6);
    expect(sheet.rule.lengthMm).toBe(100);
    expect(sheet.rule.x + x).toBeGreaterThan(6);
  });
  it('has nothing over anything else, and a window that all of it leaves free', () => {
    const all = [...markers, ...patches, sheet.window];
    all.forEach((a, index) => all.slice(index + 1).forEach((b) => expect(rectsOverlap(a, b)).toBe(false)));
    for (const { x, y, width, height } of all) {
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(1.5);
      expect(x + width).toBeLessThanOrEqual(sheet.widthMm - 1.5);
      expect(y + height).toBeLessThanOrEqual(sheet.heightMm - 1.5);
    }
    // A quiet rim of one module at the least, or no marker is found.
    for (const marker of markers)
      for (const patch of patches)
        expect(
          Math.max(
            patch.x - marker.x - marker.width,
            marker.x - patch.x - patch.width,
            patch.y - marker.y - marker.height,
            marker.y - patch.y - patch.height,
          ),
        ).toBeGreaterThan(11 / 8);
  });
  it('has every grey once on each side, the same in the same order on two of them', () => {
    for (const side of ['top', 'right', 'bottom', 'left'] as const) {
      const steps = sheet.patches.filter((patch) => patch.side === side).map(({ step }) => step);
      expect([...steps].sort()).toEqual(GREY_STEPS.map((_, step) => step));
      if (side === 'top') expect(steps).toEqual([...steps].sort());
      if (side === 'bottom') expect(steps).toEqual([...steps].sort().reverse());
    }
  });
  it('has no light of the second order over it that looks like steps', () => {
    // Canonical correlation: the largest singular value between orthonormal bases of both sets. H. Hotelling, Biometrika 28 (1936) 321.
    const basis = (rows: number[][]): Matrix => new QrDecomposition(new Matrix(rows).center('column')).orthogonalMatrix;
    const steps = basis(sheet.patches.map(({ step }) => [1, 2, 3, 4].map((power) => ((step - 4) / 4) ** power)));
    const places = basis(
      sheet.patches.map(({ box }) => {
        const [u, v] = [(box.x + box.width / 2) / sheet.widthMm - 0.5, (box.y + box.height / 2) / sheet.heightMm - 0.5];
        return [u, v, u * u, u * v, v * v];
      }),
    );
    const [largest] = new SingularValueDecomposition(places.transpose().mmul(steps)).diagonal;
    expect(largest).toBeLessThan(0.35);
  });
  it('has markers that no card has', () => {
    for (const { id } of sheet.markers) expect(cornerOfMarker(id)).toBeNull();
  });
});

describe('bars of a marker', () => {
  it('cover its dark modules and nothing else', () => {
    expect(() => markerModules(250)).toThrow('unknown marker id: 250');
    const modules = markerModules(244);
    const bars = markerBars(244, 3, 5, 8);
    for (let row = 0; row < MARKER_MODULES; row++)
      for (let column = 0; column < MARKER_MODULES; column++) {
        const [x, y] = [3 + column + 0.5, 5 + row + 0.5];
        const covered = bars.filter((bar) => x > bar.x && x < bar.x + bar.width && y > bar.y && y < bar.y + bar.height);
        expect(covered.length).toBe(modules[row * MARKER_MODULES + column] ? 1 : 0);
      }
    expect(Math.max(...bars.map((bar) => bar.y + bar.height))).toBeCloseTo(13, 9);
  });
});

describe('the sheet for a card', () => {
  it('is the smallest with a window for it and some stock around', () => {
    expect(fittingSheet({ widthMm: 84, heightMm: 64 })).toBe('a5');
    expect(fittingSheet({ widthMm: 85, heightMm: 60 })).toBe('letter');
    expect(fittingSheet({ widthMm: 60, heightMm: 65 })).toBe('letter');
    expect(fittingSheet({ widthMm: 300, heightMm: 300 })).toBe('letter');
  });
});
