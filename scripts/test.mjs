// npm test: installs what tests need, then runs every check and closes with "N passed, N failed" alone on a line.
import { existsSync } from 'node:fs';
import { checkNode, ensureDependencies } from './prepare.mjs';
import { ensurePostgres, installPackages, Plain } from './postgres.mjs';
import { BUILD, Checks, LINT, RULES, TYPES } from './run-checks.mjs';

const checks = new Checks();
try {
  checkNode();
  ensurePostgres();
  if (!existsSync('/usr/bin/chromium') || !existsSync('/usr/bin/chromedriver')) {
    installPackages(['chromium', 'chromium-driver'], 'the interface is tested in a real browser');
  }
  ensureDependencies();
  console.log('\n== static checks and build');
  const [, built] = await Promise.all([
    checks.lane(LINT),
    checks.lane([...TYPES, ...BUILD]).then(async (good) => {
      await checks.lane(RULES);
      return good;
    }),
  ]);
  await checks.tests('unit', 'photos', 'trials', 'bench', ...(built ? ['integration', 'browser'] : []));
} catch (error) {
  checks.failed++;
  console.error(error instanceof Plain ? error.message : error);
}
checks.close();
