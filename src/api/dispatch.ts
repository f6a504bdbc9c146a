import { randomUUID } from 'node:crypto';
import type { AppContext } from '../app/context';
import { isProblem, Problem, problemBody } from '../app/problems';
import { isDatabaseAway } from '../db/client';
import { PHOTO_LIMITS } from '../workers/open-photo';
import { checked } from './checked';
import type { AnyOperation, Reply } from './operation';
import { OPERATIONS } from './registry';

const JSON_LIMIT = 512 * 1024;
const DRAWING_LIMIT = 2 * 1024 * 1024;

interface Route {
  readonly operation: AnyOperation;
  readonly pattern: RegExp;
  readonly names: readonly string[];
}

const ROUTES: readonly Route[] = OPERATIONS.map((operation) => {
  const names = [...operation.path.matchAll(/\{(\w+)\}/g)].map((match) => match[1]!);
  const pattern = new RegExp(`^${operation.path.replace(/\./g, '\\.').replace(/\{\w+\}/g, '([^/]+)')}$`);
  return { operation, pattern, names };
});

/**
 * Refuses what another site's page could send with the operator's browser. Tools without a browser send neither header and
 * are let through: the server listens on loopback only.
 */
export function refuseCrossSite(request: Request): void {
  const site = request.headers.get('sec-fetch-site');
  const origin = request.headers.get('origin');
  // The host as the browser sent it: the page framework may put another name into the request's address.
  const host = request.headers.get('host') ?? new URL(request.url).host;
  const foreignOrigin = origin !== null && origin !== `http://${host}` && origin !== `https://${host}`;
  if ((site !== null && site !== 'same-origin' && site !== 'none') || foreignOrigin) {
    throw new Problem('cross-site', 'The request came from a page of another site.');
  }
}

/** The body's bytes, given up as soon as they pass the limit. */
async function bytesOf(request: Request, limit: number, code: 'photo-too-large' | 'body-too-large'): Promise<Buffer> {
  const tooLarge = new Problem(code, `The body is over ${limit / 1024 / 1024} MB.`, 'Nothing was kept.');
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > limit) throw tooLarge;
  const chunks: Uint8Array[] = [];
  let total = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    total += value.byteLength;
    if (total > limit) {
      await reader.cancel().catch(() => undefined);
      throw tooLarge;
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}

async function bodyOf(operation: AnyOperation, request: Request): Promise<unknown> {
  if (operation.body === undefined) return undefined;
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim().toLowerCase();
  if (operation.body === 'image') {
    if (!type.startsWith('image/') && type !== 'application/octet-stream') {
      throw new Problem('wrong-media-type', `The body is declared as ${type || 'nothing'}, not as an image.`);
    }
    return bytesOf(request, PHOTO_LIMITS.bytes, 'photo-too-large');
  }
  if (operation.body === 'drawing') {
    if (type !== 'image/svg+xml')
      throw new Problem('wrong-media-type', `The body is declared as ${type || 'nothing'}, not as image/svg+xml.`);
    return (await bytesOf(request, DRAWING_LIMIT, 'body-too-large')).toString('utf8');
  }
  if (type !== 'application/json')
    throw new Problem('wrong-media-type', `The body is declared as ${type || 'nothing'}, not as application/json.`);
  const text = (await bytesOf(request, JSON_LIMIT, 'body-too-large')).toString('utf8');
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('malformed-request', 'The body is not JSON.');
  }
}

function jsonResponse(status: number, value: unknown, type = 'application/json'): Response {
  return new Response(JSON.stringify(value), {
    status,
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}

function respond(reply: Reply): Response {
  if (!('file' in reply)) return jsonResponse(reply.status ?? 200, reply.json);
  const { bytes, mediaType, name, inline } = reply.file;
  return new Response(bytes instanceof ReadableStream ? bytes : new Uint8Array(bytes), {
    headers: {
      'content-type': mediaType,
      'content-disposition': `${inline ? 'inline' : 'attachment'}; filename="${name}"`,
      // Served as what it is and nothing else, and never as a page.
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': inline ? 'private, max-age=60' : 'no-store',
    },
  });
}

function problemResponse(ctx: AppContext, error: unknown): Response {
  let problem: Problem;
  if (isProblem(error)) problem = error;
  else if (isDatabaseAway(error)) {
    problem = new Problem(
      'database-away',
      'The database server does not answer.',
      'What was kept before is safe; this request changed nothing.',
    );
  } else {
    const mark = randomUUID().slice(0, 8);
    ctx.log.error({ mark, error: error instanceof Error ? error.stack : String(error) }, 'fault');
    problem = new Problem(
      'internal-fault',
      `The fault is in the server’s log under ${mark}.`,
      'What was kept before is safe.',
    );
  }
  const body = problemBody(problem);
  return jsonResponse(body.status, body, 'application/problem+json');
}

/** Answers one request to /api. Never throws: failures become problem details. */
export async function dispatch(ctx: AppContext, request: Request): Promise<Response> {
  try {
    const url = new URL(request.url);
    const matching = ROUTES.filter((route) => route.pattern.test(url.pathname));
    if (matching.length === 0) throw new Problem('not-found', `There is no address ${url.pathname}.`);
    // A fixed path like /export.csv is meant before one with a name in braces.
    const ofMethod = matching.filter((candidate) => candidate.operation.method === request.method);
    const route = ofMethod.sort((a, b) => a.names.length - b.names.length)[0];
    if (!route) {
      const response = problemResponse(
        ctx,
        new Problem('method-not-allowed', `${url.pathname} does not take ${request.method}.`),
      );
      response.headers.set('allow', [...new Set(matching.map((candidate) => candidate.operation.method))].join(', '));
      return response;
    }
    if (request.method !== 'GET') refuseCrossSite(request);
    const { operation } = route;
    const found = route.pattern.exec(url.pathname)!;
    const rawParams = Object.fromEntries(
      route.names.map((name, index) => [name, decodeURIComponent(found[index + 1]!)]),
    );
    const body = await bodyOf(operation, request);
    const key = request.headers.get('idempotency-key') ?? undefined;
    if (key !== undefined && (key.length < 8 || key.length > 200)) {
      throw new Problem('malformed-request', 'The Idempotency-Key must have 8 to 200 characters.');
    }
    const call = {
      params: checked<never>(operation.params, rawParams, 'In the address'),
      query: checked<never>(operation.query, Object.fromEntries(url.searchParams), 'In the query'),
      body: (typeof operation.body === 'string' ? body : checked<never>(operation.body, body, 'Sent values')) as never,
      key,
      request,
    };
    return respond(await operation.handle(ctx, call));
  } catch (error) {
    return problemResponse(ctx, error);
  }
}
