import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import pg from 'pg';
import { dispatch } from '../../src/api/dispatch';
import type { AppContext } from '../../src/app/context';
import { migrate } from '../../src/db/migrate';
import { closeContext, makeContext } from '../../src/server/make-context';
import { throwawayCluster } from '../../scripts/throwaway.mjs';

export const ORIGIN = 'http://127.0.0.1:4321';

const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };

/** The worker threads as the server runs them, compiled once a run. */
async function workerFile(): Promise<string> {
  const outfile = fileURLToPath(new URL('../../dist/test/heavy-worker.mjs', import.meta.url));
  const entry = fileURLToPath(new URL('../../src/workers/heavy-worker.ts', import.meta.url));
  await build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  });
  if (!existsSync(outfile)) throw new Error('the worker was not compiled');
  return outfile;
}

export interface TestApp {
  readonly ctx: AppContext;
  readonly databaseUrl: string;
  readonly cluster: Awaited<ReturnType<typeof throwawayCluster>>;
  /** Calls an endpoint as a tool without a browser would; returns status and JSON. */
  call(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{ status: number; json: any; response: Response }>;
  close(): Promise<void>;
}

/** The application on a database of its own, without the web server around it. */
export async function testApp(): Promise<TestApp> {
  const cluster = await throwawayCluster();
  const ctx = makeContext({ databaseUrl: cluster.url, workerFile: await workerFile(), log: SILENT, paceFactor: 400 });
  await migrate(ctx.db);
  return {
    ctx,
    databaseUrl: cluster.url,
    cluster,
    async call(method, path, body, headers = {}) {
      const isBytes = body instanceof Uint8Array;
      const response = await dispatch(
        ctx,
        new Request(ORIGIN + path, {
          method,
          headers: {
            ...(body === undefined ? {} : { 'content-type': isBytes ? 'image/jpeg' : 'application/json' }),
            ...headers,
          },
          ...(body === undefined
            ? {}
            : { body: isBytes ? (body as BodyInit) : typeof body === 'string' ? body : JSON.stringify(body) }),
        }),
      );
      const text = await response.clone().text();
      const json: unknown = /json/.test(response.headers.get('content-type') ?? '') ? JSON.parse(text) : text;
      return { status: response.status, json, response };
    },
    async close() {
      await closeContext(ctx);
      cluster.remove();
    },
  };
}

export async function query(url: string, text: string): Promise<Record<string, unknown>[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(text)).rows;
  } finally {
    await client.end();
  }
}
