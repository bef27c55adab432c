import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'
import { typedOnce } from './scripts/lint/typedOnce.js'

const components = vue.configs['flat/base'].find((c) => c.languageOptions?.parser).languageOptions.parser
const parser = typedOnce(import.meta.dirname, components)

export default tseslint.config(
  {
    ignores: [
      'dist',
      'data',
      'node_modules',
      'server/db/migrations',
      'test-results',
      '**/*.d.ts',
      '.dependency-cruiser.cjs',
    ],
  },
  ...tseslint.configs.recommended,
  // Only the page has components and refs.
  ...vue.configs['flat/recommended'].map((c) => ({ ...c, files: c.files ?? ['web/**/*.{ts,vue}'] })),
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser } },
    rules: {
      // Layout is Prettier's business.
      'vue/max-attributes-per-line': 'off',
      'vue/html-self-closing': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/no-v-html': 'error',
    },
  },
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: ['error', 'always'],
    },
  },
  { files: ['**/*.ts'], languageOptions: { parser } },
  {
    // Promises nobody waits for hide their failures; this needs to know types.
    files: ['{contract,core,server,web,demo,logger,bench,e2e}/**/*.{ts,vue}'],
    languageOptions: {
      parserOptions: {
        project: './tsconfig.json',
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
    },
  },
  {
    // The core is pure: no clock, no chance, no outside world.
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'fetch',
        'process',
        'setTimeout',
        'performance',
        'navigator',
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Pass the time in.' },
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Pass the time in.' },
        { object: 'Math', property: 'random', message: 'Pass a random source in.' },
      ],
    },
  },
)
