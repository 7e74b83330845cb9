/** The arrows of the house (docs/architecture.md): one way, and into a room of the core only by its front file. */
const CORE = '^core/'
/** rooms of the core, lowest first: a room sees only what stands before it */
const ROOMS = [
  'values',
  'solid',
  'picture',
  'moves',
  'repeats',
  'rules',
  'ground',
  'project',
  'edits',
  'levels',
  'form',
  'groundwork',
  'slice',
  'fabric',
  'study',
  'commands',
  'exchange',
]
const roomArrows = ROOMS.map((room, i) => ({
  name: `core-${room}`,
  severity: 'error',
  comment: `core/${room} sees only ${ROOMS.slice(0, i).join(', ') || 'itself'}`,
  from: { path: `^core/${room}/`, pathNot: '\\.test\\.ts$' },
  to: { path: CORE, pathNot: `^core/(${ROOMS.slice(0, i + 1).join('|')})/` },
}))
module.exports = {
  forbidden: [
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      comment: 'type-only imports too: who needs the other belongs in one room with it, or in a room below',
      to: { circular: true },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'the core knows no screen, server, command line or platform',
      from: { path: CORE, pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(web|server|cli|demo|e2e|scripts)/|^(node:)?(fs|path|os|crypto|worker_threads|child_process)(/|$)|node_modules/(react|three|express|typeorm|comlink)',
      },
    },
    {
      name: 'core-by-its-front',
      severity: 'error',
      comment: 'a room of the core is entered through its index.ts',
      from: { path: '^core/([^/]+)/', pathNot: '^core/testing/doors\\.test\\.ts$' },
      to: { path: '^core/([^/]+)/', pathNot: ['^core/$1/', '^core/[^/]+/index\\.ts$', '^core/testing/'] },
    },
    {
      name: 'outside-by-the-front',
      severity: 'error',
      comment: 'a room of the core is entered through its index.ts',
      from: { path: '^(web|server|cli|demo|scripts)/' },
      to: { path: CORE, pathNot: '^core/([^/]+/index\\.ts$|testing/)' },
    },
    {
      name: 'one-door-to-the-kernel',
      severity: 'error',
      from: { pathNot: '^core/solid/' },
      to: { path: 'node_modules/manifold-3d', pathNot: '\\.wasm' },
    },
    {
      name: 'apart',
      severity: 'error',
      comment: 'client, server and command line do not see one another',
      from: { path: '^(web|server|cli)/' },
      to: { path: '^(web|server|cli)/', pathNot: '^$1/' },
    },
    { name: 'no-orphan-import', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\?url$' } },
    ...roomArrows,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    combinedDependencies: true,
    exclude: { path: '(^|/)(dist|node_modules/\\.cache)/' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
}
