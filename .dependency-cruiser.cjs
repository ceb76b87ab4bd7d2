/** Which floor and which area may import which. */
const floors = (from, allowed) => ({
  name: `${from}-imports-down-only`,
  severity: 'error',
  from: { path: `^${from}/src` },
  to: { path: '^(core|contract|server|web|demo)/(src|dist)', pathNot: `^(${[from, ...allowed].join('|')})/` },
});

/** Areas from the ground up: each may use those before it, and their types, and none behind it. */
const areas = require('./areas.json');
const pathOf = (floor, names) =>
  floor === 'contract' ? `^contract/src/(${names.join('|')})[.]ts$` : `^${floor}/src/(${names.join('|')})/`;
const areasDown = Object.entries(areas).flatMap(([floor, names]) =>
  names.slice(0, -1).map((area, at) => ({
    name: `${floor}-${area}-knows-nothing-above-it`,
    severity: 'error',
    from: { path: pathOf(floor, [area]), pathNot: '[.]test[.]tsx?$' },
    to: { path: pathOf(floor, names.slice(at + 1)) },
  })),
);
const areasListed = Object.entries(areas).map(([floor, names]) => ({
  name: `${floor}-areas-are-listed`,
  comment: 'A new area has its place in areas.json.',
  severity: 'error',
  from: {
    path: `^${floor}/src/`,
    pathNot: [
      pathOf(floor, names),
      `^${floor}/src/(test|migrations)/`,
      `^${floor}/src/(index|main|globals[.]d)[.]tsx?$`,
      '[.]test[.]tsx?$',
    ],
  },
  to: {},
}));

module.exports = {
  forbidden: [
    ...areasDown,
    ...areasListed,
    floors('core', []),
    floors('contract', ['core']),
    floors('server', ['contract', 'core']),
    floors('web', ['contract', 'core']),
    floors('demo', ['server', 'contract', 'core']),
    {
      name: 'core-does-no-io',
      comment: 'Only these packages compute; everything else belongs to the floors above.',
      severity: 'error',
      from: { path: '^core/src', pathNot: '([.]test|ForTests)[.]ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'npm-no-pkg', 'npm-unknown', 'core'],
        pathNot: 'node_modules/(decimal[.]js|csv-parse|diff|fast-deep-equal)/',
      },
    },
    {
      name: 'core-areas-through-their-index',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/', pathNot: '[.]test[.]ts$' },
      to: { path: '^core/src/([^/]+)/.+', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index[.]ts$'] },
    },
    {
      name: 'server-areas-through-their-index',
      comment: 'An area is entered through its index only; row files also meet in the data source.',
      severity: 'error',
      from: {
        path: '^server/src/([^/]+)/',
        pathNot: '^server/src/(test|migrations)/|[.]test[.]ts$|^server/src/app/dataSource[.]ts$',
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
      from: {
        path: '^web/src/([^/]+)/',
        pathNot: '^web/src/test/|^web/src/app/routes[.]tsx$|[.]test[.]tsx?$',
      },
      to: { path: '^web/src/([^/]+)/.+', pathNot: ['^web/src/$1/', '^web/src/[^/]+/index[.]ts$'] },
    },
    {
      name: 'no-cycles',
      comment: 'Types count: what can only be understood together belongs into one file.',
      severity: 'error',
      from: {},
      to: { circular: true },
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
