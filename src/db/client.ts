import { CamelCasePlugin, Kysely, PostgresDialect, type Transaction } from 'kysely';
import pg from 'pg';
import type { DB } from './tables';

/** A connection pool or a transaction: what every database function takes first. */
export type Db = Kysely<DB>;
export type Tx = Transaction<DB>;

/**
 * Columns are `snake_case` in the database and `camelCase` here. What lies within JSON keeps its names, and every capital begins a word:
 * `topSpeedXMmPerS` is `top_speed_x_mm_per_s`.
 */
const columnNames = new CamelCasePlugin({ maintainNestedObjectKeys: true, underscoreBetweenUppercaseLetters: true });

// Dates are plain days; the driver would shift them into the server's time zone.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

/** Opens a pool. Lost connections are dropped and new ones made on demand, so a server that returns is found again. */
export function openDatabase(connectionString: string, onLost: (error: Error) => void): Db {
  const pool = new pg.Pool({ connectionString, max: 8, connectionTimeoutMillis: 3000, idleTimeoutMillis: 30_000 });
  pool.on('error', onLost);
  // A connection that is lost while it is lent out has no listener of the pool's: without one of ours it would end the server.
  pool.on('connect', (client) => client.on('error', onLost));
  return new Kysely<DB>({ dialect: new PostgresDialect({ pool }), plugins: [columnNames] });
}

const AWAY_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
]);

/** Whether an error means that the database server cannot be reached just now. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: unknown }).code;
  if (typeof code === 'string' && AWAY_CODES.has(code)) return true;
  if (error instanceof AggregateError) return error.errors.some(isDatabaseAway);
  return /Connection terminated|timeout exceeded when trying to connect/.test(error.message);
}

/** The name of the constraint that a statement broke, or null when the error is another. */
export function brokenConstraint(error: unknown): string | null {
  const { code, constraint } = error as { code?: unknown; constraint?: unknown };
  return typeof code === 'string' && code.startsWith('23') && typeof constraint === 'string' ? constraint : null;
}
