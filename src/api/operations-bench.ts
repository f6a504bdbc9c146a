import type { GridWish } from '../cards/grid/find';
import type { Verdict } from '../core/card/contract';
import type { Point } from '../core/geometry/point';
import * as burns from '../app/burns';
import * as cards from '../app/cards';
import { EXPORT_FORMATS, exportCard, type ExportFormat } from '../app/exports';
import { openBench } from '../app/pairings';
import * as photos from '../app/photos';
import * as settings from '../app/settings';
import { benchView, cardView } from '../app/views';
import { listBurns } from '../db/burns';
import Joi from 'joi';
import { operation, type AnyOperation } from './operation';
import {
  burnBody,
  burnControlBody,
  cardBody,
  cornersBody,
  id,
  idParam,
  movePhotoBody,
  pairingBody,
  verdictBody,
  wishQuery,
} from './schemas';

/** Endpoints for work at the bench: pairings, cards, burns, photos, verdicts. */
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
  operation<{ pairingId: number; kind: 'grid' }>({
    id: 'proposeCard',
    method: 'GET',
    path: '/api/pairings/{pairingId}/proposals/{kind}',
    summary: 'A card to burn, with a reason for each value',
    tag: 'bench',
    params: idParam('pairingId').keys({ kind: Joi.valid('grid').required() }),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await cards.proposeCard(ctx, params.pairingId, params.kind) }),
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
  operation<{ cardId: number }>({
    id: 'getCard',
    method: 'GET',
    path: '/api/cards/{cardId}',
    summary: 'A card with its layout, burns, photos, newest reading and verdicts',
    tag: 'cards',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await cardView(ctx, params.cardId) }),
  }),
  operation<{ cardId: number; format: ExportFormat }>({
    id: 'exportCard',
    method: 'GET',
    path: '/api/cards/{cardId}/export/{format}',
    summary: 'The card as SVG, G-code, CSV of its cells, or PNG preview',
    tag: 'cards',
    params: idParam('cardId').keys({ format: Joi.valid(...EXPORT_FORMATS).required() }),
    answers: 'a file',
    handle: async (ctx, { params }) => ({
      file: await exportCard(await cards.getCard(ctx, params.cardId), params.format),
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
  operation({
    id: 'listBurns',
    method: 'GET',
    path: '/api/burns',
    summary: 'The newest 200 burns, with estimated and actual time',
    tag: 'burns',
    answers: 'application/json',
    handle: async (ctx) => ({ json: await listBurns(ctx.db, 200) }),
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
  operation<{ burnId: number }, object, { action: 'pause' | 'resume' | 'stop' }>({
    id: 'controlBurn',
    method: 'POST',
    path: '/api/burns/{burnId}/control',
    summary: 'Pause, resume or stop a burn',
    tag: 'burns',
    params: idParam('burnId'),
    body: burnControlBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await burns.controlBurn(ctx, params.burnId, body.action) }),
  }),
  operation<{ cardId: number }>({
    id: 'photographCard',
    method: 'POST',
    path: '/api/cards/{cardId}/photograph',
    summary: 'Let the bench’s camera take a photo of the burned card; it is put in line to be read',
    tag: 'photos',
    params: idParam('cardId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ status: 201, json: await burns.photographCard(ctx, params.cardId) }),
  }),
  operation<{ cardId: number }, { name: string }, Buffer>({
    id: 'uploadPhoto',
    method: 'POST',
    path: '/api/cards/{cardId}/photos',
    summary: 'Upload a photo of a card (JPEG, PNG or WebP, to 25 MB and 40 megapixels); it is put in line to be read',
    tag: 'photos',
    params: idParam('cardId'),
    query: Joi.object({ name: Joi.string().max(200).default('photo') }),
    body: 'image',
    answers: 'application/json',
    handle: async (ctx, { params, query, body }) => {
      const received = await photos.receivePhoto(ctx, params.cardId, {
        bytes: body,
        fileName: query.name,
        origin: 'upload',
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
  operation<{ photoId: number; role: 'original' | 'preview' | 'straightened' }>({
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
  operation<{ cardId: number }, object, Verdict>({
    id: 'judgeCell',
    method: 'PUT',
    path: '/api/cards/{cardId}/verdicts',
    summary: 'The operator’s grade, outcome and note on a cell; nothing in it clears it',
    tag: 'cards',
    params: idParam('cardId'),
    body: verdictBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await settings.judgeCell(ctx, params.cardId, body) }),
  }),
  operation<{ cardId: number }, GridWish>({
    id: 'findInCard',
    method: 'GET',
    path: '/api/cards/{cardId}/finding',
    summary: 'Which cells meet a wanted lightness, the frontier of contrast and time, and one proposal',
    tag: 'cards',
    params: idParam('cardId'),
    query: wishQuery,
    answers: 'application/json',
    handle: async (ctx, { params, query }) => ({ json: await settings.findInCard(ctx, params.cardId, query) }),
  }),
];
