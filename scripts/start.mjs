// npm start: prepares what is missing, starts our own PostgreSQL, and serves. See the README for the settings.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { accessSync, constants, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { ALLOCATOR } from './allocator.mjs';
import { checkNode, ensureBuild, ensureDependencies, root } from './prepare.mjs';
import { ensurePostgres, Plain, reachableByServer, startCluster } from './postgres.mjs';

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

function checkHost() {
  const host = process.env.HOST ?? '127.0.0.1';
  if (!LOOPBACK.has(host)) {
    throw new Plain(
      `HOST=${host} is refused: Glass Ladder has no accounts yet, so anybody on that network could start a burn. It serves on 127.0.0.1 only. Unset HOST.`,
    );
  }
  return host === 'localhost' ? '127.0.0.1' : host;
}

function checkPortNumber() {
  const text = process.env.PORT ?? '4321';
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Plain(`PORT=${text} is not a port number (0 to 65535).`);
  return port;
}

/** Before anything slow is done: is the port free? */
function checkPortFree(port, host) {
  return new Promise((done, fail) => {
    const probe = createServer();
    probe.on('error', (error) => {
      fail(
        new Plain(
          error.code === 'EADDRINUSE'
            ? `Port ${port} is taken. Stop what uses it, or choose another: PORT=8080 npm start`
            : error.code === 'EACCES'
              ? `This user may not listen on port ${port}. Choose one above 1023: PORT=8080 npm start`
              : `Cannot listen on ${host}:${port}: ${error.message}`,
        ),
      );
    });
    probe.listen(port, host, () => probe.close(done));
  });
}

/** The data folder: GLASS_LADDER_DATA, or data/ here, or (as root, where the database's user cannot reach it) one under /var/lib. */
function dataFolder() {
  if (process.env.GLASS_LADDER_DATA) {
    const folder = resolve(process.env.GLASS_LADDER_DATA);
    if (!process.env.DATABASE_URL && !reachableByServer(folder)) {
      throw new Plain(
        `The data folder ${folder} lies where the user "postgres" cannot reach it, and PostgreSQL does not run as root. Choose another, or start as an ordinary user.`,
      );
    }
    return folder;
  }
  const here = join(root, 'data');
  if (reachableByServer(here)) return here;
  const mark = createHash('sha256').update(root).digest('hex').slice(0, 8);
  const there = `/var/lib/glass-ladder/${mark}`;
  console.log(`Data folder: ${there} (this project lies where the database's user cannot reach it).`);
  return there;
}

/** When a process started; null when it is gone, or dead and only not yet buried. */
const startTimeOf = (pid) => {
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
    return fields[0] === 'Z' ? null : fields[19];
  } catch {
    return null;
  }
};

/** One start command for each data folder at a time. The lock of a command that was killed is taken over. */
function lockFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    throw new Plain(
      `The data folder ${folder} cannot be written (${error.code}). Give this user the right to, or set GLASS_LADDER_DATA to another folder.`,
    );
  }
  const lock = join(folder, 'lock.json');
  const mine = JSON.stringify({ pid: process.pid, started: startTimeOf(process.pid) });
  try {
    writeFileSync(lock, mine, { flag: 'wx' });
  } catch {
    let holder = null;
    try {
      holder = JSON.parse(readFileSync(lock, 'utf8'));
    } catch {
      // Half-written by a command that was killed.
    }
    if (holder && holder.started !== null && startTimeOf(holder.pid) === holder.started) {
      throw new Plain(
        `The data folder ${folder} is in use by another Glass Ladder (process ${holder.pid}). Stop that one, or set GLASS_LADDER_DATA to another folder.`,
      );
    }
    writeFileSync(lock, mine);
  }
  return () => rmSync(lock, { force: true });
}

async function resetDatabase(url) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('drop schema public cascade; create schema public');
  await client.end();
  console.log('The database was emptied; the demo world is made afresh.');
}

/** The process that started another one; null when that is gone. */
const parentOf = (pid) => {
  try {
    return Number(readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')[1]);
  } catch {
    return null;
  }
};

/**
 * A service manager or a script stops `npm start` by a signal to npm alone, and npm ends, with the shell that it may have put between,
 * without a word to us: so we watch both. Started without npm we may be meant to outlive the shell that did it, and nothing is watched.
 */
function whenNpmIsGone(end) {
  if (!process.env.npm_lifecycle_event) return;
  const parent = process.ppid;
  const between = !readFileSync(`/proc/${parent}/cmdline`, 'utf8').startsWith('npm');
  const npm = between ? parentOf(parent) : parent;
  const started = startTimeOf(npm);
  setInterval(() => {
    if (process.ppid !== parent || startTimeOf(npm) !== started) end();
  }, 250).unref();
}

async function main() {
  checkNode();
  const host = checkHost();
  const port = checkPortNumber();
  if (port !== 0) await checkPortFree(port, host);
  if (!process.env.DATABASE_URL) ensurePostgres();
  const folder = process.env.DATABASE_URL ? null : dataFolder();
  const unlock = folder ? lockFolder(folder) : () => {};
  let cluster = null;
  let child = null;
  let ending = false;
  const finish = (code) => {
    if (ending) return;
    ending = true;
    cluster?.stop();
    unlock();
    process.exit(code);
  };
  const pass = () => (child ? child.kill('SIGTERM') : finish(0));
  process.on('SIGTERM', pass);
  process.on('SIGINT', pass);
  process.on('SIGHUP', pass);
  whenNpmIsGone(pass);
  try {
    ensureDependencies();
    ensureBuild();
    if (folder) cluster = await startCluster(folder);
    const url = process.env.DATABASE_URL || cluster.url;
    if (process.argv.includes('--reset-demo')) await resetDatabase(url);
    child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist', 'server', 'main.mjs')], {
      cwd: root,
      // A terminal sends Ctrl-C to all of a group: in a group of its own the server is told once, by us.
      detached: true,
      // The channel tells the server when this command has died, so that it ends too.
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: { ...process.env, ...ALLOCATOR, DATABASE_URL: url, HOST: host, PORT: String(port), NODE_ENV: 'production' },
    });
    child.on('exit', (code, signal) => finish(code ?? (signal === 'SIGTERM' ? 0 : 1)));
  } catch (error) {
    cluster?.stop();
    unlock();
    throw error;
  }
}

main().catch((error) => {
  console.error(error instanceof Plain ? error.message : error);
  process.exit(1);
});
