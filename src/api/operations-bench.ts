import { CARD_SCHEMAS } from '../cards/schemas';
import { isCardKind } from '../cards/registry';
import type { Answer } from '../core/card/asks';
import type { ZeroPlace } from '../core/machine/machine';
import { SHEET_FORMATS, type SheetFormat } from '../core/sheet/frame-sheet';
import type { FinishMoment } from '../core/card/work-setup';
import type { Point } from '../core/geometry/point';
import { adoptCard, type AdoptRequest } from '../app/adopt';
import * as burns from '../app/burns';
import { correctTime, endOwnBurn, type OwnBurnEnd } from '../app/own-burns';
import * as cards from '../app/cards';
import { benchListView, benchView } from '../app/bench-views';
import { cardView } from '../app/card-view';
import { readDrawing } from '../app/drawings';
import { exportCard } from '../app/exports';
import { findInCard } from '../app/findings';
import { layOnLightTable, readGauge, tapSheet } from '../app/gauges';
import { openBench } from '../app/pairings';
import * as photos from '../app/photos';
import { addNextCell, nextOfCard } from '../app/search';
import { answerCard } from '../app/seen';
import { logbookView } from '../app/logbook';
import type { ImageRole, LitFrom } from '../records/photo';
import { EXPORT_FORMATS, type ExportFormat } from '../workers/protocol';
import Joi from 'joi';
import { checked } from './checked';
import { operation, type AnyOperation } from './operation';
import {
  adoptBody,
  answerBody,
  burnBody,
  burnControlBody,
  burnTimeBody,
  ownBurnEndBody,
  cardBody,
  cornersBody,
  findingBody,
  gaugeBody,
  id,
  idParam,
  kindParam,
  countsBody,
  movePhotoBody,
  pageQuery,
  pairingBody,
  proveQuery,
  zeroQuery,
} from './schemas';

/** A wish as its card's kind has it; null for the kind's usual one. */
export function wishOf(kind: string, wish: object | null): unknown {
  return wish === null || !isCardKind(kind) ? null : checked(CARD_SCHEMAS[kind].wish, wish, 'In the wish');
}

/** Where a photo's light comes from: a lamp that shines on the card, or a light table under it. */
const lit = Joi.valid('front', 'behind').default('front');

/** Endpoints for work at the bench: pairings, cards, burns, photos, answers. */
export const BENCH_OPERATIONS: readonly AnyOperation[] = [
  operation<object, object, { machineId: number; lensId: number; stockId: number }>({
    id: 'openBench',
    method: 'POST',
    path: '/api/pairings',
    summary: 'Open the bench for a machine, a lens and a stock; the same three give the same pairing',
    tag: 'bench',
    body: pairingBody,
    answers: 'application/json',
    handle: async (ctx, { body }) => ({ json: await openBench(ctx, body) }),
  }),
  operation<object, { name: string }, string>({
    id: 'readDrawing',
    method: 'POST',
    path: '/api/drawings',
    summary: 'The lines of an SVG drawing in millimetres, for a plan of a part; nothing is kept',
    tag: 'cards',
    query: Joi.object({ name: Joi.string().max(200).default('drawing') }),
    body: 'drawing',
    answers: 'application/json',
    handle: async (_, { body, query }) => ({ json: readDrawing(body, query.name) }),
  }),
  operation<object, { page: number }>({
    id: 'listBenches',
    method: 'GET',
    path: '/api/pairings',
    summary: 'A page of the open benches, what waits for a hand first, each with its ladder and next step',
    tag: 'bench',
    query: pageQuery,
    answers: 'application/json',
    handle: async (ctx, { query }) => ({ json: (await benchListView(ctx, query.page)).benches }),
  }),
  operation<{ pairingId: number }>({
    id: 'getBench',
    method: 'GET',
    path: '/api/pairings/{pairingId}',
    summary: 'A pairing with its ladder, its cards and the next step',
    tag: 'bench',
    params: idParam('pairingId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await benchView(ctx, params.pairingId) }),
  }),
  operation<{ pairingId: number; kind: string }, { prove: number | null }>({
    id: 'proposeCard',
    method: 'GET',
    path: '/api/pairings/{pairingId}/proposals/{kind}',
    summary: 'A card to burn, with a reason for each value; with a fact to prove, a small one around its setting',
    tag: 'bench',
    params: kindParam,
    query: proveQuery,
    answers: 'application/json',
    handle: async (ctx, { params, query }) => ({
      json: await cards.proposeCard(ctx, params.pairingId, params.kind, query.prove),
    }),
  }),
  operation<object, object, cards.CardRequest>({
    id: 'createCard',
    method: 'POST',
    path: '/api/cards',
    summary: 'Make a card of a plan: it gets its number, its place on the sheet and its final layout',
    tag: 'cards',
    body: cardBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({ status: 201, json: await cards.createCard(ctx, body, key) }),
  }),
  operation<object, object, AdoptRequest>({
    id: 'adoptCard',
    method: 'POST',
    path: '/api/cards/adopt',
    summary:
      'Take in an old card that was burned by other means, told by its edges and cells; its photo is placed by its cells',
    tag: 'cards',
    body: adoptBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({ status: 201, json: await adoptCard(ctx, body, key) }),
  }),
  operation<{ cardId: number }>({
    id: 'getCard',
    method: 'GET',
    path: '/api/cards/{cardId}',
    summary: 'A card with its layout, burns, photos, what they show, answers and what was kept from it',
    tag: 'cards',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await cardView(ctx, params.cardId) }),
  }),
  operation<{ cardId: number; format: ExportFormat }, { zero: ZeroPlace | null }>({
    id: 'exportCard',
    method: 'GET',
    path: '/api/cards/{cardId}/export/{format}',
    summary:
      'The card as SVG, G-code, CSV of its cells, PNG preview, a zip for machines that take no G-code, or its outline alone without or at the lowest power; zero as the machine has it, or another',
    tag: 'cards',
    params: idParam('cardId').keys({ format: Joi.valid(...EXPORT_FORMATS).required() }),
    query: zeroQuery,
    answers: 'a file',
    handle: async (ctx, { params, query }) => ({
      file: exportCard(ctx, await cards.getCard(ctx, params.cardId), params.format, query.zero),
    }),
  }),
  operation<{ cardId: number }>({
    id: 'listCautions',
    method: 'GET',
    path: '/api/cards/{cardId}/cautions',
    summary: 'The pre-burn check of a card, each line to be ticked each time',
    tag: 'burns',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: burns.cautionsOfCard(await cards.getCard(ctx, params.cardId)) }),
  }),
  operation<object, object, burns.BurnRequest>({
    id: 'startBurn',
    method: 'POST',
    path: '/api/burns',
    summary: 'Burn a card on the bench, or note that it was burned on a machine of your own',
    tag: 'burns',
    body: burnBody,
    answers: 'application/json',
    handle: async (ctx, { body }) => ({ status: 201, json: await burns.startBurn(ctx, body) }),
  }),
  operation<{ burnId: number }, object, OwnBurnEnd>({
    id: 'endOwnBurn',
    method: 'POST',
    path: '/api/burns/{burnId}/end',
    summary: 'Stop the clock of a burn on a machine of your own; its time calibrates that machine’s estimates',
    tag: 'burns',
    params: idParam('burnId'),
    body: ownBurnEndBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await endOwnBurn(ctx, params.burnId, body) }),
  }),
  operation<{ burnId: number }, object, { tookS: number | null }>({
    id: 'correctTime',
    method: 'PUT',
    path: '/api/burns/{burnId}/time',
    summary: 'Correct the time of a burn on a machine of your own; null for one that was not timed',
    tag: 'burns',
    params: idParam('burnId'),
    body: burnTimeBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await correctTime(ctx, params.burnId, body.tookS) }),
  }),
  operation<object, { page: number }>({
    id: 'listBurns',
    method: 'GET',
    path: '/api/burns',
    summary: 'A page of burns, newest first, with estimated and actual time',
    tag: 'burns',
    query: pageQuery,
    answers: 'application/json',
    handle: async (ctx, { query }) => ({ json: await logbookView(ctx, query.page) }),
  }),
  operation<{ burnId: number }>({
    id: 'getBurn',
    method: 'GET',
    path: '/api/burns/{burnId}',
    summary: 'A burn and how far it has come',
    tag: 'burns',
    params: idParam('burnId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await burns.getBurn(ctx, params.burnId) }),
  }),
  operation<{ burnId: number }, object, burns.BurnControl>({
    id: 'controlBurn',
    method: 'POST',
    path: '/api/burns/{burnId}/control',
    summary: 'Pause, resume or stop a burn, or say that the hand it waits for is done and where it left the focus',
    tag: 'burns',
    params: idParam('burnId'),
    body: burnControlBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await burns.controlBurn(ctx, params.burnId, body) }),
  }),
  operation<
    { cardId: number },
    {
      state: 'raw' | 'wiped';
      photos: 1 | 2;
      sheet: SheetFormat | null;
      lit: LitFrom;
      face: 'front' | 'back';
      closer: boolean;
    }
  >({
    id: 'photographCard',
    method: 'POST',
    path: '/api/cards/{cardId}/photograph',
    summary:
      'Let the bench’s camera take a photo of the burned card, as it is or wiped, on a frame sheet or without, turned over, or on a light table; or two, one of them darker; they are put in line to be read. Cards of a round are taken together, or one from closer by',
    tag: 'photos',
    params: idParam('cardId'),
    answers: 'application/json',
    query: Joi.object({
      state: Joi.valid('raw', 'wiped').default('raw'),
      lit,
      face: Joi.valid('front', 'back').default('front'),
      closer: Joi.boolean().default(false),
      // On a light table there is no sheet under it, and one photo is enough.
      photos: Joi.number()
        .when('lit', { is: 'behind', then: Joi.valid(1), otherwise: Joi.valid(1, 2) })
        .default(1),
      sheet: Joi.when('lit', { is: 'behind', then: Joi.forbidden(), otherwise: Joi.valid(...SHEET_FORMATS) }).default(
        null,
      ),
    }),
    handle: async (ctx, { params, query }) => ({
      status: 201,
      json: await burns.photographCard(ctx, params.cardId, {
        wiped: query.state === 'wiped',
        twice: query.photos === 2,
        onSheet: query.sheet,
        litFrom: query.lit,
        turned: query.face === 'back',
        closer: query.closer,
      }),
    }),
  }),
  operation<{ cardId: number }, object, { field: string; cellIndex: number; repeat: number }>({
    id: 'readGauge',
    method: 'POST',
    path: '/api/cards/{cardId}/gauge',
    summary:
      'Set the simulated caliper or depth gauge on a cell of what the bench burned; it answers with what it would type',
    tag: 'photos',
    params: idParam('cardId'),
    body: gaugeBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await readGauge(ctx, params.cardId, body) }),
  }),
  operation<{ cardId: number }>({
    id: 'tapSheet',
    method: 'POST',
    path: '/api/cards/{cardId}/tap',
    summary:
      'Tap the sheet under every part of a card that the bench cut, and note what drops where nobody has said so yet; of a card of slots, push an offcut into each, of one that gets pass after pass count them, of one of knobs every part into every hole, and note how it goes',
    tag: 'photos',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await tapSheet(ctx, params.cardId) }),
  }),
  operation<{ cardId: number }>({
    id: 'getLightTable',
    method: 'GET',
    path: '/api/cards/{cardId}/light-table',
    summary: 'What the bench burned of a card, on a light table: bright where it is through',
    tag: 'photos',
    params: idParam('cardId'),
    answers: 'a file',
    handle: async (ctx, { params }) => ({ file: await layOnLightTable(ctx, params.cardId) }),
  }),
  operation<{ cardId: number }, { name: string; finish?: FinishMoment; lit: LitFrom }, Buffer>({
    id: 'uploadPhoto',
    method: 'POST',
    path: '/api/cards/{cardId}/photos',
    summary:
      'Upload a photo of a card (JPEG, PNG or WebP, to 25 MB and 40 megapixels), taken before or after its finish, lit from the front or on a light table; it is put in line to be read',
    tag: 'photos',
    params: idParam('cardId'),
    query: Joi.object({
      name: Joi.string().max(200).default('photo'),
      finish: Joi.valid('before', 'after'),
      lit,
    }),
    body: 'image',
    answers: 'application/json',
    handle: async (ctx, { params, query, body }) => {
      const received = await photos.receivePhoto(ctx, params.cardId, {
        bytes: body,
        fileName: query.name,
        origin: 'upload',
        finish: query.finish ?? null,
        litFrom: query.lit,
      });
      return { status: received.again ? 200 : 201, json: received };
    },
  }),
  operation<{ photoId: number }>({
    id: 'getPhoto',
    method: 'GET',
    path: '/api/photos/{photoId}',
    summary: 'A photo, how its reading goes, and what came of it',
    tag: 'photos',
    params: idParam('photoId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await photos.getPhoto(ctx, params.photoId) }),
  }),
  operation<{ photoId: number; role: ImageRole }>({
    id: 'getPhotoImage',
    method: 'GET',
    path: '/api/photos/{photoId}/images/{role}',
    summary: 'The photo as uploaded, a smaller copy, or the straightened card',
    tag: 'photos',
    params: Joi.object({ photoId: id.required(), role: Joi.valid('original', 'preview', 'straightened').required() }),
    answers: 'a file',
    handle: async (ctx, { params }) => {
      const { mediaType, bytes } = await photos.getPhotoImage(ctx, params.photoId, params.role);
      const ending = mediaType.split('/')[1]!;
      return { file: { bytes, mediaType, name: `photo-${params.photoId}-${params.role}.${ending}`, inline: true } };
    },
  }),
  operation<{ photoId: number }, object, { corners: Point[] }>({
    id: 'setCorners',
    method: 'PUT',
    path: '/api/photos/{photoId}/corners',
    summary: 'Read a photo again with the card’s corners as given: photo pixels, upper left first, clockwise',
    tag: 'photos',
    params: idParam('photoId'),
    body: cornersBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await photos.setCorners(ctx, params.photoId, body.corners) }),
  }),
  operation<{ photoId: number }, object, { counts: boolean }>({
    id: 'countPhoto',
    method: 'PUT',
    path: '/api/photos/{photoId}/counts',
    summary: 'Count a photo in what its card is told by, or leave it aside; those that count are merged',
    tag: 'photos',
    params: idParam('photoId'),
    body: countsBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await photos.setCounts(ctx, params.photoId, body.counts) }),
  }),
  operation<{ photoId: number }, object, { cardId: number }>({
    id: 'readPhotoToo',
    method: 'POST',
    path: '/api/photos/{photoId}/also',
    summary: 'Read a photo for another card that it shows, too',
    tag: 'photos',
    params: idParam('photoId'),
    body: movePhotoBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      status: 201,
      json: await photos.readForToo(ctx, params.photoId, body.cardId),
    }),
  }),
  operation<{ photoId: number }, object, { cardId: number }>({
    id: 'movePhoto',
    method: 'POST',
    path: '/api/photos/{photoId}/move',
    summary: 'Move a photo to the card it shows and read it there',
    tag: 'photos',
    params: idParam('photoId'),
    body: movePhotoBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await photos.movePhoto(ctx, params.photoId, body.cardId) }),
  }),
  operation<{ cardId: number }, object, Answer>({
    id: 'answerCard',
    method: 'PUT',
    path: '/api/cards/{cardId}/answers',
    summary:
      'An answer of the operator about a cell or the card: what the eye says, what a gauge reads, a note; null takes it back',
    tag: 'cards',
    params: idParam('cardId'),
    body: answerBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await answerCard(ctx, params.cardId, body) }),
  }),
  operation<{ cardId: number }>({
    id: 'getNextCell',
    method: 'GET',
    path: '/api/cards/{cardId}/next',
    summary: 'What a search would burn next, or why it stops',
    tag: 'cards',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await nextOfCard(ctx, params.cardId) }),
  }),
  operation<{ cardId: number }>({
    id: 'addNextCell',
    method: 'POST',
    path: '/api/cards/{cardId}/next',
    summary: 'Add the next cell of a search to its card',
    tag: 'cards',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await addNextCell(ctx, params.cardId) }),
  }),
  operation<{ cardId: number }, object, { wish: object | null }>({
    id: 'findInCard',
    method: 'POST',
    path: '/api/cards/{cardId}/finding',
    summary: 'What a card says for a wish, or what is missing; nothing is kept',
    tag: 'cards',
    params: idParam('cardId'),
    body: findingBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => {
      const { kind } = await cards.getCard(ctx, params.cardId);
      return { json: await findInCard(ctx, params.cardId, wishOf(kind, body.wish)) };
    },
  }),
];
