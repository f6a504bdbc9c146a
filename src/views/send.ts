import type { ProblemBody } from './problem';

/** A request that the server answered with problem details, or did not answer at all. */
export class RequestFailed extends Error {
  override readonly name = 'RequestFailed';
  constructor(readonly problem: ProblemBody) {
    super(problem.detail);
  }
}

const NO_ANSWER: ProblemBody = {
  type: '/problems#no-answer',
  title: 'The server does not answer',
  status: 0,
  detail: 'Glass Ladder may have been stopped, or is starting again.',
  code: 'database-away',
  whatIsSafe: 'What you entered is still on this page.',
  whatToDo: 'Start it again with npm start, then try once more.',
};

export interface SendOptions {
  readonly method?: 'GET' | 'POST' | 'PUT';
  readonly json?: unknown;
  readonly file?: Blob;
  /** The same key sent twice does the work once. */
  readonly key?: string;
}

/** Calls an endpoint and returns its JSON. Throws RequestFailed. */
export async function send<Answer>(
  path: string,
  { method = 'GET', json, file, key }: SendOptions = {},
): Promise<Answer> {
  const headers: Record<string, string> = {};
  if (json !== undefined) headers['content-type'] = 'application/json';
  if (file) headers['content-type'] = file.type || 'application/octet-stream';
  if (key) headers['idempotency-key'] = key;
  let response: Response;
  try {
    response = await fetch(path, { method, headers, body: file ?? (json === undefined ? null : JSON.stringify(json)) });
  } catch {
    throw new RequestFailed(NO_ANSWER);
  }
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) throw new RequestFailed((body as ProblemBody | null) ?? { ...NO_ANSWER, status: response.status });
  return body as Answer;
}
