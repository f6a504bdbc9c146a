import { sql } from 'kysely';
import { benchListView } from '../src/app/bench-views';
import { bookView } from '../src/app/book-views';
import { logbookView } from '../src/app/logbook';
import { renewLadders } from '../src/app/ladders';
import { migrate } from '../src/db/migrate';
import { closeContext, makeContext } from '../src/server/make-context';
import { median } from '../src/core/stats/robust';
import { throwawayCluster } from '../scripts/throwaway.mjs';
import { loadDemoWorld } from '../src/demo/load';

/** How long the lists take with 200 benches and 10 000 cards, on the server. Prints; nothing is written. */
const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };
const cluster = await throwawayCluster();
const workerFile = new URL('../workers/heavy-worker.mjs', import.meta.url);
const ctx = makeContext({ databaseUrl: cluster.url, workerFile, log: SILENT, paceFactor: 1000 });
/** Copies of one row of a table, each with some fields of its own, as an SQL expression of the copy's number `n`. */
async function copies(table: string, id: number, count: number, fields: string): Promise<void> {
  const { rows } = await sql<{ name: string }>`select column_name as name from information_schema.columns
    where table_name = ${table} and is_generated = 'NEVER'`.execute(ctx.db);
  const columns = rows.map(({ name }) => `"${name}"`);
  const own = columns.map((name) => `r.${name}`).join(', ');
  await sql
    .raw(
      `insert into "${table}" (${columns.join(', ')}) overriding system value
       select ${own} from (select (jsonb_populate_record(t, jsonb_build_object(${fields}))).*
       from "${table}" t, generate_series(1, ${count}) n where t.id = ${id}) r`,
    )
    .execute(ctx.db);
}

await migrate(ctx.db);
await loadDemoWorld(ctx, () => undefined);
await copies('stock', 1, 200, `'id', 1000 + n, 'name', 'Copy ' || n`);
await copies('pairing', 1, 200, `'id', 1000 + n, 'stock_id', 1000 + n`);
await copies('card', 1, 10_000, `'id', 10000 + n, 'number', 10000 + n, 'pairing_id', 1001 + n % 200`);
await copies('burn', 1, 10_000, `'id', 10000 + n, 'card_id', 10000 + n`);
const time = async (name: string, work: () => Promise<unknown>, rounds = 7): Promise<void> => {
  const times: number[] = [];
  for (let round = 0; round < rounds; round++) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  console.log(`${name}: first ${times[0]!.toFixed(0)} ms, median ${median(times.slice(1)).toFixed(0)} ms`);
};
await time('home page, ladders not worked out yet', () => benchListView(ctx, 1));
const from = performance.now();
console.log(
  `ladders worked out: ${await renewLadders(ctx, 1000)} in ${((performance.now() - from) / 1000).toFixed(1)} s`,
);
await time('home page', () => benchListView(ctx, 1));
await time('home page, last page', () => benchListView(ctx, 9));
await time('book', () => bookView(ctx, '', 1));
await time('logbook', () => logbookView(ctx, 1));
await closeContext(ctx);
cluster.remove();
