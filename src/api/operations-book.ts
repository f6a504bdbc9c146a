import { bookCsv, bookJson, bookView, factView } from '../app/book-views';
import { getCard } from '../app/cards';
import { keepFinding } from '../app/findings';
import { isCardKind } from '../cards/registry';
import { CARD_SCHEMAS } from '../cards/schemas';
import { checked } from './checked';
import { operation, type AnyOperation } from './operation';
import { wishOf } from './operations-bench';
import { bookQuery, idParam, keepBody } from './schemas';

interface KeepBody {
  readonly cardId: number;
  readonly wish: object | null;
  readonly choice: object;
  readonly note: string;
}

/** Endpoints for the settings book. */
export const BOOK_OPERATIONS: readonly AnyOperation[] = [
  operation<object, object, KeepBody>({
    id: 'keepFact',
    method: 'POST',
    path: '/api/facts',
    summary: 'Keep what a card found, for a choice of its kind, as the next version of each fact it settles',
    tag: 'book',
    body: keepBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => {
      const { kind } = await getCard(ctx, body.cardId);
      const wish = wishOf(kind, body.wish);
      const choice = isCardKind(kind) ? checked(CARD_SCHEMAS[kind].choice, body.choice, 'In the choice') : body.choice;
      return { status: 201, json: await keepFinding(ctx, { ...body, wish, choice }, key) };
    },
  }),
  operation<object, { search: string; page: number }>({
    id: 'listFacts',
    method: 'GET',
    path: '/api/facts',
    summary: 'A page of the book: the newest version of every fact, by machine, stock and name',
    tag: 'book',
    query: bookQuery,
    answers: 'application/json',
    handle: async (ctx, { query }) => ({ json: await bookView(ctx, query.search, query.page) }),
  }),
  operation({
    id: 'exportBookCsv',
    method: 'GET',
    path: '/api/facts/export.csv',
    summary: 'Every version of every fact as CSV',
    tag: 'book',
    answers: 'a file',
    handle: async (ctx) => ({ file: await bookCsv(ctx) }),
  }),
  operation({
    id: 'exportBookJson',
    method: 'GET',
    path: '/api/facts/export.json',
    summary: 'Every version of every fact as JSON',
    tag: 'book',
    answers: 'a file',
    handle: async (ctx) => ({ file: await bookJson(ctx) }),
  }),
  operation<{ factId: number }>({
    id: 'getFact',
    method: 'GET',
    path: '/api/facts/{factId}',
    summary: 'One fact with its origin, its versions and what changed between them',
    tag: 'book',
    params: idParam('factId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await factView(ctx, params.factId) }),
  }),
];
