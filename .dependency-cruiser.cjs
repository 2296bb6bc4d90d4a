/** The groups of the core in the order they can be read in: each imports only from those before it. */
const groups = [
  'basics',
  'maths',
  'text',
  'limits',
  'model',
  'mass',
  'parts',
  'aircraft',
  'making',
  'slices',
  'changes',
  'deciding',
  'comparing',
]

/** What may import what. Checked by `npm run lint`. */
module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      comment: 'Files that import each other cannot be read one after the other.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'no-circle-of-folders',
      comment: 'Folders that import each other have no order in which they can be understood.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^core' },
      to: { circular: true },
    },
    {
      name: 'by-the-index',
      comment: 'What a folder of the core offers is in its index; the rest is its own.',
      severity: 'error',
      from: { path: '^(app|server|shared)' },
      to: { path: '^core/[^/]+/[^/]+/', pathNot: '^core/([^/]+/[^/]+/index\\.ts)' },
    },
    {
      name: 'by-the-index-in-the-core',
      comment: 'The folders of the core know each other by their indexes as well.',
      severity: 'error',
      from: { path: '^core/([^/]+/[^/]+)/' },
      to: { path: '^core/[^/]+/[^/]+/', pathNot: '^core/($1/|[^/]+/[^/]+/index\\.ts)' },
    },
    ...groups.slice(0, -1).map((group, at) => ({
      name: `${group}-before-what-follows`,
      comment: 'The groups of the core have one order.',
      severity: 'error',
      from: { path: `^core/${group}/` },
      to: { path: `^core/(${groups.slice(at + 1).join('|')})/` },
    })),
    { name: 'core-alone', severity: 'error', from: { path: '^core' }, to: { path: '^(app|server|shared)' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '(\\.test\\.ts$|node_modules|\\.nuxt|\\.output)' },
  },
}
