import type Joi from 'joi';
import type { AppContext } from '../app/context';

export type Method = 'GET' | 'POST' | 'PUT';

export interface FileReply {
  readonly file: {
    /** Bytes, or a stream of them that is still being made. */
    readonly bytes: Buffer | ReadableStream<Uint8Array>;
    readonly mediaType: string;
    readonly name: string;
    readonly inline?: boolean;
  };
}

/** What an operation answers: JSON data, or a file. */
export type Reply = { readonly status?: number; readonly json: unknown } | FileReply;

export interface Call<Params, Query, Body> {
  readonly params: Params;
  readonly query: Query;
  readonly body: Body;
  /** The Idempotency-Key header: the same key sent twice does the work once. */
  readonly key: string | undefined;
  readonly request: Request;
}

/** One documented endpoint: what it takes is checked by the same schemas that the OpenAPI file is made from. */
export interface Operation<Params = never, Query = never, Body = never> {
  readonly id: string;
  readonly method: Method;
  /** "/api/cards/{cardId}" */
  readonly path: string;
  readonly summary: string;
  readonly tag: 'machines' | 'stock' | 'bench' | 'cards' | 'burns' | 'photos' | 'book' | 'about';
  readonly params?: Joi.ObjectSchema;
  readonly query?: Joi.ObjectSchema;
  readonly body?: Joi.ObjectSchema | 'image' | 'drawing';
  /** Media type of a good answer. */
  readonly answers: 'application/json' | 'a file';
  handle(ctx: AppContext, call: Call<Params, Query, Body>): Promise<Reply>;
}

export type AnyOperation = Operation<never, never, never>;

export function operation<Params = object, Query = object, Body = undefined>(
  definition: Operation<Params, Query, Body>,
): AnyOperation {
  return definition;
}
