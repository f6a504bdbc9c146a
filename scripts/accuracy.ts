import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { benchCameraReport } from './accuracy/bench-camera';
import { cutPart, cutReport } from './accuracy/cut';
import { fitsPart, fitsReport } from './accuracy/fits';
import { jointsPart, jointsReport } from './accuracy/joints';
import { engravePart, engraveReport } from './accuracy/engrave';
import { readingsPart, readingsReport } from './accuracy/readings';
import { otherCameraReport, readPart } from './accuracy/other-camera';

/**
 * Writes docs/accuracy.md: `npm run accuracy` all of it, `npm run accuracy -- bench [photos]` or `-- light [photos of each kind] [words of some kinds]` or `-- engrave [stocks a seed]` or
 * `-- readings [sheets a family and seed]` or `-- cut [stocks a seed]` or `-- fits [stocks a seed]` or `-- joints [stocks a seed]` one section, the others left as they stand.
 */
const REPORT = 'docs/accuracy.md';
const BETWEEN = '\n<!-- photos by another camera -->\n';
const ENGRAVE = '\n<!-- the engrave side -->\n';
const READINGS = '\n<!-- the engrave side by drawn readings -->\n';
const CUT = '\n<!-- the cut side -->\n';
const FITS = '\n<!-- kerf and fits -->\n';
const JOINTS = '\n<!-- first parts and knobs -->\n';
const HEAD = `# How accurate the reading is

Made by \`npm run accuracy\`.

`;

const [what = 'all', ...rest] = process.argv.slice(2);
if (what === 'part') {
  const [part, parts, photosEach] = rest.map(Number) as [number, number, number];
  await readPart(part, parts, photosEach, rest[3] ?? '');
} else if (what === 'engrave-part') {
  const [part, parts, stocks] = rest.slice(1).map(Number) as [number, number, number];
  engravePart(rest[0]!, part, parts, stocks);
} else if (what === 'readings-part') {
  const [part, parts, sheets] = rest.slice(1).map(Number) as [number, number, number];
  readingsPart(rest[0]!, part, parts, sheets);
} else if (what === 'cut-part') {
  const [part, parts, stocks] = rest.slice(1).map(Number) as [number, number, number];
  cutPart(rest[0]!, part, parts, stocks);
} else if (what === 'fits-part') {
  const [part, parts, stocks] = rest.slice(1).map(Number) as [number, number, number];
  fitsPart(rest[0]!, part, parts, stocks);
} else if (what === 'joints-part') {
  const [part, parts, stocks] = rest.slice(1).map(Number) as [number, number, number];
  jointsPart(rest[0]!, part, parts, stocks);
} else {
  const written = existsSync(REPORT) ? readFileSync(REPORT, 'utf8').replace(HEAD, '') : '';
  const [upToFits = '', joints = ''] = written.split(JOINTS);
  const [upToCut = '', fits = ''] = upToFits.split(FITS);
  const [sides = '', cutting = ''] = upToCut.split(CUT);
  const [engraveSide = '', drawn = ''] = sides.split(READINGS);
  const [reading = '', engraving = ''] = engraveSide.split(ENGRAVE);
  const [bench = '', light = ''] = reading.split(BETWEEN);
  const count = (usual: number): number => Number(rest[0] ?? usual);
  const isWanted = (section: string): boolean => what === section || what === 'all';
  const sections = [
    isWanted('bench') ? await benchCameraReport(count(50)) : bench,
    BETWEEN,
    // Some 35 cells each: over 3000 of every kind.
    isWanted('light') ? await otherCameraReport(count(98), rest[1] ?? '', light) : light,
    ENGRAVE,
    isWanted('engrave') ? await engraveReport(count(34)) : engraving,
    READINGS,
    isWanted('readings') ? await readingsReport(count(34)) : drawn,
    CUT,
    isWanted('cut') ? await cutReport(count(34)) : cutting,
    FITS,
    isWanted('fits') ? await fitsReport(count(34)) : fits,
    JOINTS,
    isWanted('joints') ? await jointsReport(count(34)) : joints,
  ];
  writeFileSync(REPORT, `${HEAD}${sections.join('')}`);
}
