import { spawnSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { query, testApp, type TestApp } from '../support/context';

let app: TestApp;

beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

describe('the types of the tables', () => {
  const verify = () => {
    const args = ['--config-file', 'kysely-codegen.json', '--verify', '--url', app.databaseUrl];
    const { status, stdout, stderr } = spawnSync('node_modules/.bin/kysely-codegen', args, { encoding: 'utf8' });
    return { status, said: stdout + stderr };
  };
  it('are those that the migrations make: `npm run table-types` writes them anew', async () => {
    const { status, said } = verify();
    expect(said).not.toContain('error');
    expect(status, said).toBe(0);
    // And a column that no migration made would be seen.
    await query(app.databaseUrl, 'alter table favourite add unheard_of text');
    expect(verify().status).not.toBe(0);
  });
});
