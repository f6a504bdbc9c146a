import Joi from 'joi';
import { sayPieces } from '../app/pieces';
import * as rounds from '../app/rounds';
import type { RungId } from '../core/book/rungs';
import type { Pieces } from '../core/book/worth';
import type { ZeroPlace } from '../core/machine/machine';
import { EXPORT_FORMATS, type ExportFormat } from '../workers/protocol';
import { operation, type AnyOperation } from './operation';
import { idParam, piecesBody, roundBody, roundBurnBody, zeroQuery } from './schemas';

/** Endpoints for cards that are burned in one go, and for what a test is worth. */
export const ROUND_OPERATIONS: readonly AnyOperation[] = [
  operation<{ pairingId: number }, object, { pieces: Pieces | null }>({
    id: 'sayPieces',
    method: 'PUT',
    path: '/api/pairings/{pairingId}/pieces',
    summary: 'Say how many pieces of which size the stock is for: what a test costs is weighed against them',
    tag: 'bench',
    params: idParam('pairingId'),
    body: piecesBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await sayPieces(ctx, params.pairingId, body.pieces) }),
  }),
  operation<{ pairingId: number }>({
    id: 'offerRound',
    method: 'GET',
    path: '/api/pairings/{pairingId}/round',
    summary: 'The cards that a pairing waits for which can be burned in one go, and why others cannot',
    tag: 'bench',
    params: idParam('pairingId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await rounds.roundView(ctx, params.pairingId) }),
  }),
  operation<{ pairingId: number }, object, { rungs: RungId[] }>({
    id: 'createRound',
    method: 'POST',
    path: '/api/pairings/{pairingId}/rounds',
    summary:
      'Make the proposed cards of several rungs, laid beside each other to be burned in one go; all of them, or none',
    tag: 'cards',
    params: idParam('pairingId'),
    body: roundBody,
    answers: 'application/json',
    handle: async (ctx, { params, body, key }) => ({
      status: 201,
      json: await rounds.createRound(ctx, params.pairingId, body.rungs, key),
    }),
  }),
  operation<{ roundId: number }, object, rounds.RoundBurnRequest>({
    id: 'burnRound',
    method: 'POST',
    path: '/api/rounds/{roundId}/burns',
    summary:
      'Burn what is left of a round, one card after the other, or note that it was burned on a machine of your own',
    tag: 'burns',
    params: idParam('roundId'),
    body: roundBurnBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      status: 201,
      json: await rounds.burnRound(ctx, params.roundId, body),
    }),
  }),
  operation<{ roundId: number; format: ExportFormat }, { zero: ZeroPlace | null }>({
    id: 'exportRound',
    method: 'GET',
    path: '/api/rounds/{roundId}/export/{format}',
    summary: 'All cards of a round in one file, in the formats of a card',
    tag: 'cards',
    params: idParam('roundId').keys({ format: Joi.valid(...EXPORT_FORMATS).required() }),
    query: zeroQuery,
    answers: 'a file',
    handle: async (ctx, { params, query }) => ({
      file: await rounds.exportRound(ctx, params.roundId, params.format, query.zero),
    }),
  }),
];
