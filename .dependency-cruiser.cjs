/** Imports point one way: pages -> app -> db, cards, bench, formats; islands -> cards/ui, components; cards -> core; core -> nothing. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^src/', pathNot: [from, ...allowed] },
});

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    only('core-imports-nothing', '^src/core/', []),
    only('cards-import-core', '^src/cards/(?!.*/ui/|ui-registry|picker-props)', ['^src/core/']),
    only('formats-import-core', '^src/formats/', ['^src/core/']),
    {
      name: 'bench-has-its-own-physics',
      severity: 'error',
      from: { path: '^src/bench/(?!of-records)' },
      to: { path: '^src/', pathNot: ['^src/bench/'] },
    },
    {
      name: 'bench-knows-records-as-types-only',
      severity: 'error',
      from: { path: '^src/bench/of-records' },
      to: { path: '^src/core/', dependencyTypesNot: ['type-only'] },
    },
    only('db-imports-core', '^src/db/', ['^src/core/']),
    {
      name: 'reading-never-sees-the-bench',
      severity: 'error',
      from: { path: '^src/(core|cards)/' },
      to: { path: '^src/bench/' },
    },
    {
      name: 'screens-reach-the-server-by-its-endpoints',
      comment: 'Types only: what runs on the server must not be bundled for the browser.',
      severity: 'error',
      from: { path: '^src/(islands|components|cards/[^/]+/ui)/' },
      to: { path: '^src/(app|db|server|api|bench|formats|demo)/', dependencyTypesNot: ['type-only'] },
    },
    { name: 'nobody-imports-pages', severity: 'error', from: {}, to: { path: '^src/pages/' } },
    {
      name: 'app-does-not-know-the-interface',
      severity: 'error',
      from: { path: '^src/(app|db|workers)/' },
      to: { path: '^src/(islands|components|layouts|pages|api|server)/' },
    },
  ],
  options: {
    // Tests may look at both sides; the rules are for what runs.
    exclude: { path: '\\.test\\.ts$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
  },
};
