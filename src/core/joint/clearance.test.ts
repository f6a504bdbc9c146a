import { describe, expect, it } from 'vitest';
import { jointBySchool, looksLikeLabel, slotForSheet, type Joint } from './clearance';

const inch = (value: number): number => 25.4 * value;
const joint = (change: Partial<Joint> = {}): Joint => ({
  sizeMm: 10,
  clearanceMm: 0,
  holeKerfMm: 0.2,
  partKerfMm: 0.2,
  kerfSigmaMm: null,
  ...change,
});

describe('a joint of two cut parts', () => {
  // Common practice: a square of 1.000 in that measures 0.990 in has a kerf of 0.010 in; for a 1.000 in tab a slot of 0.990 in is drawn.
  it('is drawn as shops draw it', () => {
    const [both] = jointBySchool(joint({ sizeMm: inch(1), holeKerfMm: inch(0.01), partKerfMm: inch(0.01) }));
    expect(both!.holeMm / 25.4).toBeCloseTo(0.99, 6);
    expect(both!.partMm / 25.4).toBeCloseTo(1.01, 6);
  });
  it('has what is wanted between its parts where both cuts are compensated for, and a kerf or two more where they are not', () => {
    const of = (change: Partial<Joint>) =>
      Object.fromEntries(
        jointBySchool(joint(change)).map(({ school, clearanceMm }) => [
          school,
          Math.round(clearanceMm * 1e6) / 1e6 + 0,
        ]),
      );
    expect(of({})).toEqual({ both: 0, part: 0, hole: 0, 'part-alone': 0.2, nobody: 0.4 });
    expect(of({ clearanceMm: -0.05 })).toEqual({
      both: -0.05,
      part: -0.05,
      hole: -0.05,
      'part-alone': 0.2,
      nobody: 0.4,
    });
    // An inlay of another stock: either has its own kerf.
    expect(of({ holeKerfMm: 0.3, partKerfMm: 0.1 })).toEqual({
      both: 0,
      part: 0,
      hole: 0,
      'part-alone': 0.3,
      nobody: 0.4,
    });
  });
  it('is as its sizes say when they are cut: a hole larger by its kerf, a part smaller', () => {
    for (const { holeMm, partMm, clearanceMm } of jointBySchool(joint({ clearanceMm: 0.07, holeKerfMm: 0.3 })))
      expect(holeMm + 0.3 - (partMm - 0.2)).toBeCloseTo(clearanceMm, 9);
    const [inlaid] = jointBySchool(joint({ holeKerfMm: 0.3, partKerfMm: 0.1 }));
    expect([inlaid!.holeMm, inlaid!.partMm]).toEqual([expect.closeTo(9.7, 9), expect.closeTo(10.1, 9)]);
    const [both] = jointBySchool(joint({ clearanceMm: 0.07 }));
    expect([both!.holeMm, both!.partMm]).toEqual([expect.closeTo(9.87, 9), expect.closeTo(10.2, 9)]);
  });
  it('is half as sure as the kerf, which is off in both alike, and not at all where nobody knows', () => {
    expect(jointBySchool(joint({ kerfSigmaMm: 0.006 }))[0]!.sigmaMm).toBeCloseTo(0.012, 9);
    expect(jointBySchool(joint())[0]!.sigmaMm).toBeNull();
  });
  it('is refused where a kerf is no kerf, or nothing would be left', () => {
    expect(() => jointBySchool(joint({ holeKerfMm: -0.1 }))).toThrow(/takes something away/);
    expect(() => jointBySchool(joint({ partKerfMm: NaN }))).toThrow(/takes something away/);
    expect(() => jointBySchool(joint({ partKerfMm: 10 }))).toThrow(/nothing would be left/);
    expect(() => jointBySchool(joint({ sizeMm: 0.3 }))).toThrow(/no width/);
  });
});

describe('a slot for a sheet', () => {
  const slot = {
    thicknessMm: inch(0.12),
    thicknessSigmaMm: null,
    clearanceMm: 0,
    kerfMm: inch(0.01),
    kerfSigmaMm: null,
  };
  // Common practice: for a sheet of 0.120 in and a kerf of 0.010 in it is drawn 0.110 in.
  it('is as wide as the sheet is thick, less one kerf', () => {
    expect(slotForSheet(slot).drawnMm / 25.4).toBeCloseTo(0.11, 6);
    expect(slotForSheet({ ...slot, clearanceMm: 0.1 }).drawnMm).toBeCloseTo(inch(0.11) + 0.1, 9);
  });
  it('is as sure as sheet and kerf together', () => {
    expect(slotForSheet({ ...slot, thicknessSigmaMm: 0.03, kerfSigmaMm: 0.004 }).sigmaMm).toBeCloseTo(0.03027, 5);
    expect(slotForSheet({ ...slot, thicknessSigmaMm: 0.03 }).sigmaMm).toBeNull();
    expect(() => slotForSheet({ ...slot, thicknessMm: 0.1 })).toThrow(/cannot be drawn/);
    expect(() => slotForSheet({ ...slot, kerfMm: -1 })).toThrow(/takes something away/);
  });
  it('is questioned where its thickness is a label’s', () => {
    expect([3, 3.175, 6.35, 1.5875].map(looksLikeLabel)).toEqual([true, true, true, true]);
    expect([3.05, 2.97, 6.02].map(looksLikeLabel)).toEqual([false, false, false]);
  });
});
