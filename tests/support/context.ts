import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';
import { dispatch } from '../../src/api/dispatch';
import type { AppContext } from '../../src/app/context';
import { HeavyWork } from '../../src/app/heavy-work';
import { migrate } from '../../src/db/migrate';
import { closeContext, makeContext } from '../../src/server/make-context';
import { throwawayCluster, type Cluster } from '../../scripts/throwaway.mjs';

export const ORIGIN = 'http://127.0.0.1:4321';

const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };

export interface TestApp {
  readonly ctx: AppContext;
  readonly databaseUrl: string;
  /** Calls an endpoint as a tool without a browser would; returns status and JSON. */
  call(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{ status: number; json: any; response: Response }>;
  close(): Promise<void>;
}

/** Threads of all applications of one process of tests: what they have run once is fast, and loading it takes most of a second. */
let threads: HeavyWork | null = null;

/** The application on a database of its own, without the web server around it. */
export async function testApp(options: AppOptions = {}): Promise<TestApp> {
  const server = inject('databaseServer');
  const name = `test_${randomBytes(8).toString('hex')}`;
  await query(server, `create database ${name} template ${inject('emptyDatabase')}`);
  const databaseUrl = new URL(server);
  databaseUrl.pathname = name;
  threads ??= new HeavyWork(inject('workerFile'));
  const app = await appOn(databaseUrl.href, { ...options, work: threads });
  return {
    ...app,
    close: async () => {
      await app.close();
      await query(server, `drop database ${name} with (force)`);
    },
  };
}

interface AppOptions {
  /** How much faster than life the bench burns: slow, where a burn must still go on when the next call comes, however late that is. */
  readonly paceFactor?: number;
}

/** The same on a server of its own, with threads of its own, which a test can stop and start again. */
export async function testAppOnItsOwn(): Promise<TestApp & { readonly cluster: Cluster }> {
  const cluster = await throwawayCluster();
  const app = await appOn(cluster.url);
  return {
    ...app,
    cluster,
    close: async () => {
      await app.close();
      cluster.remove();
    },
  };
}

async function appOn(
  databaseUrl: string,
  { paceFactor = 400, work }: AppOptions & { readonly work?: HeavyWork } = {},
): Promise<TestApp> {
  const ctx = makeContext({
    databaseUrl,
    workerFile: inject('workerFile'),
    log: SILENT,
    paceFactor,
    cameraScale: 0.4,
    ...(work && { work }),
  });
  await migrate(ctx.db);
  return {
    ctx,
    databaseUrl,
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
    close: () => closeContext(ctx, work ? 'kept' : 'ended'),
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
