// npm run notices: writes NOTICES.txt from what package-lock.json says is installed beside development's own tools.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));

/** The text of a package's licence and notice files; empty when it ships none. */
function texts(folder) {
  if (!existsSync(folder)) return '';
  return readdirSync(folder)
    .filter((name) => /^(licen[cs]e|notice|copying)/i.test(name))
    .sort()
    .map((name) => readFileSync(join(folder, name), 'utf8').replace(/\r\n/g, '\n').trim())
    .join('\n\n');
}

// What only some machines install depends on where this is run: such packages carry their parent's licence and are left out.
const shipped = Object.entries(packages)
  .filter(([path, entry]) => path !== '' && !entry.dev && !entry.devOptional && !entry.optional)
  .map(([path, entry]) => ({
    name: path.replace(/^.*node_modules\//, ''),
    version: entry.version,
    license: entry.license ?? 'see its text',
    text: texts(join(root, path)),
  }))
  .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'));

/** Packages by the words of their licence: many share them. */
const byText = new Map();
for (const one of shipped) byText.set(one.text, [...(byText.get(one.text) ?? []), one]);

const line = '-'.repeat(78);
const parts = [...byText].map(([text, of]) => {
  const names = [...new Set(of.map(({ name, version, license }) => `${name} ${version} (${license})`))];
  return `${line}\n${names.join('\n')}\n\n${text || 'Ships no text of its own: the licence named above applies.'}\n`;
});
writeFileSync(
  join(root, 'NOTICES.txt'),
  `Fonts and packages that Glass Ladder is made with, and their licences. Made by "npm run notices".\n\n${parts.join('\n')}`,
);
console.log(`NOTICES.txt: ${shipped.length} packages.`);
