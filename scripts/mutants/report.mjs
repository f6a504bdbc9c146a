// docs/mutants.md: how many deliberate faults were noticed, and each that was not.

/** The source that a fault replaces, on one line. */
function originalOf(source, { start, end }) {
  const lines = source.split('\n').slice(start.line, end.line + 1);
  lines[lines.length - 1] = lines.at(-1).slice(0, end.column);
  lines[0] = lines[0].slice(start.column);
  return lines.map((line) => line.trim()).join(' ');
}

const short = (text) => (text.length > 90 ? `${text.slice(0, 87)}…` : text).replaceAll('|', '\\|').replaceAll('`', '´');
const perCent = (part, whole) => `${((100 * part) / Math.max(1, whole)).toFixed(1)} %`;

/** A fault counts as noticed when a test failed or hung; what no test reaches counts as not noticed. */
export function tally(tried) {
  const of = (...statuses) => tried.filter(({ status }) => statuses.includes(status));
  return {
    noticed: of('Killed', 'Timeout'),
    unnoticed: of('Survived', 'NoCoverage'),
    broken: of('CompileError', 'RuntimeError'),
    set: of('Ignored'),
  };
}

export function reportOf({ seed, areas, lookedAt, sourceOf }) {
  const lines = [
    '# Deliberate faults',
    '',
    'Made by `npm run mutants`. A seeded sample of all faults that can be made in the sources by swapping operators, conditions, constants,',
    'calls and words; each is tried against the tests that reach its place. Faults in values computed once while a module is loaded (tables)',
    'are left out; they are held by the outside checks of their numbers. What is equivalent, so that no test could notice it, is named and',
    'counts as not noticed.',
    '',
    `Seed: \`${seed}\`.`,
    '',
    '| Area | Files | Faults that can be made | Tried | Noticed | Not noticed | Of them equivalent | Asked for | Minutes |',
    '| --- | --: | --: | --: | --: | --: | --: | --: | --: |',
  ];
  const details = [];
  for (const { title, files, all, tried, minutes, least } of areas) {
    const { noticed, unnoticed } = tally(tried);
    const count = noticed.length + unnoticed.length;
    const described = unnoticed.map((mutant) => {
      const original = originalOf(sourceOf(mutant.fileName), mutant.location);
      const known = lookedAt.find(
        (one) => one.file === mutant.fileName && one.from === original && one.to === mutant.replacement,
      );
      return { ...mutant, original, why: known?.why ?? '' };
    });
    const equivalent = described.filter(({ why }) => why !== '');
    lines.push(
      `| ${title} | ${files} | ${all} | ${count} | ${perCent(noticed.length, count)} | ${unnoticed.length} | ${equivalent.length} | ${least} % | ${minutes.toFixed(0)} |`,
    );
    details.push('', `## ${title}: not noticed`, '', '| Place | Was | Became | |', '| --- | --- | --- | --- |');
    for (const { fileName, location, original, replacement, status, why } of described.sort((a, b) =>
      a.fileName.localeCompare(b.fileName),
    ))
      details.push(
        `| ${fileName}:${location.start.line + 1} | \`${short(original)}\` | \`${short(replacement ?? '')}\` | ${why ? `equivalent: ${why}` : status === 'NoCoverage' ? 'no test comes by' : ''} |`,
      );
  }
  return [...lines, ...details, ''].join('\n');
}
