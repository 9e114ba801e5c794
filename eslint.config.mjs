// Node 20 lacks Object.groupBy, which the linter's own configuration uses.
Object.groupBy ??= (items, keyOf) => {
  const groups = {}
  for (const item of items) (groups[keyOf(item)] ??= []).push(item)
  return groups
}
const { default: withNuxt } = await import('./.nuxt/eslint.config.mjs')
const { createNodeResolver } = await import('eslint-plugin-import-x')
const { default: formatted } = await import('eslint-plugin-prettier/recommended')

const outside = ['vue', 'nuxt', '#*', '~*', '@/*', 'pinia', 'vuetify', 'drizzle-orm', 'mysql2', 'node:*', 'h3']

export default withNuxt(
  formatted,
  { ignores: ['messages/generated/**', 'var/**', 'docs/**', 'server/db/migrations/**'] },
  {
    // Vuetify and Vue both allow what these rules of style forbid.
    settings: {
      'import-x/extensions': ['.ts', '.vue'],
      'import-x/resolver-next': [
        createNodeResolver({
          extensions: ['.ts', '.js', '.vue', '.json'],
          alias: { '~~': [process.cwd()], '~': [`${process.cwd()}/app`] },
        }),
      ],
    },
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/no-multiple-template-root': 'off',
      // It comes late and pulls the focus out of the field somebody has gone on to.
      'vue/no-restricted-static-attribute': ['error', { key: 'autofocus', message: 'Use v-focus-first.' }],
      'vue/no-restricted-v-bind': ['error', { argument: 'autofocus', message: 'Use v-focus-first.' }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // Nothing points back, not even by way of a third.
      'import/no-cycle': ['error', { ignoreExternal: true }],
      'max-lines': ['error', { max: 520, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    // A screen's drawing and dress stand in one file with what it does.
    files: ['app/**/*.vue', 'demo/**/*.ts', 'tests/**/*.ts', '**/*.test.ts'],
    rules: { 'max-lines': ['error', { max: 720, skipBlankLines: true, skipComments: true }] },
  },
  {
    // What builds descriptions part by part, and stores that are one closure, are longer than what reckons.
    files: ['{core,bench,messages,work,server,app,launcher}/**/*.ts'],
    ignores: ['**/*.test.ts', 'core/engine/assemblies/**', 'core/engine/fit-decoder.ts', 'app/stores/outbox.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 106, skipBlankLines: true, skipComments: true }] },
  },
  {
    // The core computes and nothing else: no interface, no database, no clock, no input or output.
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(${outside.map((name) => name.replace('*', '.*')).join('|')})$`,
              message: 'core/ does not reach outside itself.',
            },
            {
              regex: '(messages|work|server|app|bench|demo|launcher)/',
              message: 'core/ does not know the other rooms.',
            },
          ],
        },
      ],
      'no-restricted-globals': ['error', 'Date', 'setTimeout', 'setInterval', 'fetch', 'process', 'window', 'document'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Randomness is passed in.' },
      ],
    },
  },
  {
    // Stand-ins for outside devices know the core and nothing nearer the screens.
    files: ['bench/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '/(server|app|messages|work|demo|launcher)/', message: 'bench/ knows the core only.' }] },
      ],
    },
  },
  {
    // The casualty and the supply prove the diagnosis, so they may not know it; the hand reads which tests there are.
    files: ['bench/{casualty,supply}/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '/(server|app|messages|work|demo|launcher)/', message: 'bench/ knows the core only.' },
            { regex: 'core/(diagnosis|motor|trace)/', message: 'What it will prove may not be what it is made of.' },
          ],
        },
      ],
    },
  },
  {
    files: ['messages/**/*.ts'],
    ignores: ['messages/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '(^~|/(work|server|app|bench|demo|launcher)/)', message: 'Messages know the core only.' },
          ],
        },
      ],
    },
  },
  {
    files: ['work/**/*.ts'],
    ignores: ['work/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '(^~|/(server|app|demo|launcher)/)',
              message: 'Work knows the core, the messages and the benches.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '(^~/|/app/)', message: 'The server does not know the screens.' }] },
      ],
    },
  },
  {
    files: ['app/**/*.ts', 'app/**/*.vue'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^~~/server/', message: 'The screens know the server by its messages.' }] },
      ],
    },
  },
)
