import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';

// single-file components; all other code and rules that know the types: .oxlintrc.json, a twentieth of the time; floors, wings and
// circles: .dependency-cruiser.json
export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.data/', 'server/base/database/migrations/', '**/*.ts'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: {
      // the names of every library are of no use to these rules, and are gathered anew for every expression
      parserOptions: { parser: tseslint.parser, lib: [] },
    },
  },
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
);
