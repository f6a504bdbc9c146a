import { writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { grid } from '../src/cards/grid';
import { plainNumber } from '../src/core/quantities/format';
import { compared, type Compared } from './proposals/compared';
import { SHOP, type ShopPairing } from './proposals/shop';

/** Writes docs/proposals.md: what is proposed for the pairings of a shop, why, and how that compares with what shops say. */
const number = (value: number): string => plainNumber(value, 3);

function row({ of, from, to, basis, proposed, within }: Compared): string {
  return `| ${of} | ${number(from)} to ${number(to)} | ${basis} | ${proposed} | ${within ? 'yes' : '**no**'} |`;
}

function section({ name, pairing, expected }: ShopPairing): { text: string; misses: string[] } {
  const known = { pairing, facts: [] };
  const { plan, reasons } = grid.propose(known);
  const rows = compared(plan, pairing, expected);
  const percent = (share: number): string => `${number(share * 100)} %`;
  const lines = [
    `## ${name}`,
    '',
    `Power ${percent(plan.across.from)} to ${percent(plan.across.to)} in ${plan.across.count} steps, speed ${number(plan.down.from)} to ${number(plan.down.to)} mm/s in ${plan.down.count}, lines ${number(plan.constants.intervalMm)} mm apart.`,
    '',
    ...Object.entries(reasons).map(([path, words]) => `- \`${path}\`: ${words}`),
    '',
    '| of | range | basis | proposed | within |',
    '|---|---|---|---|---|',
    ...rows.map(row),
    '',
  ];
  return {
    text: lines.join('\n'),
    misses: rows
      .filter(({ within }) => !within)
      .map(({ of, from, to, proposed }) => `- ${name}: ${of} ${proposed}, outside ${number(from)} to ${number(to)}`),
  };
}

const sections = SHOP.map(section);
const misses = sections.flatMap((one) => one.misses);
const text = [
  '# What is proposed for a first power × speed card',
  '',
  'Made by `npm run proposals`. Machines are made up; ranges are what shops pass on (common practice) or from memory, none of them published.',
  '',
  `Misses: ${misses.length === 0 ? 'none.' : ''}`,
  '',
  ...misses,
  '',
  ...sections.map((one) => one.text),
].join('\n');
writeFileSync(
  'docs/proposals.md',
  await format(text, { ...(await resolveConfig('docs/proposals.md')), parser: 'markdown' }),
);
console.log(`docs/proposals.md: ${SHOP.length} pairings, ${misses.length} misses.`);
