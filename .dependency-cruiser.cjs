/** Packages use one another one way: pages and the command use the core, never the other way; no circles anywhere. */

/** The folders of the core in the order of the work: each imports from those before it alone, and types do too. */
const order = [
  'problem',
  'shape',
  'sheet',
  'clip',
  'compass',
  'signal',
  'controller',
  'engine',
  'performer',
  'troupe',
  'compiled',
  'play',
  'view',
  'explain',
  'wardrobe',
  'pixels',
  'check',
  'gather',
  'document',
  'rehearsal',
  'edit',
  'pack',
];
const core = '^packages/core/src';

module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      severity: 'error',
      // A state and its timelines name each other.
      from: { pathNot: `${core}/controller/(state|timeline)\\.ts$` },
      to: { circular: true },
    },
    ...order.slice(0, -1).map((folder, i) => ({
      name: `${folder}-comes-before`,
      severity: 'error',
      from: { path: `${core}/${folder}/` },
      to: { path: `${core}/(${order.slice(i + 1).join('|')})/` },
    })),
    {
      name: 'every-folder-has-its-place',
      comment: 'A new folder of the core is put into the order above.',
      severity: 'error',
      from: {},
      to: { path: `${core}/(?!(${order.join('|')})/)[^/]+/` },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: {
        path: '^(packages/(browser|three|vite|cli|workbench)|examples)/|^node:|^(fs|path|os|url|process)$',
      },
    },
    {
      name: 'runtime-is-small',
      comment: 'What a running game needs reads no files and checks no schema.',
      severity: 'error',
      from: { path: `${core}/(${order.slice(0, order.indexOf('view')).join('|')}|index)` },
      to: {
        path: `${core}/(${order.slice(order.indexOf('view')).join('|')})|node_modules`,
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'browser-needs-no-command',
      severity: 'error',
      from: { path: '^packages/(browser|three)/src' },
      to: { path: '^(packages/(vite|cli|workbench)|examples)/' },
    },
    {
      name: 'plugin-stands-alone',
      comment: 'A game that imports documents installs neither the command nor what it draws with.',
      severity: 'error',
      from: { path: '^packages/vite/src' },
      to: { path: '^(packages/(browser|three|cli|workbench)|examples)/|node_modules/(sharp|opentype)' },
    },
    {
      name: 'browser-needs-no-scene',
      severity: 'error',
      from: { path: '^packages/browser/src' },
      to: { path: '^packages/three/' },
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
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['@dot-hop/source', 'import', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js'],
    },
    tsConfig: { fileName: 'tsconfig.tests.json' },
  },
};
