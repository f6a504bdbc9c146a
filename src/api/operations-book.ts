import { bookCsv, bookJson, bookView, factView } from '../app/book-views';
import { bringSettings, copySetting, previewTable, type BroughtSetting } from '../app/brought';
import { getCard } from '../app/cards';
import { dropFavourite, getFavourites, keepFavourite } from '../app/favourites';
import type { ColumnMeaning } from '../core/book/settings-table';
import type { BasePlan } from '../core/card/contract';
import { keepFinding } from '../app/findings';
import { isCardKind } from '../cards/registry';
import { CARD_SCHEMAS } from '../cards/schemas';
import { checked } from './checked';
import { operation, type AnyOperation } from './operation';
import { wishOf } from './operations-bench';
import {
  bookQuery,
  bringBody,
  copyBody,
  favouriteBody,
  favouritesQuery,
  idParam,
  keepBody,
  tableBody,
} from './schemas';

interface KeepBody {
  readonly cardId: number;
  readonly wish: object | null;
  readonly choice: object;
  readonly note: string;
}

/** Endpoints for the settings book. */
export const BOOK_OPERATIONS: readonly AnyOperation[] = [
  operation<{ pairingId: number }, object, { settings: BroughtSetting[] }>({
    id: 'bringSettings',
    method: 'POST',
    path: '/api/pairings/{pairingId}/settings',
    summary: 'File engraving settings that are known from elsewhere, all or none, each unproven until a card proves it',
    tag: 'book',
    params: idParam('pairingId'),
    body: bringBody,
    answers: 'application/json',
    handle: async (ctx, { params, body, key }) => ({
      status: 201,
      json: await bringSettings(ctx, params.pairingId, body.settings, key),
    }),
  }),
  operation<{ pairingId: number }, object, { text: string; meanings: ColumnMeaning[] | null }>({
    id: 'previewSettingsTable',
    method: 'POST',
    path: '/api/pairings/{pairingId}/settings/preview',
    summary: 'What a CSV of settings would bring along, by what its columns mean; nothing is filed',
    tag: 'book',
    params: idParam('pairingId'),
    body: tableBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      json: await previewTable(ctx, params.pairingId, body.text, body.meanings),
    }),
  }),
  operation<{ factId: number }, object, { pairingId: number }>({
    id: 'copySetting',
    method: 'POST',
    path: '/api/facts/{factId}/copy',
    summary: 'Copy an engraving setting to another bench as a prediction, with what was changed and why',
    tag: 'book',
    params: idParam('factId'),
    body: copyBody,
    answers: 'application/json',
    handle: async (ctx, { params, body, key }) => ({
      status: 201,
      json: await copySetting(ctx, params.factId, body.pairingId, key),
    }),
  }),
  operation<object, { kind: string | null }>({
    id: 'listFavourites',
    method: 'GET',
    path: '/api/favourites',
    summary: 'Plans that were kept as favourites, of one kind or all',
    tag: 'cards',
    query: favouritesQuery,
    answers: 'application/json',
    handle: async (ctx, { query }) => ({ json: await getFavourites(ctx, query.kind) }),
  }),
  operation<object, object, { name: string; kind: string; plan: BasePlan }>({
    id: 'keepFavourite',
    method: 'POST',
    path: '/api/favourites',
    summary: 'Keep a plan as a favourite, to be burned on other stock',
    tag: 'cards',
    body: favouriteBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({ status: 201, json: await keepFavourite(ctx, body, key) }),
  }),
  operation<{ favouriteId: number }>({
    id: 'dropFavourite',
    method: 'POST',
    path: '/api/favourites/{favouriteId}/drop',
    summary: 'Take a plan off the favourites; cards that were made of it stay',
    tag: 'cards',
    params: idParam('favouriteId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => {
      await dropFavourite(ctx, params.favouriteId);
      return { json: {} };
    },
  }),
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
