// Which deliberate faults are tried: a seeded sample of all that can be made in the sources of an area.
import { readFileSync } from 'node:fs';
import { Instrumenter } from '@stryker-mutator/instrumenter';
import seedrandom from 'seedrandom';

const SILENT = new Proxy({}, { get: (_, name) => (String(name).startsWith('is') ? () => false : () => undefined) });

/** Every fault that can be made in these files, by file, place and what it writes there. */
export async function allMutants(files) {
  const instrumenter = new Instrumenter(SILENT);
  const sources = files.map((name) => ({ name, mutate: true, content: readFileSync(name, 'utf8') }));
  const { mutants } = await instrumenter.instrument(sources, {
    ignorers: [],
    plugins: null,
    excludedMutations: [],
    noHeader: true,
  });
  return mutants.map(({ fileName, mutatorName, replacement, location }) => ({
    fileName,
    mutatorName,
    replacement,
    location,
  }));
}

const before = (a, b) => a.line < b.line || (a.line === b.line && a.column <= b.column);
const holds = (outer, inner) =>
  outer.fileName === inner.fileName &&
  before(outer.location.start, inner.location.start) &&
  before(inner.location.end, outer.location.end);

/**
 * Places in a random order that a seed decides, as many as it takes to hold `count` faults. Every fault within a place is tried: the
 * mutation tester takes places, not single faults.
 */
export function sampled(mutants, count, seed) {
  const random = seedrandom(seed);
  const order = mutants.map((mutant) => ({ mutant, at: random() })).sort((a, b) => a.at - b.at);
  const places = [];
  const held = new Set();
  for (const { mutant } of order) {
    if (held.size >= count) break;
    if (held.has(mutant)) continue;
    const inside = mutants.filter((other) => holds(mutant, other));
    // A whole function's body would bring everything in it and leave no room for other places.
    if (inside.length > 8) continue;
    places.push(mutant);
    for (const one of inside) held.add(one);
  }
  return places;
}

/** The place as the mutation tester takes it: lines from one, columns from none. */
export const rangeOf = ({ fileName, location: { start, end } }) =>
  `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`;
