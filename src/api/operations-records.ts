import type { Lens, Machine } from '../core/machine/machine';
import { assessPairing, assessStock } from '../core/stock/assess';
import { suitabilityTable } from '../core/stock/response';
import { BANNED_MATERIALS } from '../core/stock/banned';
import { FAMILIES } from '../core/stock/families';
import { listMachines } from '../db/machines';
import { listStocks } from '../db/stocks';
import type { StockInput } from '../records/stock';
import * as machines from '../app/machines';
import * as stocks from '../app/stocks';
import { operation, type AnyOperation } from './operation';
import type { DiaryEntry } from '../core/machine/diary';
import * as diary from '../app/diary';
import {
  diaryBody,
  idParam,
  struckBody,
  lensBody,
  lensChangeBody,
  machineBody,
  newMachineBody,
  retiredBody,
  stockBody,
} from './schemas';

/** Endpoints for what is kept: machines, lenses, stock. */
export const RECORD_OPERATIONS: readonly AnyOperation[] = [
  operation({
    id: 'listMachines',
    method: 'GET',
    path: '/api/machines',
    summary: 'All machines with their lenses, retired ones last',
    tag: 'machines',
    answers: 'application/json',
    handle: async (ctx) => ({ json: await listMachines(ctx.db) }),
  }),
  operation<object, object, { machine: Machine; lens: Lens }>({
    id: 'createMachine',
    method: 'POST',
    path: '/api/machines',
    summary: 'A new machine with its first lens',
    tag: 'machines',
    body: newMachineBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({
      status: 201,
      json: await machines.createMachine(ctx, body.machine, body.lens, key),
    }),
  }),
  operation<{ machineId: number }>({
    id: 'getMachine',
    method: 'GET',
    path: '/api/machines/{machineId}',
    summary: 'One machine',
    tag: 'machines',
    params: idParam('machineId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await machines.getMachine(ctx, params.machineId) }),
  }),
  operation<{ machineId: number }, object, Machine>({
    id: 'changeMachine',
    method: 'PUT',
    path: '/api/machines/{machineId}',
    summary: 'Change a machine; cards already made keep the machine as it was',
    tag: 'machines',
    params: idParam('machineId'),
    body: machineBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await machines.changeMachine(ctx, params.machineId, body) }),
  }),
  operation<{ machineId: number }, object, { retired: boolean }>({
    id: 'retireMachine',
    method: 'PUT',
    path: '/api/machines/{machineId}/retired',
    summary: 'Retire a machine, or bring it back',
    tag: 'machines',
    params: idParam('machineId'),
    body: retiredBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      json: await machines.retireMachine(ctx, params.machineId, body.retired),
    }),
  }),
  operation<{ machineId: number }, object, Lens>({
    id: 'addLens',
    method: 'POST',
    path: '/api/machines/{machineId}/lenses',
    summary: 'Another lens for a machine',
    tag: 'machines',
    params: idParam('machineId'),
    body: lensBody,
    answers: 'application/json',
    handle: async (ctx, { params, body, key }) => ({
      status: 201,
      json: await machines.addLens(ctx, params.machineId, body, key),
    }),
  }),
  operation<{ machineId: number; lensId: number }, object, { lens: Lens; retired: boolean }>({
    id: 'changeLens',
    method: 'PUT',
    path: '/api/machines/{machineId}/lenses/{lensId}',
    summary: 'Change a lens, or retire it',
    tag: 'machines',
    params: idParam('machineId').concat(idParam('lensId')),
    body: lensChangeBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      json: await machines.changeLens(ctx, params.machineId, params.lensId, body.lens, body.retired),
    }),
  }),
  operation<{ machineId: number }>({
    id: 'getDiary',
    method: 'GET',
    path: '/api/machines/{machineId}/diary',
    summary: 'What happened to a machine, newest first, and the hours it has burned',
    tag: 'machines',
    params: idParam('machineId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => ({ json: await diary.diaryOf(ctx, params.machineId) }),
  }),
  operation<{ machineId: number }, object, DiaryEntry>({
    id: 'addDiaryEntry',
    method: 'POST',
    path: '/api/machines/{machineId}/diary',
    summary: 'Note what happened to a machine: what it makes doubtful shows on its ladders',
    tag: 'machines',
    params: idParam('machineId'),
    body: diaryBody,
    answers: 'application/json',
    handle: async (ctx, { params, body, key }) => ({
      status: 201,
      json: await diary.addEntry(ctx, params.machineId, body, key),
    }),
  }),
  operation<{ machineId: number; entryId: number }, object, { struck: boolean }>({
    id: 'strikeDiaryEntry',
    method: 'PUT',
    path: '/api/machines/{machineId}/diary/{entryId}/struck',
    summary: 'Strike out an entry that was a mistake, or let it stand again',
    tag: 'machines',
    params: idParam('machineId').concat(idParam('entryId')),
    body: struckBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({
      json: await diary.setStruck(ctx, params.machineId, params.entryId, body.struck),
    }),
  }),
  operation({
    id: 'listStock',
    method: 'GET',
    path: '/api/stock',
    summary: 'All stock, retired last',
    tag: 'stock',
    answers: 'application/json',
    handle: async (ctx) => ({ json: await listStocks(ctx.db) }),
  }),
  operation<object, object, StockInput>({
    id: 'createStock',
    method: 'POST',
    path: '/api/stock',
    summary: 'New stock; a banned material can be recorded but never burned',
    tag: 'stock',
    body: stockBody,
    answers: 'application/json',
    handle: async (ctx, { body, key }) => ({ status: 201, json: await stocks.createStock(ctx, body, key) }),
  }),
  operation<{ stockId: number }>({
    id: 'getStock',
    method: 'GET',
    path: '/api/stock/{stockId}',
    summary: 'One stock, what speaks against burning it, and how it takes each machine',
    tag: 'stock',
    params: idParam('stockId'),
    answers: 'application/json',
    handle: async (ctx, { params }) => {
      const stock = await stocks.getStock(ctx, params.stockId);
      const all = (await listMachines(ctx.db)).filter((machine) => !machine.retired);
      const byMachine = all.map((machine) => ({
        machineId: machine.id,
        machine: machine.name,
        remarks: assessPairing(machine, stock),
      }));
      return { json: { ...stock, remarks: assessStock(stock), byMachine } };
    },
  }),
  operation<{ stockId: number }, object, StockInput>({
    id: 'changeStock',
    method: 'PUT',
    path: '/api/stock/{stockId}',
    summary: 'Change stock; cards already made keep the stock as it was',
    tag: 'stock',
    params: idParam('stockId'),
    body: stockBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await stocks.changeStock(ctx, params.stockId, body) }),
  }),
  operation<{ stockId: number }, object, { retired: boolean }>({
    id: 'retireStock',
    method: 'PUT',
    path: '/api/stock/{stockId}/retired',
    summary: 'Retire stock, or bring it back',
    tag: 'stock',
    params: idParam('stockId'),
    body: retiredBody,
    answers: 'application/json',
    handle: async (ctx, { params, body }) => ({ json: await stocks.retireStock(ctx, params.stockId, body.retired) }),
  }),
  operation({
    id: 'listFamilies',
    method: 'GET',
    path: '/api/families',
    summary: 'Families of stock, how each takes each wavelength, and what is never burned',
    tag: 'stock',
    answers: 'application/json',
    handle: async () => ({ json: { families: FAMILIES, suitability: suitabilityTable(), banned: BANNED_MATERIALS } }),
  }),
];
