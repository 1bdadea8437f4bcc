import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import { defineConfig } from 'eslint/config';
import tseslint from 'typescript-eslint';
import { moduleWalls } from './scripts/lint/module-walls.mjs';

const tests = ['**/*.test.ts', '**/*.test.tsx', 'server/test/**', 'e2e/**'];

/** Imports run one way; each part says here what it may not reach into. */
const mayNot = (...groups) => ({ 'no-restricted-imports': ['error', { patterns: groups }] });
const insides = (part, message) => ({ regex: `^(\\.\\./)+${part}/|^@vectrum/${part}`, message });

export default defineConfig([
  { ignores: ['**/dist/**', '**/node_modules/**', 'web/src/api/schema.d.ts', '.data/**', '.cache/**'] },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-base-to-string': 'off',
    },
  },
  {
    // The core is pure: no package, no clock, no chance, no I/O.
    files: ['core/src/**/*.ts'],
    ignores: tests,
    rules: {
      ...mayNot({ regex: '^(?!\\.{1,2}/)', message: 'The core imports only itself' }),
      'no-restricted-globals': ['error', 'fetch', 'process', 'setTimeout', 'setInterval', 'crypto', 'performance'],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Pass the time in',
        },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Pass the time in' },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Pass chance in',
        },
      ],
    },
  },
  {
    files: ['server/src/**/*.ts'],
    plugins: { vectrum: { rules: { 'module-walls': moduleWalls } } },
    rules: {
      'vectrum/module-walls': ['error', `${import.meta.dirname}/server/src`],
      ...mayNot(
        insides('web', 'The server does not know the interface'),
        insides('outside', 'The outside world is reached over its protocols'),
      ),
      // Nest reads parameter types at run time, so their imports must stay values.
      '@typescript-eslint/consistent-type-imports': 'off',
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      ...mayNot(insides('server', 'Use the generated types in api/schema'), insides('outside', 'Not the interface’s business')),
    },
  },
  {
    files: ['outside/src/**/*.ts', 'e2e/**/*.ts'],
    rules: mayNot(
      insides('server', 'Nobody reaches into the server'),
      insides('web', 'Nobody reaches into the interface'),
      insides('core', 'The outside world shares no code with the house'),
    ),
  },
  {
    files: tests,
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/unbound-method': 'off',
    },
  },
  {
    files: ['web/jest-page.js'],
    languageOptions: {
      globals: Object.fromEntries(
        ['URL', 'Request', 'Response', 'Headers', 'structuredClone', 'TextEncoder', 'TextDecoder'].map((name) => [name, 'readonly']),
      ),
    },
  },
  {
    files: ['scripts/**/*.mjs', '**/*.config.{js,ts}', '**/build.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        fetch: 'readonly',
        AbortSignal: 'readonly',
        URL: 'readonly',
        module: 'writable',
        Buffer: 'readonly',
        performance: 'readonly',
        console: 'readonly',
      },
    },
  },
]);
