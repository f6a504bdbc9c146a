import * as settings from '../app/settings';
import { bookCsv, bookJson, bookView, settingView } from '../app/book-views';
import { operation, type AnyOperation } from './operation';
import { bookQuery, idParam, keepBody } from './schemas';

/** Endpoints for the settings book. */
export const BOOK_OPERATIONS: readonly AnyOperation[] = [
  operation<object, object, settings.KeepRequest>({
    id: 'keepSetting',
    method: 'POST',
    path: '/api/settings',
    summary: 'Keep a cell of a card as the next version of its pairing’s setting',
    tag: 'book',
    body: keepBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({ status: 201, json: await settings.keepCell(ctx, body, key) }),
  }),
  operation<object, { search: string }>({
    id: 'listSettings',
    method: 'GET',
    path: '/api/settings',
    summary: 'The book: the newest version of every setting, by machine, stock and process',
    tag: 'book',
    query: bookQuery,
    answers: 'application/json',
    handle: async (ctx, { query }) => ({ json: await bookView(ctx, query.search) }),
  }),
  operation({
    id: 'exportBookCsv',
    method: 'GET',
    path: '/api/settings/export.csv',
    summary: 'Every version of every setting as CSV',
    tag: 'book',
    answers: 'a file',
    handle: async (ctx) => ({ file: await bookCsv(ctx) }),
  }),
  operation({
    id: 'exportBookJson',
    method: 'GET',
    path: '/api/settings/export.json',
    summary: 'Every version of every setting as JSON',
    tag: 'book',
    answers: 'a file',
    handle: async (ctx) => ({ file: await bookJson(ctx) }),
  }),
  operation<{ settingId: number }>({
    id: 'getSetting',
    method: 'GET',
    path: '/api/settings/{settingId}',
    summary: 'One setting with its origin, its versions and what changed between them',
    tag: 'book',
    params: idParam('settingId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await settingView(ctx, params.settingId) }),
  }),
];
