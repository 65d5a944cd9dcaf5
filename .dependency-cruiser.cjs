/** Imports point one way: web and server → contract → core, never back; and each workspace names what it imports. Tests are read too. */
const TEST = '\\.test\\.ts$|/test/|test-\\w+\\.ts$';
const from = (name, path, to) => ({
  name,
  severity: 'error',
  from: { path },
  to: { path: to },
});

/** The folders of the page, the lowest first. Each may import from those before it, and from itself. */
const PAGE = [
  ['ui'],
  ['words'],
  ['api'],
  ['workers'],
  ['stores'],
  ['forms', 'rail', 'lanes'],
  ['bench'],
  ['measure'],
  ['outline'],
  [
    'frames',
    'instruments',
    'labels',
    'library',
    'match',
    'played',
    'players',
    'settings',
    'stations',
    'stock',
    'today',
  ],
  ['app'],
];
/** What a folder of the page may not import: all that comes after it, and those that stand beside it. */
const pageLooksDown = PAGE.flatMap((layer, at) =>
  layer.map((folder) => {
    const banned = [...PAGE.slice(at + 1).flat(), ...layer.filter((other) => other !== folder)];
    return from(
      `page-${folder}-looks-down`,
      `^web/src/${folder}/`,
      `^web/src/(${[...banned.map((one) => `${one}/`), 'main.ts'].join('|')})`,
    );
  }),
);

module.exports = {
  forbidden: [
    from('core-stands-alone', '^core/', '^(contract|server|web|demo|e2e|bench)/'),
    {
      name: 'core-uses-no-packages',
      severity: 'error',
      from: { path: '^core/src', pathNot: TEST },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] },
    },
    from('contract-looks-only-at-core', '^contract/src', '^(server|web|demo|e2e|bench)/'),
    from('server-does-not-know-the-page', '^server/src', '^(web|demo|e2e|bench)/'),
    ...pageLooksDown,
    from('page-does-not-know-the-server', '^web/src', '^(server|demo|e2e|bench)/'),
    {
      name: 'only-tests-import-tests',
      severity: 'error',
      from: { pathNot: TEST + '|^(e2e|bench|demo)/' },
      to: { path: TEST },
    },
    {
      name: 'named-in-its-own-package',
      severity: 'error',
      from: { path: '^(core|contract|server|web|demo|e2e|bench)/' },
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'all-found',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '\\?(raw|url|worker)$|^virtual:' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
    tsPreCompilationDeps: true,
    combinedDependencies: false,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
