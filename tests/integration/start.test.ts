import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));

interface Started {
  readonly command: ChildProcess;
  readonly folder: string;
  readonly url: string;
}

let started: Started | null = null;
afterEach(() => {
  if (!started) return;
  // In a group of its own, so that nothing a failed test leaves behind outlives it.
  try {
    process.kill(-started.command.pid!, 'SIGKILL');
  } catch {
    // All of it has ended, as it should.
  }
  rmSync(started.folder, { recursive: true, force: true });
  started = null;
});

/** The start command of the README with an empty data folder, on a free port. */
async function start(command: string, args: readonly string[]): Promise<Started> {
  const folder = mkdtempSync(join(tmpdir(), 'glass-ladder-start-'));
  // Where the database's own user can reach it, when the tests run as root.
  chmodSync(folder, 0o755);
  const { DATABASE_URL: _none, ...env } = process.env;
  const child = spawn(command, args, {
    cwd: root,
    detached: true,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...env, GLASS_LADDER_DATA: folder, PORT: '0', HOST: '127.0.0.1', DEMO: 'no' },
  });
  let said = '';
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      said += String(chunk);
      const ready = /is ready: (http:\S+)/.exec(said)?.[1];
      if (ready) resolve(ready);
    });
    child.on('exit', () => reject(new Error(`the start command ended: ${said}`)));
  });
  started = { command: child, folder, url };
  return started;
}

const answers = (url: string): Promise<boolean> =>
  fetch(url).then(
    () => true,
    () => false,
  );

/** Waits until neither server, database nor lock is left. */
async function nothingLeft({ url, folder }: Started): Promise<void> {
  const pidOfDatabase = join(folder, 'postgres', 'postmaster.pid');
  const lock = join(folder, 'lock.json');
  while ((await answers(url)) || existsSync(pidOfDatabase) || existsSync(lock))
    await new Promise((resolve) => setTimeout(resolve, 100));
}

describe('the start command stops server and database', () => {
  it.each(['SIGTERM', 'SIGKILL'] as const)('when npm alone is sent %s, as a service manager does', async (signal) => {
    const shop = await start('npm', ['start']);
    expect(await answers(shop.url)).toBe(true);
    expect(existsSync(join(shop.folder, 'postgres', 'postmaster.pid'))).toBe(true);
    shop.command.kill(signal);
    await nothingLeft(shop);
  });
  it('when it is sent SIGTERM itself', async () => {
    const shop = await start(process.execPath, ['scripts/start.mjs']);
    shop.command.kill('SIGTERM');
    await nothingLeft(shop);
  });
});
