// npm run mutants: makes deliberate faults, a seeded sample of all that can be made, and sees which of them a test notices. Writes
// docs/mutants.md. `--seed WORDS`, `--area core|app`, `--count N` try others and print only; `--files src/core/stats` tries every fault of
// these files (several, by commas), `--tests 'src/core/stats/**'` against these tests alone. `--report` writes the last whole run's report
// again, after its survivors were looked at and named in scripts/mutants/equivalent.json.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Stryker } from '@stryker-mutator/core';
import { allMutants, rangeOf, sampled } from './mutants/sample.mjs';
import { reportOf } from './mutants/report.mjs';
import { root } from './prepare.mjs';
import { TEST_ZONE } from './test-zone.mjs';

/** What faults are made in, how many, and against which tests (see vitest.mutants.config.ts). */
const AREAS = {
  core: { title: 'Core, cards and formats', folders: ['src/core', 'src/cards', 'src/formats'], count: 320, least: 80 },
  app: { title: 'Application and API', folders: ['src/app', 'src/api'], count: 115, least: 70 },
};

const { values: asked } = parseArgs({
  options: {
    seed: { type: 'string' },
    area: { type: 'string' },
    count: { type: 'string' },
    files: { type: 'string' },
    tests: { type: 'string' },
    workers: { type: 'string', default: '2' },
    report: { type: 'boolean', default: false },
  },
});
const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).trim();
const seed = asked.seed ?? git('rev-parse', '--short', 'HEAD');

async function tryArea(name) {
  const { folders, count, ...area } = AREAS[name];
  const files = git('ls-files', ...(asked.files?.split(',') ?? folders))
    .split('\n')
    .filter((file) => file.endsWith('.ts') && !/\.test\.ts$|\/ui\/|\/ui-registry\.ts$/.test(file));
  const all = await allMutants(files);
  const wanted = sampled(all, asked.files && !asked.count ? Infinity : Number(asked.count ?? count), `${seed} ${name}`);
  process.env.MUTANTS_AREA = name;
  if (asked.tests) process.env.MUTANTS_TESTS = asked.tests;
  const started = Date.now();
  const results = await new Stryker({
    testRunner: 'vitest',
    vitest: { configFile: 'vitest.mutants.config.ts', related: false },
    mutate: wanted.map(rangeOf),
    coverageAnalysis: 'perTest',
    // Faults in what is computed once, while a module is loaded, would each need a process of their own.
    ignoreStatic: true,
    concurrency: Number(asked.workers),
    timeoutMS: 20_000,
    // All tests once, one after another: five minutes, where nothing else runs.
    dryRunTimeoutMinutes: 20,
    reporters: ['dots'],
    allowConsoleColors: false,
    tempDirName: 'data/mutants',
    ignorePatterns: ['/data', '/docs/screenshots', '/dist', '/test-results', '/.astro'],
    disableTypeChecks: false,
  }).runMutationTest();
  // Results count lines and columns from one.
  const placed = (mutant) => ({
    ...mutant,
    fileName: mutant.fileName.replace(`${root}/`, '').replace(root, ''),
    location: {
      start: { line: mutant.location.start.line - 1, column: mutant.location.start.column - 1 },
      end: { line: mutant.location.end.line - 1, column: mutant.location.end.column - 1 },
    },
  });
  return {
    name,
    ...area,
    files: files.length,
    all: all.length,
    tried: results.map(placed),
    minutes: (Date.now() - started) / 60_000,
  };
}

process.chdir(root);
// The zone of a process is that of its start: threads that tests run in cannot change it.
process.env.TZ = TEST_ZONE;
const whole = !asked.area && !asked.count && !asked.seed && !asked.files && !asked.tests;
const kept = join(root, 'data', 'last-mutants.json');

async function run() {
  const areas = [];
  const ofFiles = asked.files && (/^src\/(app|api)/.test(asked.files) ? 'app' : 'core');
  const names = [asked.area ?? ofFiles].filter(Boolean);
  for (const name of names.length > 0 ? names : Object.keys(AREAS)) areas.push(await tryArea(name));
  const sources = Object.fromEntries(
    areas.flatMap(({ tried }) => tried.map(({ fileName }) => [fileName, readFileSync(fileName, 'utf8')])),
  );
  return { seed, areas, sources };
}

const { sources, ...results } = asked.report ? JSON.parse(readFileSync(kept, 'utf8')) : await run();
const lookedAt = JSON.parse(readFileSync(join(root, 'scripts/mutants/equivalent.json'), 'utf8'));
const report = reportOf({ ...results, lookedAt, sourceOf: (file) => sources[file] });
console.log(report);
if (whole) writeFileSync(join(root, 'docs/mutants.md'), report);
if (whole && !asked.report) {
  mkdirSync(join(root, 'data'), { recursive: true });
  writeFileSync(kept, JSON.stringify({ ...results, sources }));
}
