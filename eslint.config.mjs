import js from '@eslint/js'
import globals from 'globals'
import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'
import { createNodeResolver, importX } from 'eslint-plugin-import-x'

/** Dependencies go one way: what a part may not import. */
const forbid = (...patterns) => ({
  'no-restricted-imports': ['error', { patterns: patterns.map(([group, message]) => ({ group, message })) }],
})

const NODE = ['node:*', 'fs', 'path', 'os', 'child_process', 'worker_threads']
const FRAMEWORK = [
  'vue',
  'vue/*',
  'nuxt',
  'nuxt/*',
  '#app',
  '#imports',
  'pinia',
  'vuetify',
  'vuetify/*',
  'h3',
  'sequelize',
  'chart.js',
  'katex',
]

const CORE_ONLY = [
  [NODE, 'core runs anywhere: no Node built-ins'],
  [FRAMEWORK, 'core knows nothing of the interface or the server'],
  [['**/app/**', '**/server/**', '**/shared/**', '**/cli/**', '~/*', '~~/*', '@/*'], 'core imports only core'],
]

/** The rooms of the core, from the ground up: each may look into those below it, and into none above. */
const LAYERS = [
  'numbers',
  'units',
  'linear',
  'values',
  'algebra',
  'notation',
  'format',
  'scene',
  'control',
  'measured',
  'quantities',
  'kinds',
  'matrices',
  'operators',
  'signatures',
  'functions',
  'sentences',
  'handbook',
  'equations',
  'advice',
  'evaluate',
  'working',
  'views',
  'exchange',
]

const layers = LAYERS.map((room, k) => ({
  files: [`core/${room}/**/*.ts`],
  ignores: ['**/*.test.ts', '**/*.testing.ts'],
  rules: forbid(
    ...CORE_ONLY,
    ...(k + 1 < LAYERS.length
      ? [[LAYERS.slice(k + 1).map((above) => `../${above}/*`), `core/${room} lies below`]]
      : []),
  ),
}))

export default tseslint.config(
  { ignores: ['.nuxt', '.output', 'node_modules', 'data', 'kernels', 'coverage', 'test-results', 'playwright-report'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser }, globals: globals.browser },
  },
  {
    languageOptions: { globals: { ...globals.es2023 } },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      'no-console': 'error',
      eqeqeq: 'error',
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/html-closing-bracket-spacing': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/**/*.testing.ts'],
    rules: {
      ...forbid(...CORE_ONLY),
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'process',
        'localStorage',
        'Buffer',
        'self',
        'postMessage',
      ],
    },
  },
  ...layers,
  {
    files: ['**/*.ts', '**/*.vue'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/extensions': ['.ts', '.vue', '.mjs'],
      // Components are found by their names; only their tests import them.
      'import-x/ignore': ['\\.vue$'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
      'import-x/resolver-next': [
        createNodeResolver({ extensions: ['.ts', '.vue', '.mjs', '.js'], alias: { '~': ['./app'], '~~': ['.'] } }),
      ],
    },
    rules: { 'import-x/no-cycle': 'error' },
  },
  {
    files: ['shared/**/*.ts'],
    rules: forbid(
      [NODE, 'shared crosses the wire: no Node built-ins'],
      [FRAMEWORK, 'shared is schemas and pure functions'],
      [['**/app/**', '**/server/**'], 'shared imports only core'],
    ),
  },
  {
    files: ['app/**/*.{ts,vue}'],
    rules: forbid(
      [NODE, 'the page has no Node built-ins'],
      [['**/server/**', '~~/server/*'], 'the page never imports the server'],
    ),
  },
  {
    files: ['server/**/*.ts'],
    rules: forbid([['**/app/**', '~/*', '@/*'], 'the server never imports the page']),
  },
  {
    files: ['**/*.test.ts', 'e2e/**/*.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  {
    files: ['scripts/**', 'bench/**', 'cli/**', '*.mjs'],
    languageOptions: { globals: globals.node },
    rules: { 'no-console': 'off' },
  },
  {
    files: ['**/*.cjs'],
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
)
