import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { fileURLToPath } from 'node:url';
import pino from 'pino';
import sirv from 'sirv';
import { setCurrentContext } from '../app/context';
import { migrate, NewerDatabaseError } from '../db/migrate';
import { isEmpty, loadDemoWorld } from '../demo/load';
import { closeContext, makeContext } from './make-context';
import { recover } from './recover';

type Handler = (request: IncomingMessage, response: ServerResponse, next: (error?: unknown) => void) => void;

const LOOPBACK_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);

/** A page elsewhere can make its name resolve to this machine; only requests to loopback names are answered. */
function isForUs(request: IncomingMessage): boolean {
  const host = request.headers.host ?? '';
  return LOOPBACK_NAMES.has(host.replace(/:\d+$/, ''));
}

function setSafeHeaders(response: ServerResponse): void {
  response.setHeader('x-content-type-options', 'nosniff');
  response.setHeader('x-frame-options', 'DENY');
  response.setHeader('referrer-policy', 'same-origin');
  response.setHeader('cross-origin-opener-policy', 'same-origin');
  response.setHeader('cross-origin-resource-policy', 'same-origin');
}

async function main(): Promise<void> {
  const {
    DATABASE_URL,
    HOST = '127.0.0.1',
    PORT = '4321',
    LOG_LEVEL = 'warn',
    BENCH_PACE = '30',
    BENCH_CAMERA_SCALE = '1',
    DEMO = 'yes',
  } = process.env;
  if (!DATABASE_URL) throw new Error('DATABASE_URL is not set: start the application with npm start');
  const log = pino({ level: LOG_LEVEL });
  const ctx = makeContext({
    databaseUrl: DATABASE_URL,
    workerFile: new URL('../workers/heavy-worker.mjs', import.meta.url),
    log,
    paceFactor: Number(BENCH_PACE),
    cameraScale: Number(BENCH_CAMERA_SCALE),
  });
  await migrate(ctx.db);
  await recover(ctx);
  if (DEMO === 'yes' && (await isEmpty(ctx))) {
    console.log('Making the demo world (about half a minute) …');
    await loadDemoWorld(ctx, (text) => console.log(`  ${text}`));
  }
  setCurrentContext(ctx);
  // Built by Astro beside this file, so it is not there when this file is compiled.
  const entry = new URL('./entry.mjs', import.meta.url).href;
  const { handler } = (await import(entry)) as { handler: Handler };

  // Built files carry their content's hash in their names, so they may be kept for good.
  const files = sirv(fileURLToPath(new URL('../client', import.meta.url)), {
    dev: false,
    etag: true,
    setHeaders: (response, path) => {
      response.setHeader(
        'cache-control',
        path.startsWith('/_astro/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      );
    },
  });
  const server = createServer((request, response) => {
    setSafeHeaders(response);
    if (!isForUs(request)) {
      response.writeHead(403, { 'content-type': 'text/plain' }).end('Glass Ladder answers on this machine only.\n');
      return;
    }
    const page = (): void =>
      handler(request, response, (error) => {
        if (error) log.error({ error: String(error) }, 'a page failed');
        if (!response.headersSent) response.writeHead(error ? 500 : 404, { 'content-type': 'text/plain' });
        response.end(error ? 'Something went wrong inside.\n' : 'Not found.\n');
      });
    files(request, response, page);
  });
  // Longer than browsers keep an idle connection: a form that is sent just when we close one would be lost.
  server.keepAliveTimeout = 330_000;
  server.headersTimeout = 340_000;
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${PORT} is taken. Stop what uses it, or set PORT to another.`
        : `The server cannot listen: ${error.message}`,
    );
    process.exit(3);
  });
  server.listen(Number(PORT), HOST, () => {
    const { port } = server.address() as { port: number };
    console.log(`Glass Ladder is ready: http://${HOST === '::1' ? '[::1]' : HOST}:${port}/`);
    ctx.readings.warmUp().catch((error: unknown) => log.info({ error: String(error) }, 'not warmed up'));
  });

  let ending = false;
  const end = (): void => {
    if (ending) return;
    ending = true;
    server.close();
    server.closeAllConnections();
    closeContext(ctx).then(
      () => process.exit(0),
      () => process.exit(1),
    );
  };
  process.on('SIGTERM', end);
  process.on('SIGINT', end);
  // The start command died without a word: nobody is left to stop the database after us, but we still end in order.
  process.on('disconnect', end);
}

main().catch((error: unknown) => {
  if (error instanceof NewerDatabaseError)
    console.error(`${error.message} Update Glass Ladder, or use another data folder. Nothing was changed.`);
  else console.error(`Glass Ladder could not start: ${error instanceof Error ? error.message : String(error)}`);
  process.exit(2);
});
