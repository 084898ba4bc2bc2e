import ts from 'typescript-eslint'
import vue from 'eslint-plugin-vue'
import prettier from 'eslint-config-prettier'
import vueParser from 'vue-eslint-parser'
import { createNodeResolver, importX } from 'eslint-plugin-import-x'

/*
 * Imports run one way: package <- xml <- document <- style <- typeset <- census <- house <- change <- format <- desk; font stands beside
 * document, pairing on it.
 * Each folder may import from those named with it, and from itself. Nothing in core knows app, server or cli.
 */
const mayImport = {
  package: [],
  colour: [],
  xml: ['package'],
  document: ['package', 'xml'],
  font: ['package', 'document'],
  pairing: ['font'],
  style: ['package', 'xml', 'document', 'font'],
  remarks: ['package', 'xml', 'document', 'font', 'style'],
  typeset: ['package', 'colour', 'xml', 'document', 'font', 'style'],
  census: ['package', 'colour', 'xml', 'document', 'font', 'style', 'typeset'],
  house: ['package', 'colour', 'xml', 'document', 'font', 'pairing', 'style', 'typeset', 'census'],
  change: ['package', 'colour', 'xml', 'document', 'font', 'style', 'typeset', 'census', 'house'],
  compare: ['package', 'colour', 'xml', 'document', 'font', 'style', 'typeset', 'census'],
  proof: ['package', 'colour', 'xml', 'document', 'font', 'style', 'typeset', 'census', 'house', 'change'],
  format: [
    'package',
    'colour',
    'xml',
    'document',
    'font',
    'style',
    'typeset',
    'census',
    'house',
    'change',
    'proof',
    'compare',
  ],
  desk: [
    ...['package', 'colour', 'xml', 'document', 'font', 'style', 'typeset', 'census', 'house', 'change'],
    ...['proof', 'compare', 'format', 'remarks'],
  ],
}
const layers = Object.keys(mayImport)

export default ts.config(
  { ignores: ['.nuxt/**', '.output/**', '.morphene/**', 'node_modules/**', 'test-results/**'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser } } },
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/triple-slash-reference': ['error', { path: 'always' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  prettier,
  {
    // Components hand one another what they show; circles of their script files are what tangles.
    files: ['{app,cli,core,server,shared}/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts'] })],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
      'import-x/ignore': [String.raw`\.vue$`],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  {
    files: ['**/*.{ts,mjs,vue}'],
    ignores: ['core/typeset/unicode-tables.ts', 'core/typeset/unicode-data.ts'],
    rules: { 'max-len': ['error', { code: 140 }] },
  },
  {
    // Pages wait for nothing that they do not show: the schemas of requests bring all that can be planned with them.
    files: ['app/**/*.{ts,vue}'],
    ignores: ['app/workers/**'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                '**/shared/api',
                '**/shared/kept',
                '**/core/change/registry',
                '**/core/session',
                '**/core/typeset/harfbuzz',
              ],
              allowTypeImports: true,
              message: 'this brings the whole engine to the page: its types may be used here, its values in workers.',
            },
          ],
        },
      ],
    },
  },
  ...layers.map(layer => ({
    files: [`core/${layer}/**/*.ts`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...layers
              .filter(other => other !== layer && !mayImport[layer].includes(other))
              .map(other => ({
                group: [`../${other}/*`, `**/core/${other}/*`],
                message: `core/${layer} may not import core/${other}: imports run one way.`,
              })),
            {
              group: ['**/app/**', '**/server/**', '**/cli/**', 'node:*', 'vue', 'nuxt', 'knex', '#*', '~*'],
              message: 'core is pure: no interface, no database, no Node.',
            },
          ],
        },
      ],
    },
  })),
)
