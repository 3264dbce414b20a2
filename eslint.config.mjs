import { readdirSync } from 'node:fs';
import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

/**
 * The house's one-way arrows: what each room may not import.
 * app → features → ui → core; server → core, db; workers → core; core → nothing.
 */
const FRAMEWORK = ['react', 'react-dom', 'react/*', 'next', 'next/*', '@mui/*', '@emotion/*'];
const DATABASE = ['drizzle-orm', 'drizzle-orm/*', 'better-sqlite3', 'drizzle-kit'];
const rooms = (...names) => names.flatMap((name) => [`@/${name}`, `@/${name}/**`, `**/../${name}/**`]);

const ARROWS = [
  {
    room: 'core',
    not: [
      ...FRAMEWORK,
      ...DATABASE,
      'comlink',
      'node:*',
      'fs',
      'path',
      ...rooms('db', 'server', 'workers', 'ui', 'features', 'app', 'devices'),
    ],
    why: 'The core knows no interface, database, clock or machine.',
  },
  {
    room: 'ui',
    not: [...DATABASE, ...rooms('db', 'server', 'features', 'app')],
    why: 'Building blocks know the core only.',
  },
  {
    room: 'devices',
    not: [...FRAMEWORK, ...DATABASE, ...rooms('db', 'server', 'ui', 'features', 'app', 'workers')],
    why: 'Stand-ins for what stands on the bench know the core only.',
  },
  {
    room: 'workers',
    not: [...FRAMEWORK, ...DATABASE, ...rooms('db', 'server', 'ui', 'features', 'app')],
    why: 'Workers wrap core functions.',
  },
  {
    room: 'db',
    not: [...FRAMEWORK, ...rooms('server', 'workers', 'ui', 'features', 'app')],
    why: 'The database knows the core only.',
  },
  {
    room: 'server',
    not: ['react', '@mui/*', ...rooms('workers', 'ui', 'features', 'app')],
    why: 'The server validates, computes and stores; it draws nothing.',
  },
  {
    room: 'features',
    not: [...DATABASE, ...rooms('db', 'server', 'app')],
    why: 'Features reach the server through the edit route.',
  },
  { room: 'app', not: [...DATABASE, ...rooms('db')], why: 'Routes are thin: they ask the server.' },
];

/**
 * The rooms of the core in their order: each knows only those before it. Words, times and chance; what is kept; physics; the pour;
 * plans; what is made of plans; records and files.
 */
const CORE_ROOMS = [
  'units',
  'time',
  'chance',
  'model',
  'cure',
  'mixing',
  'tint',
  'bed',
  'body',
  'pouring',
  'money',
  'plan',
  'stock',
  'seams',
  'picture',
  'schedule',
  'dress',
  'run',
  'findings',
  'learn',
  'records',
  'formats',
];

/** The stages of the work: each knows the desk and the door, none another. */
const STAGES = readdirSync('src/app/sets/[setId]', { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => name);

export default tseslint.config(
  {
    ignores: [
      'node_modules/**',
      '.next/**',
      '.test-tmp/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'no-console': 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Pass `now`.' },
        { object: 'Math', property: 'random', message: 'Pass a seed.' },
      ],
    },
  },
  {
    files: [
      'src/core/**/*.ts',
      'src/ui/**/*.{ts,tsx}',
      'src/features/**/*.{ts,tsx}',
      'src/db/**/*.ts',
      'src/server/**/*.ts',
      'src/workers/**/*.ts',
      'src/devices/**/*.ts',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'Default exports only in Next’s own files.' },
      ],
    },
  },
  ...ARROWS.map(({ room, not, why }) => ({
    files: [`src/${room}/**/*.{ts,tsx}`],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: not, message: why }] }] },
  })),
  ...CORE_ROOMS.map((room, at) => ({
    files: [`src/core/${room}/**/*.ts`],
    // Tests may take their examples from anywhere in the core.
    ignores: ['**/*.test.ts', '**/test*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...ARROWS.filter(({ room: one }) => one === 'core').map(({ not, why }) => ({ group: not, message: why })),
            ...CORE_ROOMS.slice(at + 1).map((later) => ({
              group: [`**/../${later}`, `**/../${later}/**`, `@/core/${later}/**`],
              message: `In the core ${room} comes before ${later}.`,
            })),
          ],
        },
      ],
    },
  })),
  ...STAGES.map((stage) => ({
    files: [`src/features/${stage}/**/*.{ts,tsx}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...ARROWS.filter(({ room }) => room === 'features').map(({ not, why }) => ({ group: not, message: why })),
            {
              group: STAGES.filter((other) => other !== stage).map((other) => `**/../${other}/**`),
              message: 'Stages do not import stages: what two of them need lies on the desk.',
            },
          ],
        },
      ],
    },
  })),
  { files: ['scripts/**', 'benchmarks/**', 'torture/**', 'e2e/**', '*.config.*'], rules: { 'no-console': 'off' } },
);
