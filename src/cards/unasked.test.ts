import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { CARD_KIND_NAMES } from './registry';

const SRC = fileURLToPath(new URL('..', import.meta.url));

it('nobody outside the cards asks which kind a card is', () => {
  const names = CARD_KIND_NAMES.join('|');
  // A kind compared, switched on, looked up or imported by its name; rungs and channels of the same word are no kinds.
  const asks = new RegExp(
    `\\bkind\\b[^\\n;]{0,20}(===|!==|==|:)\\s*['"](${names})['"]|cards/(${names})\\b|cardKind\\(['"]|CARD_KINDS\\.\\w`,
  );
  const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(ts|tsx|astro)$/.test(file) && !file.endsWith('.test.ts'))
    .filter((file) => !/^(cards|demo)\//.test(file));
  expect(files.length).toBeGreaterThan(150);
  expect(files.filter((file) => asks.test(readFileSync(SRC + file, 'utf8')))).toEqual([]);
});
