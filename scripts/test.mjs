// npm test: installs what tests need, then runs every check and closes with "N passed, N failed" alone on a line.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild, ensureDependencies, checkNode, root } from './prepare.mjs';
import { ensurePostgres, installPackages, Plain } from './postgres.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const results = join(root, 'test-results');
let passed = 0;
let failed = 0;

function run(command, args) {
  return (
    spawnSync(command, args, {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, TZ: 'UTC', ASTRO_TELEMETRY_DISABLED: '1' },
    }).status === 0
  );
}

/** A check that passes or fails as a whole. */
function check(name, work) {
  const started = Date.now();
  console.log(`\n== ${name}`);
  let good = false;
  try {
    good = work();
  } catch (error) {
    console.error(error instanceof Plain ? error.message : error);
  }
  if (good) passed++;
  else failed++;
  console.log(`${good ? 'passed' : 'FAILED'}: ${name} (${((Date.now() - started) / 1000).toFixed(0)} s)`);
  return good;
}

/** Vitest's tests of one project, counted one by one. */
function tests(project) {
  const file = join(results, `${project}.json`);
  const started = Date.now();
  console.log(`\n== ${project} tests`);
  const good = run(bin('vitest'), [
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ]);
  const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
  passed += report.numPassedTests;
  failed += report.numFailedTests;
  // A file that cannot be loaded, or an error outside a test, fails the run without a failed test.
  if (!good && report.numFailedTests === 0) failed++;
  if (good && report.numPassedTests === 0) failed++;
  console.log(
    `${project}: ${report.numPassedTests} passed, ${report.numFailedTests} failed (${((Date.now() - started) / 1000).toFixed(0)} s)`,
  );
}

try {
  checkNode();
  ensurePostgres();
  if (!existsSync('/usr/bin/chromium') || !existsSync('/usr/bin/chromedriver')) {
    installPackages(['chromium', 'chromium-driver'], 'the interface is tested in a real browser');
  }
  ensureDependencies();
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });

  check('format', () => run(bin('prettier'), ['--check', '--log-level', 'warn', '.']));
  check('lint', () => run(bin('eslint'), ['.']));
  check('styles', () => run(bin('stylelint'), ['src/**/*.css']));
  check('types of the core, without DOM and Node', () => run(bin('tsc'), ['-p', 'tsconfig.core.json']));
  check('types', () => run(bin('astro'), ['check', '--minimumFailingSeverity', 'error']));
  check('import rules', () => run(bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']));
  const built = check('build', () => {
    ensureBuild();
    return true;
  });
  tests('unit');
  if (built) {
    tests('integration');
    tests('browser');
  }
} catch (error) {
  failed++;
  console.error(error instanceof Plain ? error.message : error);
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 ? 0 : 1;
