// npm test: installs what tests need, then runs every check and closes with "N passed, N failed" alone on a line.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureDependencies, checkNode, root } from './prepare.mjs';
import { ensurePostgres, installPackages, Plain } from './postgres.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const results = join(root, 'test-results');
let passed = 0;
let failed = 0;

const env = { ...process.env, TZ: 'UTC', ASTRO_TELEMETRY_DISABLED: '1' };

function run(command, args) {
  return spawnSync(command, args, { cwd: root, stdio: 'inherit', env }).status === 0;
}

/** A check that passes or fails as a whole; what it prints is kept and shown when it has ended. */
function check(name, command, args) {
  const started = Date.now();
  return new Promise((done) => {
    const child = spawn(command, args, { cwd: root, env });
    let text = '';
    child.stdout.on('data', (chunk) => (text += String(chunk)));
    child.stderr.on('data', (chunk) => (text += String(chunk)));
    child.on('error', (error) => (text += error.message));
    child.on('close', (code) => {
      if (code === 0) passed++;
      else failed++;
      const seconds = ((Date.now() - started) / 1000).toFixed(0);
      console.log(`${code === 0 ? 'passed' : `\n${text}\nFAILED`}: ${name} (${seconds} s)`);
      done(code === 0);
    });
  });
}

/** Checks one after another: two of these lanes keep two cores busy. */
async function lane(checks) {
  let good = true;
  for (const [name, command, args] of checks) good = (await check(name, command, args)) && good;
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

  console.log('\n== static checks and build');
  const [, built] = await Promise.all([
    lane([
      ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
      ['lint', bin('eslint'), ['.']],
      ['styles', bin('stylelint'), ['src/**/*.css']],
      ['types of the core, without DOM and Node', bin('tsc'), ['-p', 'tsconfig.core.json']],
      ['import rules', bin('depcruise'), ['src', '--config', '.dependency-cruiser.cjs']],
    ]),
    lane([
      ['types', bin('astro'), ['check', '--minimumFailingSeverity', 'error']],
      ['build', process.execPath, ['scripts/build.mjs', '--when-changed']],
    ]),
  ]);
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
