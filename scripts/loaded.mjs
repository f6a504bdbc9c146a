// npm run loaded: the whole of `npm test`, twice, beside eight processes that take what the machine has. No test may depend on a quiet one.
// Only the runner's own time limits are longer here; what tests wait for are events.
import { spawn, spawnSync } from 'node:child_process';
import { root } from './prepare.mjs';

const BUSY = 8;
const RUNS = 2;
/** Eight busy processes beside a run on two cores leave it about a fifth of its time. */
const PATIENCE = 6;

const busy = Array.from({ length: BUSY }, () =>
  spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }).on('error', (error) => console.error(error)),
);
const rest = () => busy.forEach((child) => child.kill('SIGKILL'));
process.on('exit', rest);
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => process.exit(1));

const env = { ...process.env, TEST_PATIENCE: String(PATIENCE) };
const outcomes = [];
for (let run = 1; run <= RUNS; run++) {
  console.log(`\n==== run ${run} of ${RUNS}, beside ${BUSY} busy processes`);
  const started = Date.now();
  const { status } = spawnSync(process.execPath, ['scripts/test.mjs'], { cwd: root, stdio: 'inherit', env });
  const minutes = ((Date.now() - started) / 60_000).toFixed(1);
  outcomes.push(`run ${run}: ${status === 0 ? 'green' : 'red'}, ${minutes} minutes`);
  process.exitCode ||= status ?? 1;
}
console.log(`\n${outcomes.join('\n')}`);
process.exit();
