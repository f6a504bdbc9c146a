import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { benchCameraReport } from './accuracy/bench-camera';
import { otherCameraReport, readPart } from './accuracy/other-camera';

/**
 * Writes docs/accuracy.md: `npm run accuracy` all of it, `npm run accuracy -- bench [photos]` or `-- light [photos of each kind]` one section,
 * the other left as it stands.
 */
const REPORT = 'docs/accuracy.md';
const BETWEEN = '\n<!-- photos by another camera -->\n';
const HEAD = `# How accurate the reading is

Made by \`npm run accuracy\`.

`;

const [what = 'all', ...rest] = process.argv.slice(2);
if (what === 'part') {
  const [part, parts, photosEach] = rest.map(Number) as [number, number, number];
  await readPart(part, parts, photosEach);
} else {
  const standing = existsSync(REPORT) ? readFileSync(REPORT, 'utf8').replace(HEAD, '').split(BETWEEN) : [];
  const count = (usual: number): number => Number(rest[0] ?? usual);
  const bench = what === 'light' ? (standing[0] ?? '') : await benchCameraReport(count(50));
  // Some 35 cells each: over 3000 of every kind.
  const light = what === 'bench' ? (standing[1] ?? '') : await otherCameraReport(count(98));
  writeFileSync(REPORT, `${HEAD}${bench}${BETWEEN}${light}`);
}
