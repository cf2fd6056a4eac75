/**
 * The walls: core → nothing of ours; contract → core; disk → core; server, cli → core, contract, disk; web → core,
 * contract.
 */
const may = {
  core: [],
  contract: ['core'],
  disk: ['core'],
  server: ['core', 'contract', 'disk'],
  cli: ['core', 'contract', 'disk'],
  web: ['core', 'contract'],
};
const tests = '\\.test\\.tsx?$|/tests/';

module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    ...Object.entries(may).map(([name, allowed]) => ({
      name: `walls-of-${name}`,
      severity: 'error',
      from: { path: `^packages/${name}/`, pathNot: tests },
      to: { path: '^packages/', pathNot: `^packages/(${[name, ...allowed].join('|')})/` },
    })),
    {
      name: 'by-the-face',
      comment: 'A sibling package is used by its index alone.',
      severity: 'error',
      from: { path: '^packages/([^/]+)/', pathNot: tests },
      to: { path: '^packages/[^/]+/src/.+', pathNot: ['^packages/$1/', '^packages/[^/]+/src/index\\.ts$'] },
    },
    {
      name: 'core-is-pure',
      comment: 'No Node, no screen, no database; of packages only small pure ones.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: tests },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown'],
        pathNot: 'node_modules/(@noble/hashes|fastest-levenshtein)/',
      },
    },
    {
      name: 'radix-in-ui',
      comment: 'Features take their controls from ui/.',
      severity: 'warn',
      from: { path: '^packages/web/src/features', pathNot: '/find/' },
      to: { path: 'node_modules/radix-ui/' },
    },
    { name: 'unresolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$|^@fontsource' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
