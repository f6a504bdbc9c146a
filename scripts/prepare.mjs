// What start and test need before anything else: dependencies as locked, and a build of the sources as they are.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Plain } from './postgres.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));

const hashOf = (text) => createHash('sha256').update(text).digest('hex');
const stamp = (path) => (existsSync(path) ? readFileSync(path, 'utf8') : '');

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Plain(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`);
}

/** npm ci, when the lock file differs from what was installed. */
export function ensureDependencies() {
  const mark = join(root, 'node_modules', '.glass-ladder-lock');
  const wanted = hashOf(readFileSync(join(root, 'package-lock.json')));
  if (stamp(mark) === wanted) return;
  console.log('Installing the packages named in package-lock.json …');
  const result = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (result.status !== 0) throw new Plain('npm ci failed; see above. Check the connection to the package registry.');
  writeFileSync(mark, wanted);
}

function* filesUnder(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(path);
    else yield path;
  }
}

function sourcesHash() {
  const hash = createHash('sha256');
  const files = [
    ...filesUnder(join(root, 'src')),
    ...['astro.config.mjs', 'package-lock.json', 'scripts/build.mjs'].map((name) => join(root, name)),
  ];
  for (const file of files) hash.update(file.slice(root.length)).update(readFileSync(file));
  return hash.digest('hex');
}

/** Builds when the sources differ from what the build was made of. */
export function ensureBuild() {
  const mark = join(root, 'dist', '.sources');
  const wanted = sourcesHash();
  if (stamp(mark) === wanted) return false;
  console.log('Building …');
  const result = spawnSync(process.execPath, [join(root, 'scripts', 'build.mjs')], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
  });
  if (result.status !== 0) throw new Plain(`The build failed.\n${result.stdout}${result.stderr}`);
  mkdirSync(join(root, 'dist'), { recursive: true });
  writeFileSync(mark, wanted);
  return true;
}
