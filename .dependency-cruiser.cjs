/** The walls between packages: core → nothing of ours; contract → core; media → core; disk → core, media; server, cli → core, contract, disk; web → core, contract, media. */
const packages = {
  core: [],
  contract: ['core'],
  media: ['core'],
  disk: ['core', 'media'],
  server: ['core', 'contract', 'disk'],
  cli: ['core', 'contract', 'disk'],
  web: ['core', 'contract', 'media'],
};

/** The folders of the core, from the foot up: each uses only what stands before it. */
const layers = [
  'text',
  'portable',
  'name',
  'listing',
  'numbers',
  'lists',
  'references',
  'template',
  'project',
  'check',
  'compare',
  'package',
  'change',
  'planners',
  'impact',
  'words',
  'report',
];

const tests = '\\.test\\.tsx?$|/tests/';

module.exports = {
  forbidden: [
    { name: 'no-cycle', severity: 'error', from: {}, to: { circular: true } },
    ...Object.entries(packages).map(([name, allowed]) => ({
      name: `walls-of-${name}`,
      severity: 'error',
      from: { path: `^packages/${name}/`, pathNot: tests },
      to: { path: '^packages/', pathNot: `^packages/(${[name, ...allowed].join('|')})/` },
    })),
    ...layers.map((name, at) => ({
      name: `core-${name}-uses-what-is-below`,
      severity: 'error',
      from: { path: `^packages/core/src/${name}/`, pathNot: tests },
      to: { path: `^packages/core/src/(${layers.slice(at + 1).join('|') || 'nothing-above'})/` },
    })),
    {
      name: 'by-the-index',
      comment: 'Another package is used by its index; the core by the index of one of its folders.',
      severity: 'error',
      from: { path: '^packages/([^/]+)/', pathNot: tests },
      to: {
        path: '^packages/[^/]+/src/.+',
        pathNot: ['^packages/$1/', '^packages/[^/]+/src/index\\.ts$', '^packages/core/src/[^/]+/index\\.ts$'],
      },
    },
    {
      name: 'core-is-pure',
      comment: 'No Node, no screen, no database; of packages only small pure ones.',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: tests },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown'],
        pathNot: 'node_modules/(@noble/hashes|fastest-levenshtein|htmlparser2|entities|csv-parse)/',
      },
    },
    {
      name: 'disks-by-handles',
      comment:
        'What people own is reached through open folders alone; elsewhere only the program’s own files are read.',
      severity: 'error',
      from: {
        path: '^packages/',
        pathNot: [
          tests,
          '^packages/disk/src/(roots/|walk\\.ts$|file-facts\\.ts$|check/quick\\.ts$|media/reader\\.ts$)',
          '^packages/server/src/(admin|backup|build-paths|config|serve|db/migrate|http/app)\\.ts$',
          '^packages/cli/src/(input|project-folder)\\.ts$',
        ],
      },
      to: { path: '^(node:)?fs(/promises)?$' },
    },
    {
      name: 'radix-in-ui',
      comment: 'Radix is wrapped once, in ui/.',
      severity: 'error',
      from: { path: '^packages/web/src/', pathNot: '^packages/web/src/ui/' },
      to: { path: 'node_modules/radix-ui/' },
    },
    {
      name: 'unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '\\.css$|^@fontsource|\\.wasm\\?url$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^dist/|^packages/web/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
