/** Packages use one another one way: pages and the command use the core, never the other way; no circles anywhere. */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { path: '^(packages/(browser|cli|workbench)|examples)/|^node:|^(fs|path|os|url|process)$' },
    },
    {
      name: 'runtime-is-small',
      comment: 'What a running game needs reads no files and checks no schema.',
      severity: 'error',
      from: {
        path: '^packages/core/src/(problem|sheet|clip|compass|signal|controller|engine|performer|troupe|compiled|play|index)',
      },
      to: { path: '^packages/core/src/(view|explain|pixels|wardrobe|document|check|rehearsal)|node_modules' },
    },
    {
      name: 'browser-needs-no-command',
      severity: 'error',
      from: { path: '^packages/browser/src' },
      to: { path: '^(packages/(cli|workbench)|examples)/' },
    },
    {
      name: 'rooms-stand-alone',
      comment: 'A room is loaded when it is entered, and needs no other one.',
      severity: 'error',
      from: { path: '^packages/workbench/src/rooms/([^/]+)/' },
      to: { path: '^packages/workbench/src/rooms/', pathNot: '^packages/workbench/src/rooms/$1/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: false,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@dot-hop/source', 'import', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
    tsConfig: { fileName: 'tsconfig.tests.json' },
  },
};
