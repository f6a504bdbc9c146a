// npm run check: what daily work asks for before a commit. Types, lint and the quick tests; no database, no browser.
import { checkNode, ensureDependencies } from './prepare.mjs';
import { Checks, LINT, RULES, TYPES } from './run-checks.mjs';

/** Files that have not changed since they were found good are not looked at again; `npm test` looks at all of them. */
const REMEMBERS = {
  format: ['--cache', '--cache-location', 'node_modules/.cache/quick-check-prettier'],
  lint: ['--cache', '--cache-location', 'node_modules/.cache/quick-check-eslint'],
};
const QUICK_LINT = [...LINT, ...RULES].map(([name, command, args]) => [
  name,
  command,
  [...(REMEMBERS[name] ?? []), ...args],
]);

checkNode();
ensureDependencies();
const checks = new Checks();
// Types take one core for most of a minute; the quick tests run beside them.
await Promise.all([checks.lane(QUICK_LINT).then(() => checks.tests('unit')), checks.lane(TYPES)]);
checks.close();
