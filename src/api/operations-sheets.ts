import Joi from 'joi';
import * as frameSheets from '../app/frame-sheets';
import * as matches from '../app/matches';
import type { PhotoPlace } from '../core/reading/sheet/tone-of-place';
import { SHEET_FORMATS, type SheetFormat } from '../core/sheet/frame-sheet';
import { listFrameSheets } from '../db/frame-sheets';
import type { FrameSheetRecord } from '../records/frame-sheet';
import { operation, type AnyOperation } from './operation';
import { frameSheetBody, idParam, matchBody, movePhotoBody } from './schemas';

/** Endpoints for frame sheets: printing them, and measuring what was printed. */
export const SHEET_OPERATIONS: readonly AnyOperation[] = [
  operation<{ format: SheetFormat }>({
    id: 'printFrameSheet',
    method: 'GET',
    path: '/api/frame-sheets/print/{format}',
    summary: 'A frame sheet to print at 100 %, as PDF',
    tag: 'photos',
    params: Joi.object({ format: Joi.valid(...SHEET_FORMATS).required() }),
    answers: 'a file',
    handle: async (_, { params }) => {
      const { bytes, name } = await frameSheets.sheetToPrint(params.format);
      return { file: { bytes, name, mediaType: 'application/pdf' } };
    },
  }),
  operation({
    id: 'listFrameSheets',
    method: 'GET',
    path: '/api/frame-sheets',
    summary: 'Frame sheets that were printed, newest first, with their greys where these were measured',
    tag: 'photos',
    answers: 'application/json',
    handle: async (ctx) => ({ json: await listFrameSheets(ctx.db) }),
  }),
  operation<object, object, Pick<FrameSheetRecord, 'name' | 'format' | 'ruleMm'>>({
    id: 'addFrameSheet',
    method: 'POST',
    path: '/api/frame-sheets',
    summary: 'Note a frame sheet that was printed, with the length of its rule',
    tag: 'photos',
    body: frameSheetBody,
    answers: 'application/json',
    handle: async (ctx, { body }) => ({ status: 201, json: await frameSheets.addFrameSheet(ctx, body) }),
  }),
  operation<{ frameSheetId: number }, object, Buffer>({
    id: 'sendFrameSheetPhoto',
    method: 'POST',
    path: '/api/frame-sheets/{frameSheetId}/photos',
    summary: 'Send one of the two photos of a frame sheet that its greys are measured by: with the second they are',
    tag: 'photos',
    params: idParam('frameSheetId'),
    body: 'image',
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      status: 201,
      json: await frameSheets.receiveSheetPhoto(ctx, params.frameSheetId, body),
    }),
  }),
  operation<{ frameSheetId: number }>({
    id: 'photographFrameSheet',
    method: 'POST',
    path: '/api/frame-sheets/{frameSheetId}/photograph',
    summary: 'Let the bench’s camera take both photos of a frame sheet that the bench’s printer made',
    tag: 'photos',
    params: idParam('frameSheetId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({
      status: 201,
      json: await frameSheets.photographSheet(ctx, params.frameSheetId),
    }),
  }),
  operation({
    id: 'listMatchPhotos',
    method: 'GET',
    path: '/api/matches',
    summary: 'Photos of pieces beside a frame sheet whose tone is to be matched, newest first',
    tag: 'photos',
    answers: 'application/json',
    handle: async (ctx) => ({ json: await matches.matchPhotos(ctx) }),
  }),
  operation<object, { name: string }, Buffer>({
    id: 'sendMatchPhoto',
    method: 'POST',
    path: '/api/matches',
    summary: 'Send a photo of a piece beside a measured frame sheet, to have its tone matched',
    tag: 'photos',
    query: Joi.object({ name: Joi.string().max(200).default('photo') }),
    body: 'image',
    answers: 'application/json',
    handle: async (ctx, { query, body }) => ({
      status: 201,
      json: await matches.receiveMatchPhoto(ctx, body, query.name),
    }),
  }),
  operation<object, object, { cardId: number }>({
    id: 'photographForMatch',
    method: 'POST',
    path: '/api/matches/photograph',
    summary: 'Let the bench’s camera take a card that the bench burned, on a frame sheet, as a piece to match',
    tag: 'photos',
    body: movePhotoBody,
    answers: 'application/json',
    handle: async (ctx, { body }) => ({ status: 201, json: await matches.photographForMatch(ctx, body.cardId) }),
  }),
  operation<{ matchId: number }>({
    id: 'getMatchImage',
    method: 'GET',
    path: '/api/matches/{matchId}/image',
    summary: 'A smaller copy of a photo whose tone is to be matched, upright',
    tag: 'photos',
    params: idParam('matchId'),
    answers: 'a file',
    handle: async (ctx, { params }) => ({
      file: {
        bytes: await matches.matchPreview(ctx, params.matchId),
        mediaType: 'image/jpeg',
        name: `match-${params.matchId}.jpeg`,
        inline: true,
      },
    }),
  }),
  operation<{ matchId: number }, object, { place: PhotoPlace; bare: PhotoPlace | null }>({
    id: 'tellTone',
    method: 'POST',
    path: '/api/matches/{matchId}/tone',
    summary:
      'The tone of a place of the photo, in its pixels, by the sheet’s paper and beside a place of its bare stock',
    tag: 'photos',
    params: idParam('matchId'),
    body: matchBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await matches.toneInPhoto(ctx, params.matchId, body) }),
  }),
];
