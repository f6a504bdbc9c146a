// npm run check: what daily work asks for before a commit. Types, lint and the quick tests; no database, no browser.
import { checkNode, ensureDependencies } from './prepare.mjs';
import { Checks, LINT, RULES, TYPES } from './run-checks.mjs';

checkNode();
ensureDependencies();
const checks = new Checks();
// The quick tests begin when the checks of the text are through; types take the other core meanwhile.
await Promise.all([checks.lane([...LINT, ...RULES]).then(() => checks.tests('unit')), checks.lane(TYPES)]);
checks.close();
