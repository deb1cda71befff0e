import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** The arrows of docs/decisions/002: pages → islands → store, carriers, workers, ui → core. */
const arrows = [
  {
    files: ['src/core/**'],
    outside: [
      '@/*',
      '!@/core/**',
      'react*',
      '@mantine/*',
      'dexie*',
      'astro*',
      'echarts*',
      '@tabler/*',
      'comlink',
      'nanoid',
    ],
    above: [
      '**/store/**',
      '**/islands/**',
      '**/ui/**',
      '**/carriers/**',
      '**/workers/**',
      '**/pages/**',
      '**/demo/**',
    ],
  },
  {
    files: ['src/store/**'],
    outside: ['react*', '@mantine/*', '@tabler/*'],
    above: ['@/islands/**', '@/ui/**', '@/pages/**', '@/workers/**'],
  },
  {
    files: ['src/carriers/**', 'src/workers/**'],
    outside: ['react*', '@mantine/*'],
    above: ['@/islands/**', '@/ui/**', '@/pages/**'],
  },
  { files: ['src/ui/**'], outside: [], above: ['@/islands/**', '@/pages/**'] },
  // The student's side must not be able to reach the desk, only a carrier.
  {
    files: ['src/islands/student/**'],
    outside: [],
    above: ['@/store/*', '!@/store/sitTables', '@/workers/**', '@/ui/desk/**'],
  },
];

const clockAndChance = [
  {
    selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
    message: 'Time comes in as an argument.',
  },
  {
    selector: "NewExpression[callee.name='Date'][arguments.length=0]",
    message: 'Time comes in as an argument.',
  },
  {
    selector: "MemberExpression[object.name='Math'][property.name='random']",
    message: 'Chance comes in as an argument.',
  },
];

export default tseslint.config(
  { ignores: ['dist', '.astro', 'test-results', 'playwright-report'] },
  js.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    extends: [tseslint.configs.strict],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['src/**/*.tsx'],
    plugins: { 'react-hooks': reactHooks },
    extends: [jsxA11y.flatConfigs.recommended],
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']",
          message: 'Text is never run as HTML.',
        },
      ],
      'jsx-a11y/no-autofocus': 'off',
      // A part that scrolls must be reachable by keyboard (WCAG 2.1.1).
      'jsx-a11y/no-noninteractive-tabindex': ['error', { roles: ['region'], tags: [] }],
    },
  },
  ...arrows.map(({ files, outside, above }) => ({
    files,
    ignores: ['**/*.test.ts', '**/*.test.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: [...outside, ...above], message: 'Against the arrows: see docs/decisions/002.' },
          ],
        },
      ],
    },
  })),
  {
    files: ['src/core/**'],
    ignores: ['**/*.test.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-syntax': ['error', ...clockAndChance],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'localStorage',
        'sessionStorage',
        'indexedDB',
        'fetch',
        'navigator',
        'crypto',
        'performance',
      ],
    },
  },
  { files: ['scripts/**', '*.mjs'], languageOptions: { globals: globals.node } },
);
