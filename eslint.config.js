import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';

/** Floors may only be entered from above: web and server know the core, never each other; the core knows nobody. */
const floor = (patterns, message) => ({ 'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }] });

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.data/', 'server/database/migrations/'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      'prefer-const': 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // the formatter decides about layout
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/valid-v-slot': ['error', { allowModifiers: true }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: floor(
      ['**/server/**', '**/web/**', 'node:*', 'fs', 'path', 'vue', 'vue-router', 'pinia', 'vuetify', 'express', 'drizzle-orm*', 'pg'],
      'The core is pure: no server, no screen, no Node.',
    ),
  },
  {
    files: ['server/**/*.ts'],
    rules: floor(['**/web/**', 'vue', 'vuetify*', 'pinia', '@core/*'], 'The server knows the core, not the screens.'),
  },
  {
    files: ['web/**/*.{ts,vue}'],
    rules: floor(['**/server/**', 'node:*', 'express', 'drizzle-orm*', 'pg'], 'Screens know the core, not the server.'),
  },
);
