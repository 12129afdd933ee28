import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';
import { rooms } from './core/rooms.mjs';
import { noCircle } from './scripts/lint/no-circle.mjs';

const impure = [
  { group: ['node:*', 'fs', 'path', 'crypto', 'express', 'express/*', 'vue', 'vue-*', 'pinia', '@torvek/*'] },
];

/** How a file of one room writes the way to another. */
function wayTo(from, to) {
  const up = from.includes('/') ? '../..' : '..';
  const [folder, name] = to.split('/');
  const ways = [`${up}/${to}`];
  if (name !== undefined && from.startsWith(`${folder}/`)) ways.push(`../${name}`);
  return ways.flatMap((way) => [way, `${way}/*`]);
}

/** One lint entry a room: no later room, nothing outside the core's own kind. */
const roomRules = rooms.map((room, index) => ({
  files: [`core/src/${room}/**/*.ts`],
  // A test may use later rooms to make its data.
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...impure.map((one) => ({ ...one, message: 'core has no interface, no server and no Node code' })),
          {
            group: rooms.slice(index + 1).flatMap((later) => wayTo(room, later)),
            message: `'${room}' comes before this room: see core/rooms.mjs`,
          },
          {
            group: room.includes('/')
              ? ['../*/*', '!../../*', '!../../*/*', '../../*/*/*', '!../../../*/*']
              : ['../*/*/*', '!../../*/*', '../../*/*/*'],
            message: 'import a room by its index',
          },
        ].filter((one) => one.group.length > 0),
      },
    ],
  },
}));

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.cache/**', 'data/**', 'test-results/**'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.{ts,vue}'],
    plugins: { own: { rules: { 'no-circle': noCircle } } },
    rules: { 'own/no-circle': 'error' },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser }, globals: globals.browser },
    rules: { 'vue/multi-word-component-names': 'off', 'vue/no-v-html': 'off' },
  },
  {
    files: ['web/**/*.ts', 'e2e/**/*.ts'],
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
  },
  {
    files: ['**/*.mjs', 'scripts/**/*.ts', 'server/**/*.ts'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
  {
    files: ['core/src/**/*.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'process',
          'fetch',
          'setTimeout',
          'setInterval',
          'performance',
          'localStorage',
        ].map((name) => ({ name, message: 'core is pure: no DOM, no Node, no clock' })),
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core has no clock: pass the time in' },
        { object: 'Math', property: 'random', message: 'core has no randomness: pass a seed in' },
      ],
    },
  },
  ...roomRules,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      // A name for a shape that follows from its fields.
      '@typescript-eslint/no-empty-object-type': ['error', { allowInterfaces: 'with-single-extends' }],
      eqeqeq: ['error', 'smart'],
    },
  },
  prettier,
);
