/** Imports point inward only: web, server and cli build on core; core builds on nothing but Zod and an integer solver. */
const pkg = (name) => `^packages/${name}/src`;

/** The folders of the core, the lowest floor first: each imports from its own and from those below it. */
const FLOORS = [
  'measure',
  'document',
  'part',
  'shell',
  'clearance',
  'codes',
  'torque',
  'engineType',
  'fit',
  'order',
  'endPlay',
  'crush',
  'trial',
  'strip',
  'runout',
  'assembly',
  'drawer',
  'job',
  'wire',
];
/** The rooms of `fit`, likewise; the files beside them are above them all. */
const ROOMS = ['format', 'shims', 'model', 'search', 'joint', 'explain'];

/** What lies on a floor imports nothing from above it. */
const upward = (name, folder, floors, above = []) =>
  floors.slice(0, above.length > 0 ? undefined : -1).map((floor, at) => ({
    name: `${name}-${floor}`,
    comment: `${folder}/${floor} imports nothing from the floors above it.`,
    severity: 'error',
    from: { path: `^${folder}/${floor}/`, pathNot: '\\.test\\.ts$|/testing/' },
    to: { path: [...floors.slice(at + 1).map((higher) => `^${folder}/${higher}/`), ...above] },
  }));

module.exports = {
  forbidden: [
    ...upward('floor', 'packages/core/src', FLOORS),
    ...upward('room', 'packages/core/src/fit', ROOMS, ['^packages/core/src/fit/[^/]+\\.ts$']),
    {
      name: 'floor-of-its-own',
      comment: 'A new folder of the core gets its floor in the list above.',
      severity: 'error',
      from: {},
      to: { path: '^packages/core/src/[^/]+/', pathNot: FLOORS.map((floor) => `^packages/core/src/${floor}/`) },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment: 'The core is pure: Zod, HiGHS in WebAssembly and its own files, no React, no DOM, no Node.',
      severity: 'error',
      from: { path: pkg('core'), pathNot: '\\.test\\.ts$|/testing/' },
      to: { pathNot: ['^packages/core/src', '^node_modules/(zod|highs)/'] },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: pkg('core'), pathNot: '\\.test\\.ts$|/testing/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'packages-only-on-core',
      comment: 'Server, web and cli import the core by its name and never one another.',
      severity: 'error',
      from: { path: '^packages/(server|web|cli)/src' },
      to: { path: '^packages/', pathNot: ['^packages/core/src/index\\.ts$', '^packages/$1/'] },
    },
    {
      name: 'no-testing-in-production',
      severity: 'error',
      from: { path: '^packages/[^/]+/src', pathNot: '\\.test\\.tsx?$|/testing/' },
      to: { path: '\\.test\\.tsx?$|/testing/' },
    },
    {
      name: 'no-undeclared-packages',
      severity: 'error',
      from: { path: '^packages/', pathNot: '\\.test\\.tsx?$|/testing/' },
      to: {
        dependencyTypes: ['npm-no-pkg', 'npm-unknown', 'npm-dev', 'unknown', 'undetermined'],
        pathNot: '^@fettle/',
      },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/|\\?url$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    combinedDependencies: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@fettle/source', 'import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.cjs', '.json', '.css'],
    },
  },
};
