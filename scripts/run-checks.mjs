// The checks that `npm run check` and `npm test` are made of, counted together.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';
import { TEST_ZONE } from './test-zone.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const results = join(root, 'test-results');
const env = { ...process.env, TZ: TEST_ZONE, ASTRO_TELEMETRY_DISABLED: '1' };

/** Checked by the native compiler; the pages' checker and the import rules need the older one, which has an interface for programs. */
const TSC = join(root, 'node_modules', 'typescript-native', 'bin', 'tsc');

export const LINT = [
  ['format', bin('oxfmt'), ['--check', '.']],
  ['format of the pages', bin('prettier'), ['--check', '--log-level', 'warn', 'src/**/*.astro']],
  ['lint', bin('oxlint'), []],
];
export const RULES = [
  ['styles', bin('stylelint'), ['src/**/*.css']],
  ['types of the core, without DOM and Node', process.execPath, [TSC, '-p', 'tsconfig.core.json']],
  ['import rules', bin('depcruise'), ['src', 'stand-ins', '--config', '.dependency-cruiser.cjs']],
  ['unused code', bin('knip'), []],
];
export const TYPES = [
  // The pages alone: on all of the sources their checker takes many times as long as the compiler. It makes their types, so it comes first.
  [
    'types of the pages',
    bin('astro'),
    ['check', '--tsconfig', 'tsconfig.pages.json', '--minimumFailingSeverity', 'error'],
  ],
  ['types', process.execPath, [TSC, '--noEmit', '-p', 'tsconfig.json']],
];
export const BUILD = [['build', process.execPath, ['scripts/build.mjs', '--when-changed']]];

/** Counts what passes and fails, and says so in the end. */
export class Checks {
  passed = 0;
  failed = 0;

  constructor() {
    rmSync(results, { recursive: true, force: true });
    mkdirSync(results, { recursive: true });
  }

  /** A check that passes or fails as a whole; what it prints is kept and shown when it has ended. */
  check([name, command, args]) {
    const started = Date.now();
    return new Promise((done) => {
      const child = spawn(command, args, { cwd: root, env });
      let text = '';
      child.stdout.on('data', (chunk) => (text += String(chunk)));
      child.stderr.on('data', (chunk) => (text += String(chunk)));
      child.on('error', (error) => (text += error.message));
      child.on('close', (code) => {
        if (code === 0) this.passed++;
        else this.failed++;
        const seconds = ((Date.now() - started) / 1000).toFixed(0);
        console.log(`${code === 0 ? 'passed' : `\n${text}\nFAILED`}: ${name} (${seconds} s)`);
        done(code === 0);
      });
    });
  }

  /** Checks one after another: two of these lanes keep two cores busy. */
  async lane(checks) {
    let good = true;
    for (const check of checks) good = (await this.check(check)) && good;
    return good;
  }

  /** Vitest's tests of some projects, counted one by one. In one run no core waits for the last file of a project. */
  async tests(...projects) {
    const name = projects.join(', ');
    const file = join(results, `${projects.join('-')}.json`);
    const started = Date.now();
    console.log(`\n== ${name} tests`);
    const chosen = projects.flatMap((project) => ['--project', project]);
    const args = ['run', ...chosen, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
    const child = spawn(bin('vitest'), args, { cwd: root, stdio: 'inherit', env });
    const good = await new Promise((done) =>
      child.on('error', () => done(false)).on('close', (code) => done(code === 0)),
    );
    const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
    this.passed += report.numPassedTests;
    this.failed += report.numFailedTests;
    // A file that cannot be loaded, or an error outside a test, fails the run without a failed test.
    if (!good && report.numFailedTests === 0) this.failed++;
    if (good && report.numPassedTests === 0) this.failed++;
    console.log(
      `${name}: ${report.numPassedTests} passed, ${report.numFailedTests} failed (${((Date.now() - started) / 1000).toFixed(0)} s)`,
    );
  }

  /** The last line alone on a line, and the exit code. */
  close() {
    console.log(`\n${this.passed} passed, ${this.failed} failed`);
    process.exitCode = this.failed === 0 ? 0 : 1;
  }
}
