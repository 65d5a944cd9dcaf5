/** Imports point one way: web and server → contract → core, never back; and each workspace names what it imports. Tests are read too. */
const TEST = '\\.test\\.ts$|/test/|test-server\\.ts$';
const from = (name, path, to) => ({
  name,
  severity: 'error',
  from: { path },
  to: { path: to },
});

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
