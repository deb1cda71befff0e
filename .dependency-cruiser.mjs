/** The arrows of docs/decisions/002: who may import whom, types included. Checked by `npm run lint`. */

/** Folders of core, each over those before it: none imports one that comes later, so no two import each other. */
const core = [
  'basics',
  'kinds',
  'model',
  'attempts',
  'scoring',
  'seats',
  'marking',
  'analysis',
  'handback',
  'markbook',
  'repair',
  'bank',
  'rehearsal',
  'sittings',
  'formats',
  'people',
  'intake',
  'exchange',
];

/** The rooms beside core, and what each may import. */
const rooms = {
  core: ['core'],
  words: ['core', 'words'],
  server: ['core', 'server'],
  store: ['core', 'words', 'store'],
  carriers: ['core', 'store', 'carriers'],
  sync: ['core', 'store', 'carriers', 'sync'],
  workers: ['core', 'store', 'carriers', 'sync', 'workers'],
  ui: ['core', 'words', 'ui'],
  offline: ['offline'],
  desk: ['core', 'words', 'store', 'carriers', 'sync', 'workers', 'ui', 'offline', 'desk'],
  islands: ['core', 'words', 'store', 'carriers', 'sync', 'workers', 'ui', 'offline', 'desk', 'islands'],
  layouts: ['ui', 'layouts'],
  pages: ['core', 'server', 'islands', 'layouts', 'pages'],
};

const tests = '\\.test\\.tsx?$';
const within = (names) => `^src/(${names.join('|')})/`;

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    {
      name: 'no-ring',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    ...core.slice(0, -1).map((folder, place) => ({
      name: `core-${folder}`,
      comment: 'A folder of core imports only those before it in the list.',
      severity: 'error',
      from: { path: `^src/core/${folder}/`, pathNot: tests },
      to: { path: `^src/core/(${core.slice(place + 1).join('|')})/` },
    })),
    {
      name: 'core-listed',
      comment: 'A new folder of core has its place in the list.',
      severity: 'error',
      from: { path: '^src/', pathNot: tests },
      to: { path: '^src/core/', pathNot: `^src/core/(${core.join('|')})/` },
    },
    ...Object.entries(rooms).map(([room, may]) => ({
      name: room,
      severity: 'error',
      from: { path: within([room]), pathNot: tests },
      to: { path: '^src/[^/]+/', pathNot: within(may) },
    })),
    {
      name: 'core-outside',
      comment: 'Core knows no interface, no store and no machine.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: tests },
      to: {
        path: 'node_modules/(react|@mantine|dexie|astro|echarts|@tabler|comlink|nanoid)|^demo/',
      },
    },
    {
      name: 'student',
      comment: "The student's side holds no way to the desk: carriers take it there, through a worker.",
      severity: 'error',
      from: { path: '^src/islands/student/', pathNot: tests },
      to: { path: '^src/(store/tables|store/command|desk|sync|workers|server)', reachable: true },
    },
    {
      name: 'shared-by-views',
      severity: 'error',
      from: { path: '^src/islands/kinds/', pathNot: tests },
      to: { path: '^src/islands/', pathNot: '^src/islands/kinds/' },
    },
    {
      name: 'one-view-another',
      comment: 'Views do not import each other: what two of them need is in desk, ui, questions or kinds.',
      severity: 'error',
      from: { path: '^src/islands/([^/]+)/', pathNot: tests },
      to: {
        path: '^src/islands/([^/]+)/',
        pathNot: ['^src/islands/$1/', '^src/islands/(kinds|questions|script)/'],
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'] },
  },
};
