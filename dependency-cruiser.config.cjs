const stages = 'needs|chip|pins|power|build'

module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'core holds all computation and imports nothing of server, web or Node',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$|/test/' },
      to: { path: '^(server|web|e2e|scripts)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$|/test/' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'web-is-not-server', severity: 'error', from: { path: '^web/' }, to: { path: '^server/' } },
    { name: 'server-is-not-web', severity: 'error', from: { path: '^server/' }, to: { path: '^web/' } },
    {
      name: 'stages-do-not-reach-into-each-other',
      comment: 'what two stages share goes to web/src/shared',
      severity: 'error',
      from: { path: `^web/src/stages/(${stages})/` },
      to: { path: `^web/src/stages/(${stages})/`, pathNot: '^web/src/stages/$1/' },
    },
    {
      name: 'rooms-are-entered-by-their-door',
      comment: 'a room exports few names from its index.ts; others import nothing deeper',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/', pathNot: '\\.test\\.ts$|/test/' },
      to: { path: '^core/src/[^/]+/.+', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
    },
    {
      name: 'no-circles',
      comment: 'of types either: what two files need of one another goes into a third',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
    },
  },
}
