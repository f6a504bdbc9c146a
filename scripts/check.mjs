// npm run check: what daily work asks for before a commit. Types, lint and the quick tests; no database, no browser.
import { checkNode, ensureDependencies } from './prepare.mjs';
import { Checks, LINT, TYPES } from './run-checks.mjs';

checkNode();
ensureDependencies();
const checks = new Checks();
await Promise.all([checks.lane(LINT), checks.lane(TYPES)]);
checks.tests('unit');
checks.close();
