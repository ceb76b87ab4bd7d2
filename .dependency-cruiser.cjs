/** Which floor and which area may import which. */
const floors = (from, allowed) => ({
  name: `${from}-imports-down-only`,
  severity: 'error',
  from: { path: `^${from}/src` },
  to: { path: '^(core|contract|server|web|demo)/(src|dist)', pathNot: `^(${[from, ...allowed].join('|')})/` },
});

module.exports = {
  forbidden: [
    floors('core', []),
    floors('contract', ['core']),
    floors('server', ['contract', 'core']),
    floors('web', ['contract', 'core']),
    floors('demo', ['server', 'contract', 'core']),
    {
      name: 'core-does-no-io',
      comment: 'Only these packages compute; everything else belongs to the floors above.',
      severity: 'error',
      from: { path: '^core/src', pathNot: '[.]test[.]ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown', 'core'],
        pathNot: 'node_modules/(decimal[.]js|csv-parse|diff)/',
      },
    },
    {
      name: 'server-areas-through-their-index',
      comment: 'An area is entered through its index only; row files may also meet in the data source.',
      severity: 'error',
      from: {
        path: '^server/src/([^/]+)/',
        pathNot: '^server/src/(test|migrations)/|[.]test[.]ts$|^server/src/platform/dataSource[.]ts$',
      },
      to: {
        path: '^server/src/([^/]+)/.+',
        pathNot: ['^server/src/$1/', '^server/src/[^/]+/index[.]ts$', '^server/src/platform/'],
      },
    },
    {
      name: 'web-areas-through-their-index',
      comment: 'An area is entered through its index only; the routes alone know the pages.',
      severity: 'error',
      from: { path: '^web/src/([^/]+)/', pathNot: '^web/src/test/|[.]test[.]tsx?$' },
      to: { path: '^web/src/([^/]+)/.+', pathNot: ['^web/src/$1/', '^web/src/[^/]+/index[.]ts$'] },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: { pathNot: '^server/src/platform/' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@jigsaw/source', 'import', 'require', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
      mainFields: ['module', 'main'],
    },
    moduleSystems: ['es6', 'cjs'],
  },
};
