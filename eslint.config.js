import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';

// floors, wings and circles: .dependency-cruiser.json; rules that know the types: .oxlintrc.json, a tenth of the time
export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.data/', 'server/base/database/migrations/'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      'prefer-const': 'error',
      complexity: ['error', 20],
      // longer ones name themselves, with why, where they stand
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
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
    // the compiler checks core and server together with the browser tests, and so knows a page's own names there too
    files: ['{core,server,demo,benchmarks}/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'navigator',
          'location',
          'history',
          'localStorage',
          'sessionStorage',
          'indexedDB',
          'requestAnimationFrame',
        ].map((name) => ({ name, message: 'There is no page here.' })),
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: ':function[async=true], AwaitExpression', message: 'The core computes and waits for nothing.' },
        { selector: "Identifier[name='Promise']", message: 'The core computes and waits for nothing.' },
      ],
    },
  },
  // a story of a test is told in one piece
  { files: ['**/*.test.ts', '**/*.spec.ts'], rules: { 'max-lines-per-function': 'off' } },
);
