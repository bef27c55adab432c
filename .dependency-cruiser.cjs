// The arrows of docs/adr/0001-the-house.md. A breach fails `npm test`.
const only = (from, allowed, why) => ({
  name: `${from}-stays-in-its-room`,
  severity: 'error',
  comment: why,
  from: { path: `^${from}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^(contract|core|server|web|demo|logger|e2e|bench|scripts)/',
    pathNot: `^(${[from, ...allowed].join('|')})(/|\\.ts$)`,
  },
})
module.exports = {
  forbidden: [
    only('contract', [], 'The contract knows nobody.'),
    only('core', ['contract'], 'The core computes; it knows only the words of the contract.'),
    only('server', ['contract', 'core'], 'The server keeps; it never sees the page.'),
    only('web', ['contract', 'core'], 'The page talks to the server through the contract only.'),
    only('demo', ['contract', 'core'], 'The demo world is built through the same HTTP paths a user takes.'),
    only('logger', ['contract', 'core'], 'The stand-in logger is a device of its own, reached over HTTP.'),
    only(
      'e2e',
      ['contract', 'core', 'demo', 'server/test/(story|libsqlServer)', 'web/screens'],
      'Browser tests see the built product from outside; they know its addresses and share the records of the server’s tests.',
    ),
    only(
      'bench',
      ['contract', 'core', 'demo', 'e2e', 'server/test/story'],
      'Benchmarks measure the core, and the built page from outside.',
    ),
    {
      name: 'core-takes-types-only-from-the-contract',
      severity: 'error',
      comment:
        'A runtime import would pull the schema library into every worker. The tables of codes and limits import nothing.',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^contract/',
        pathNot: '^contract/(inputCodes|limits)\\.ts$',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'core-needs-no-package',
      severity: 'error',
      comment: 'The core has no clock, DOM, Node, network or package of its own, but for an XML reader.',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      // XML is nothing to read by hand; this reader runs anywhere and resolves no entities.
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/fast-xml-parser' },
    },
    {
      name: 'contract-needs-zod-only',
      severity: 'error',
      from: { path: '^contract/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/zod' },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^~icons/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.vue', '.js', '.mjs', '.json', '.d.ts'],
    },
  },
}
