/** Arrows point down: app and server use core; core uses nothing but itself and a few pure libraries. */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment: 'core knows nothing of the interface, the server or the machine',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(app|server|launcher|demo|tests)/' },
    },
    {
      name: 'core-uses-few-libraries',
      severity: 'error',
      comment: 'pure libraries only',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot: 'node_modules/(zod|culori|fast-png|pdf-lib|ical-generator)/',
      },
    },
    {
      name: 'server-without-app',
      severity: 'error',
      from: { path: '^server/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(app|launcher|demo|tests)/' },
    },
    {
      name: 'app-without-server',
      severity: 'error',
      from: { path: '^app/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(server|launcher|demo|tests)/' },
    },
    {
      name: 'techniques-answer-for-themselves',
      severity: 'error',
      comment: 'what a family knows is asked through its technique; the registry alone names the files',
      from: { path: '^(app|server|core/(?!technique/))', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/technique/[a-z]+/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: '.nuxt/tsconfig.app.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
}
