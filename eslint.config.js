import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

/**
 * Habits that want types; watched in .ts files only. A component would make the type checker begin anew for
 * each of them, which took four fifths of the time; vue-tsc reads their types.
 */
const typed = {
  '@typescript-eslint/switch-exhaustiveness-check': 'error',
  '@typescript-eslint/no-floating-promises': 'error',
  '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
  '@typescript-eslint/await-thenable': 'error',
  '@typescript-eslint/no-unnecessary-condition': 'error',
}

/** House habits that a machine can watch: no any, no non-null mark, no enums, no default exports. */
const habits = {
  '@typescript-eslint/no-explicit-any': 'error',
  '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
  '@typescript-eslint/no-non-null-assertion': 'error',
  '@typescript-eslint/consistent-type-imports': 'error',
  'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
  'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
  'max-depth': ['error', 3],
  eqeqeq: 'error',
  'no-else-return': 'error',
  'no-restricted-syntax': [
    'error',
    {
      selector: 'TSInterfaceDeclaration:not(TSModuleBlock TSInterfaceDeclaration)',
      message: 'A type; interfaces only to add to a library’s own.',
    },
    { selector: 'TSEnumDeclaration', message: 'A union of literals says it better.' },
    { selector: 'ExportDefaultDeclaration', message: 'Named exports only.' },
  ],
}

/** Core reads no clock and rolls no dice: both are handed in. */
const pure = {
  'no-restricted-globals': ['error', 'process', 'window', 'document', 'setTimeout', 'fetch'],
  'no-restricted-properties': [
    'error',
    { object: 'Date', property: 'now', message: 'Time is passed in.' },
    { object: 'Math', property: 'random', message: 'Chance is passed in.' },
  ],
}

const sources = ['**/*.ts', '**/*.vue']
const tests = ['**/*.test.ts', '**/*.run.ts', 'e2e/**']

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', 'e2e/results/**'] },
  {
    ...js.configs.recommended,
    languageOptions: { globals: { process: 'readonly', console: 'readonly' } },
  },
  ...tseslint.configs.recommended.map((config) => ({ ...config, files: sources })),
  ...vue.configs['flat/recommended'],
  {
    files: sources,
    languageOptions: {
      parser: vueParser,
      parserOptions: {
        parser: tseslint.parser,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: { ...habits, 'no-undef': 'off', 'vue/multi-word-component-names': 'off' },
  },
  {
    files: ['**/*.ts'],
    languageOptions: {
      parser: tseslint.parser,
      parserOptions: {
        projectService: { allowDefaultProject: [] },
        extraFileExtensions: ['.vue'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: typed,
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: pure,
  },
  { files: tests, rules: { 'max-lines-per-function': 'off' } },
  {
    files: ['**/*.vue', '**/*.config.ts', 'e2e/setup.ts', 'eslint.config.js'],
    rules: { 'no-restricted-syntax': 'off' },
  },
  prettier,
)
