/** Imports point one way: web and server → contract → core, never back. */
const from = (name, path, to, extra = {}) => ({
  name,
  severity: 'error',
  from: { path, pathNot: '\\.test\\.ts$' },
  to: { path: to, ...extra },
});

module.exports = {
  forbidden: [
    from('core-stands-alone', '^core/src', '^(contract|server|web|demo|e2e|bench)/'),
    {
      name: 'core-uses-no-packages',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] },
    },
    from('contract-looks-only-at-core', '^contract/src', '^(server|web|demo|e2e|bench)/'),
    from('server-does-not-know-the-page', '^server/src', '^(web|demo|e2e|bench)/'),
    from('page-does-not-know-the-server', '^web/src', '^(server|demo|e2e|bench)/'),
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
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
