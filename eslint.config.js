import js from '@eslint/js';
import globals from 'globals';
import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';
import prettier from 'eslint-config-prettier';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.data/**',
      'test-results/**',
      'server/src/db/migrations/frozen/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'].map((one) => ({ files: ['web/**/*.{vue,ts}'], ...one })),
  {
    languageOptions: {
      globals: { ...globals.node, ...globals.browser },
      parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.vue'] },
    },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_+$', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  {
    files: ['web/**/*.vue'],
    rules: {
      // It comes late, and takes the focus from whoever has gone on: `v-first` does not.
      'vue/no-restricted-static-attribute': ['error', { key: 'autofocus', message: 'Use v-first.' }],
      'vue/no-restricted-v-bind': ['error', { argument: 'autofocus', message: 'Use v-first.' }],
    },
  },
  {
    // Core and contract promise nothing. Promises elsewhere that nobody waits for are found by oxlint, which reads types in less than a third of the time; pages are left to the compiler of Vue.
    files: ['{core,contract}/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ':function[async=true]', "Identifier[name='Promise']"] },
  },
  {
    // The computing core is pure: nothing of the page, of Node or of the clock may be used in it.
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'localStorage',
        'setTimeout',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
      ],
    },
  },
  {
    // What is printed goes through the log, which leaves out whatever somebody typed. Commands say one sentence each.
    files: ['server/src/**/*.ts'],
    ignores: [
      'server/src/main.ts',
      'server/src/backup-shop.ts',
      'server/src/restore-shop.ts',
      'server/src/owner.ts',
      'server/src/shops.ts',
    ],
    rules: { 'no-console': 'error' },
  },
  prettier,
);
