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

/** One fault, told apart from every other. */
export const keyOf = ({ fileName, mutatorName, replacement, location: { start, end } }) =>
  `${fileName}|${start.line}:${start.column}-${end.line}:${end.column}|${mutatorName}|${replacement}`;

/** `count` of them in a random order that a seed decides. */
export function sampled(mutants, count, seed) {
  const random = seedrandom(seed);
  const order = mutants.map((mutant) => ({ mutant, at: random() })).sort((a, b) => a.at - b.at);
  return order.slice(0, count).map(({ mutant }) => mutant);
}

/** The place as the mutation tester takes it: lines from one, columns from none. */
export const rangeOf = ({ fileName, location: { start, end } }) =>
  `${fileName}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`;
