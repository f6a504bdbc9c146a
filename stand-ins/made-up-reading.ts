import type { CellReading } from '../src/core/reading/observations';

/** A reading that nothing is the matter with, for tests that put their own tone into it. */
export const readingOf = (cellIndex: number): CellReading => ({
  cellIndex,
  lightness: 50,
  deltaLightness: -28,
  spread: 1,
  lines: null,
  ripple: null,
  line: null,
  bars: null,
  ends: null,
  picture: null,
  drawing: null,
  edgeHalo: 0,
  clippedShare: 0,
  edgeWidthMm: 0.1,
  lightnessSigma: 0.5,
  sharedSigma: 0.2,
  hue: null,
  confidence: 0.99,
  doubts: [],
  colour: '#886644',
});
