/** Imports point inward only: web, server and cli build on core; core builds on nothing but Zod and an integer solver. */
const pkg = (name) => `^packages/${name}/src`;

module.exports = {
  forbidden: [
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
