// Runs one of the TypeScript tools beside this file: `node scripts/tool.mjs NAME [arguments]`.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { build } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
const [name, ...rest] = process.argv.slice(2);
const entry = [`scripts/${name}.ts`, `perf/${name}.ts`].map((path) => join(root, path)).find(existsSync);
if (!entry) {
  console.error(`There is no tool "${name}".`);
  process.exit(1);
}
const outfile = join(root, 'dist', 'tools', `${name}.mjs`);
await build({
  entryPoints: [entry],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
process.exit(spawnSync(process.execPath, [outfile, ...rest], { cwd: root, stdio: 'inherit' }).status ?? 1);
