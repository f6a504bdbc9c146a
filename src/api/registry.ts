import { openApiFile } from './openapi';
import { operation, type AnyOperation } from './operation';
import { BENCH_OPERATIONS } from './operations-bench';
import { BOOK_OPERATIONS } from './operations-book';
import { ROUND_OPERATIONS } from './operations-rounds';
import { SHEET_OPERATIONS } from './operations-sheets';
import { RECORD_OPERATIONS } from './operations-records';

const ABOUT: AnyOperation = operation({
  id: 'getOpenApi',
  method: 'GET',
  path: '/api/openapi.json',
  summary: 'This interface as OpenAPI 3.1, made from the schemas that check it',
  tag: 'about',
  answers: 'application/json',
  handle: async () => ({ json: openApiFile(OPERATIONS) }),
});

/** Every endpoint there is. */
export const OPERATIONS: readonly AnyOperation[] = [
  ...RECORD_OPERATIONS,
  ...BENCH_OPERATIONS,
  ...ROUND_OPERATIONS,
  ...BOOK_OPERATIONS,
  ...SHEET_OPERATIONS,
  ABOUT,
];
