/**
 * Imports point one way: pages -> api -> app -> db, workers, formats, bench; islands -> cards/ui, components -> views -> records -> core.
 * A kind of card is known to the three registries and to nobody else.
 */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^src/', pathNot: [from, ...allowed] },
});

/** Registries of kinds: what is plain, what needs Joi, what needs React. */
const REGISTRIES = '^src/cards/(registry|schemas|ui-registry)';

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    only('core-imports-nothing', '^src/core/', []),
    only('records-import-core', '^src/records/', ['^src/core/']),
    only('views-import-records', '^src/views/', ['^src/core/', '^src/records/']),
    only('components-import-views', '^src/components/', ['^src/core/', '^src/records/', '^src/views/']),
    only('cards-import-core', '^src/cards/(?!.*/ui/|ui-registry)', ['^src/core/']),
    only('screens-of-cards-import-components', '^src/cards/([^/]+/ui/|ui-registry)', [
      '^src/core/',
      '^src/cards/',
      '^src/records/',
      '^src/views/',
      '^src/components/',
    ]),
    only('islands-import-screens', '^src/islands/', [
      '^src/core/',
      '^src/cards/',
      '^src/records/',
      '^src/views/',
      '^src/components/',
    ]),
    only('formats-import-core', '^src/formats/', ['^src/core/']),
    {
      name: 'a-kind-is-known-to-registries-only',
      comment:
        'A new kind is a folder and a line in each registry. The demo data are made of kinds, so they may know them.',
      severity: 'error',
      from: { path: '^src/', pathNot: [REGISTRIES, '^src/cards/[^/]+/', '^src/demo/'] },
      to: { path: '^src/cards/[^/]+/' },
    },
    {
      name: 'kinds-do-not-know-each-other',
      severity: 'error',
      from: { path: '^src/cards/([^/]+)/' },
      to: { path: '^src/cards/[^/]+/', pathNot: '^src/cards/$1/' },
    },
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
    only('db-imports-records', '^src/db/', ['^src/core/', '^src/records/']),
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
      from: { path: '^src/(islands|components|views|cards/[^/]+/ui)/' },
      to: { path: '^src/(app|db|server|api|bench|formats|demo)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'the-program-stands-without-them',
      comment: 'Stand-ins, tests, reports and tools call on the program, never the other way.',
      severity: 'error',
      from: { path: '^src/' },
      to: { path: '^(stand-ins|tests|scripts|perf)/' },
    },
    {
      name: 'stand-ins-call-on-the-program-alone',
      severity: 'error',
      from: { path: '^stand-ins/' },
      to: { path: '^(tests|scripts|perf)/' },
    },
    {
      name: 'the-other-camera-shares-nothing-with-bench-or-reading',
      severity: 'error',
      from: { path: '^stand-ins/other-camera/' },
      to: { path: '^(src/(bench|core/(reading|image|color))|stand-ins)/', pathNot: '^stand-ins/other-camera/' },
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
