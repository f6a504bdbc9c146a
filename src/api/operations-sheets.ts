import Joi from 'joi';
import * as frameSheets from '../app/frame-sheets';
import { SHEET_FORMATS, type SheetFormat } from '../core/sheet/frame-sheet';
import { listFrameSheets } from '../db/frame-sheets';
import type { FrameSheetRecord } from '../records/frame-sheet';
import { operation, type AnyOperation } from './operation';
import { frameSheetBody, idParam } from './schemas';

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
];
