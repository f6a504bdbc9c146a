import type { DemoPairing } from '../../src/demo/world';

/** The demo stocks that reports go through, each on a machine that engraves it. */
export const PAIRINGS: readonly DemoPairing[] = [
  { machine: 'heron', lens: 0, stock: 'birch' },
  { machine: 'heron', lens: 0, stock: 'leather' },
  { machine: 'marl', lens: 0, stock: 'alder' },
  { machine: 'marl', lens: 0, stock: 'slate' },
  { machine: 'marl', lens: 0, stock: 'mdf' },
  { machine: 'marl', lens: 0, stock: 'twoLayer' },
  { machine: 'marl', lens: 1, stock: 'cork' },
];
