import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const read = (name: string): string => readFileSync(fileURLToPath(new URL(`../../${name}`, import.meta.url)), 'utf8');

describe('licences', () => {
  it('are told: our own, and every package and font that is asked for by name, in the version that is installed', () => {
    const { license, dependencies } = JSON.parse(read('package.json')) as {
      license: string;
      dependencies: Record<string, string>;
    };
    expect(read('LICENSE')).toContain(`${license} License`);
    const notices = read('NOTICES.txt');
    for (const [name, version] of Object.entries(dependencies))
      expect(notices, 'npm run notices').toContain(`${name} ${version} (`);
    expect(notices).toContain('SIL OPEN FONT LICENSE');
  });
});
