import regexp from 'eslint-plugin-regexp'
import stylistic from '@stylistic/eslint-plugin'
import withNuxt from './.nuxt/eslint.config.mjs'

// The configuration helper asks for a function that came after Node 20.
Object.groupBy ??= (items, keyOf) => {
  const groups = {}
  for (const item of items) (groups[keyOf(item)] ??= []).push(item)
  return groups
}

const stylisticOff = Object.fromEntries(Object.keys(stylistic.rules).map(rule => [`@stylistic/${rule}`, 'off']))

/** What the formatter cannot break: sentences may be longer, code may not. */
const longest = { code: 140 }

/** Functions that are longer than a screen, each for a reason; what is inside them is short. */
const longByReason = [
  {
    why: 'Tests stand under the sentence of what they are about; what is measured stands in one place.',
    files: ['**/*.test.ts', 'e2e/**', 'bench/**'],
  },
  {
    why: 'A store or composable is one closure of small functions: that is how Pinia and Vue have them.',
    files: ['app/stores/*.ts', 'app/composables/*.ts', 'app/plugins/*.ts'],
  },
  {
    why: 'A repository prepares its statements once, and its functions are a line or two each over them.',
    files: ['server/db/*-repository.ts', 'server/db/builds/*-table.ts', 'server/db/group-commit.ts'],
  },
  {
    why: 'A service is one closure of small functions over what it is given.',
    files: ['server/services/*-service.ts', 'server/services/kept-kinds.ts', 'server/services/application.ts'],
  },
  {
    why: 'A device, its stand-in and the guard are closures over one connection, one server or one process.',
    files: ['server/devices/bench-scale.ts', 'simulators/scale/stand-in.ts', 'server/plugins/access-control.ts'],
  },
  { why: 'The drawer of the demo is a list.', files: ['demo/drawer.ts', 'demo/compose.ts'] },
]

/** Controls are the component library’s; these are made by hand, each for a reason. */
const byHand = [
  {
    why: 'The ledger, the drawer’s grid and the matrix of loadouts are the heart of the job: hundreds of cells under one set of keys.',
    files: [
      'app/components/parts/SheetRow.vue',
      'app/components/drawer/DrawerSheet.vue',
      'app/components/drawer/ColumnHead.vue',
      'app/components/packs/LoadoutSheet.vue',
    ],
  },
  { why: 'The list of steps is a drawing of the way.', files: ['app/components/assemble/StepList.vue'] },
  {
    why: 'Find is one field with a list of its own under it, of one piece with its roles.',
    files: ['app/components/shell/FindAnything.vue'],
  },
  {
    why: 'The first page is light: there a file is chosen with the browser’s own field.',
    files: ['app/pages/index.vue'],
  },
]

const foreignToTheCore = [
  'vue',
  'vue-*',
  'pinia',
  'nuxt',
  'nuxt/*',
  '@nuxt/*',
  '#app',
  '#app/*',
  '#imports',
  'h3',
  'node:*',
  'fs',
  'path',
  'os',
  'crypto',
  'better-sqlite3',
  'element-plus',
  'element-plus/*',
  '@vueuse/*',
  'd3',
  'd3-*',
  'papaparse',
  '~/*',
  '~~/*',
  '#shared/*',
  '**/app/**',
  '**/server/**',
  '**/shared/**',
]
const foreignGlobals = [
  'window',
  'document',
  'navigator',
  'localStorage',
  'fetch',
  'process',
  'Buffer',
  'setTimeout',
  'setInterval',
  'performance',
  'crypto',
  'console',
]

export default withNuxt(
  { ignores: ['.output/**', '.data/**', 'docs/**', 'bench/empty-app/**', '**/*.bundle.mjs', 'test-results/**'] },
  {
    // No expression may take long on a long text: what is matched can come from a file or a stranger.
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
    },
  },
  {
    rules: {
      'vue/max-attributes-per-line': ['error', { singleline: 1, multiline: 1 }],
      'vue/first-attribute-linebreak': ['error', { singleline: 'beside', multiline: 'below' }],
      'vue/html-indent': 'error',
      'vue/html-closing-bracket-newline': 'error',
      'vue/singleline-html-element-content-newline': 'error',
      'vue/multiline-html-element-content-newline': 'error',
      'vue/html-self-closing': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { varsIgnorePattern: '^_', argsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      'no-control-regex': 'off',
      // Published coefficients are kept to their printed digits.
      'no-loss-of-precision': 'off',
    },
  },
  {
    // The computation knows nothing of the interface, the server or the machine; clock and chance are passed in. What
    // data must be like is said with Zod.
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ group: foreignToTheCore, message: 'The core imports only itself.' }] },
      ],
      'no-restricted-globals': ['error', ...foreignGlobals],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Chance is passed in.' },
        { object: 'Date', property: 'now', message: 'The clock is passed in.' },
      ],
    },
  },
  {
    files: ['**/*.{ts,vue,mjs}'],
    ignores: longByReason.flatMap(({ files }) => files),
    rules: { 'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['app/**/*.{ts,vue}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.property.name="slice"][callee.object.callee.property.name="toISOString"]',
          message: 'The first ten letters of an ISO time are the day in Greenwich: use localDay().',
        },
      ],
    },
  },
  {
    files: ['**/*.vue'],
    ignores: byHand.flatMap(({ files }) => files),
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...['button', 'input', 'select', 'textarea', 'dialog'].map(element => ({
          element,
          message: `Use el-${element}, or say in eslint.config.mjs why this one is made by hand.`,
        })),
      ],
    },
  },
  {
    // What Prettier formats is not judged twice.
    files: ['**/*.{ts,mts,mjs}'],
    rules: { ...stylisticOff, '@stylistic/max-len': ['error', longest] },
  },
  {
    // Components are formatted here, to look like the rest.
    files: ['**/*.vue'],
    rules: {
      '@stylistic/arrow-parens': ['error', 'as-needed'],
      '@stylistic/brace-style': ['error', '1tbs'],
      '@stylistic/member-delimiter-style': 'off',
      '@stylistic/quotes': ['error', 'single', { avoidEscape: true, allowTemplateLiterals: 'always' }],
      '@stylistic/multiline-ternary': 'off',
      '@stylistic/indent-binary-ops': 'off',
      '@stylistic/indent': 'off',
      '@stylistic/operator-linebreak': 'off',
      'vue/max-len': ['error', { ...longest, template: 140 }],
    },
  },
  { files: ['scripts/**', 'bench/**', 'demo/**'], rules: { 'no-console': 'off' } },
)
