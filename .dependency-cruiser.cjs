const { readdirSync } = require('node:fs');
const { join } = require('node:path');

/** Imports point inward only: web, server and cli build on core; core builds on nothing but Zod and an integer solver. */
const pkg = (name) => `^packages/${name}/src`;

/**
 * The folders of each package, the lowest floor first: each imports from its own and from those below it. The files beside the folders put
 * them together, and stand above them all.
 */
const FLOORS = {
  core: [
    'measure',
    'document',
    'stage',
    'part',
    'instrument',
    'shell',
    'clearance',
    'codes',
    'torque',
    'engineType',
    'fit',
    'order',
    'build',
    'cameApart',
    'assembly',
    'endPlay',
    'crush',
    'runout',
    'strip',
    'drawer',
    'reading',
    'station',
    'trial',
    'selection',
    'sheet',
    'job',
    'history',
    'wire',
  ],
  server: [
    'problem',
    'worker',
    'database',
    'access',
    'live',
    'web',
    'read',
    'wire',
    'measure',
    'stock',
    'engineType',
    'instrument',
    'job',
    'drawer',
    'assembly',
    'sheet',
    'history',
    'people',
    'audit',
    'unsent',
    'fit',
    'backup',
    'demo',
    'tls',
  ],
  web: [
    'base',
    'ui',
    'guide',
    'person',
    'wire',
    'saving',
    'live',
    'typing',
    'access',
    'shaft',
    'job',
    'spreadsheet',
    'limits',
    'fit',
    'halves',
    'drawer',
    'instrument',
    'measure',
    'codes',
    'choose',
    'endPlay',
    'trial',
    'crush',
    'runout',
    'torque',
    'assembly',
    'stock',
    'engineType',
    'order',
    'bench',
    'sheet',
    'history',
    'sum',
    'shell',
  ],
};
/**
 * A folder that is not listed but holds a slice of the work, or its view, stands below the sheet, which prints what all of them found. So a new
 * stage needs no line here, as long as no other folder builds on it.
 */
for (const [name, holds] of [
  ['core', /Slice\.ts$/u],
  ['web', /View\.tsx$/u],
]) {
  const floors = FLOORS[name];
  const folder = join(__dirname, 'packages', name, 'src');
  const stages = readdirSync(folder, { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && !floors.includes(entry.name))
    .map((entry) => entry.name)
    .filter((entry) => readdirSync(join(folder, entry)).some((file) => holds.test(file)));
  floors.splice(floors.indexOf('sheet'), 0, ...stages);
}

/** The rooms of `fit`, likewise; the files beside them are above them all. */
const ROOMS = ['model', 'search', 'joint', 'explain', 'format', 'shims'];

/** What lies on a floor imports nothing from above it, the files beside the folders included. */
const upward = (name, folder, floors) =>
  floors.map((floor, at) => ({
    name: `${name}-${floor}`,
    comment: `${folder}/${floor} imports nothing from the floors above it.`,
    severity: 'error',
    from: { path: `^${folder}/${floor}/`, pathNot: '\\.test\\.tsx?$|/testing/' },
    to: { path: [...floors.slice(at + 1).map((higher) => `^${folder}/${higher}/`), `^${folder}/[^/]+\\.tsx?$`] },
  }));

/** A folder without a floor would be held by nothing. */
const ownFloor = ([name, floors]) => ({
  name: `${name}-floor-of-its-own`,
  comment: `A new folder of ${name} gets its floor in the list above.`,
  severity: 'error',
  from: {},
  to: {
    path: `^packages/${name}/src/[^/]+/`,
    pathNot: [...floors.map((floor) => `^packages/${name}/src/${floor}/`), '/testing/'],
  },
});

module.exports = {
  forbidden: [
    ...Object.entries(FLOORS).flatMap(([name, floors]) => upward(name, `packages/${name}/src`, floors)),
    ...Object.entries(FLOORS).map(ownFloor),
    ...upward('room', 'packages/core/src/fit', ROOMS),
    {
      name: 'cli-commands',
      comment: 'A command of the command line is put in by runFettle, and knows no other one.',
      severity: 'error',
      from: { path: '^packages/cli/src/(?!main|runFettle)[^/]+\\.ts$', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/cli/src/(main|runFettle|(?!plan)\\w+Command)\\.ts$' },
    },
    {
      name: 'specs-stand-alone',
      comment: 'What several specs need lies in a file of its own.',
      severity: 'error',
      from: {},
      to: { path: '^e2e/.*\\.spec\\.ts$' },
    },
    {
      name: 'end-to-end-from-outside',
      comment: 'End-to-end tests see what a person sees; of the packages they know the core alone.',
      severity: 'error',
      from: { path: '^e2e/' },
      to: { path: '^packages/', pathNot: '^packages/core/src/index\\.ts$' },
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
