// Builds pages (Astro), server and worker threads (esbuild) into dist/.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = fileURLToPath(new URL('..', import.meta.url));
if (process.argv.includes('--when-changed')) {
  const { ensureBuild } = await import('./prepare.mjs');
  ensureBuild();
  process.exit(0);
}
const astro = spawnSync(process.execPath, [join(root, 'node_modules', 'astro', 'astro.js'), 'build'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
});
if (astro.status !== 0) process.exit(astro.status ?? 1);
await build({
  entryPoints: {
    'server/main': join(root, 'src/server/main.ts'),
    'workers/heavy-worker': join(root, 'src/workers/heavy-worker.ts'),
  },
  outdir: join(root, 'dist'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
});
