// The rooms and which way dependencies may point; see docs/architecture.md. A new room belongs in this list.
const rooms = ['app', 'features', 'shared', 'ui', 'store', 'media', 'edit', 'core', 'diagnostics']

/**
 * Each room may import the rooms after it; `server` stands aside and is only reached from `app` and the
 * configuration.
 */
const upwards = rooms.slice(1).map((room, i) => ({
  name: `${room}-points-down`,
  severity: 'error',
  from: { path: `^src/${room}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: [...rooms.slice(0, i + 1), 'server'].map((r) => `^src/${r}/`) },
}))

export default {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    ...upwards,
    {
      name: 'core-is-pure',
      severity: 'error',
      comment:
        'core imports zod and itself; interchange also parsers, words the rules of where lines break and which way they run',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^src/core/',
          'node_modules/zod/',
          'papaparse',
          'media-captions',
          'linebreak',
          'bidi-js',
          'node_modules/ics/',
        ],
      },
    },
    {
      name: 'edit-is-pure',
      severity: 'error',
      comment: 'edit imports core, itself and immer, whose drafts it changes',
      from: { path: '^src/edit/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/(core|edit)/', 'node_modules/immer/'] },
    },
    {
      name: 'feature-stands-alone',
      severity: 'error',
      comment: 'what several features need is a room below: shared, ui, store, media, edit or core',
      from: { path: '^src/features/([^/]+)/' },
      to: { path: '^src/features/', pathNot: '^src/features/$1/' },
    },
    {
      name: 'media-has-no-store',
      severity: 'error',
      from: { path: '^src/media/' },
      to: { path: '^src/(store|ui|features)/' },
    },
    {
      name: 'no-test-in-product',
      severity: 'error',
      from: { path: '^src/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^(tests|bench)/' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.next/' },
  },
}
