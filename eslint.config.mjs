// Node 20 lacks Object.groupBy, which the linter's own configuration uses.
Object.groupBy ??= (items, keyOf) => {
  const groups = {}
  for (const item of items) (groups[keyOf(item)] ??= []).push(item)
  return groups
}
const { default: withNuxt } = await import('./.nuxt/eslint.config.mjs')

const outside = ['vue', 'nuxt', '#*', '~*', '@/*', 'pinia', 'vuetify', 'drizzle-orm', 'mysql2', 'node:*', 'h3']

export default withNuxt(
  { ignores: ['shared/generated/**', 'var/**', 'docs/**', 'server/db/migrations/**'] },
  {
    // Vuetify and Vue both allow what these rules of style forbid.
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/no-multiple-template-root': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    // The core computes and nothing else: no interface, no database, no clock, no input or output.
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ regex: `^(${outside.map((name) => name.replace('*', '.*')).join('|')})$`, message: 'core/ does not reach outside itself.' }, { regex: '(shared|server|app|bench|demo|launcher)/', message: 'core/ does not know the other rooms.' }] }],
      'no-restricted-globals': ['error', 'Date', 'setTimeout', 'setInterval', 'fetch', 'process', 'window', 'document'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Randomness is passed in.' }],
    },
  },
  {
    // Stand-ins for outside devices know the core and nothing nearer the screens; the casualty proves the diagnosis, so it may not know it.
    files: ['bench/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ regex: '/(server|app|shared|demo|launcher)/', message: 'bench/ knows the core only.' }, { regex: 'core/(diagnosis|motor|trace)/', message: 'What it will prove may not be what it is made of.' }] }] },
  },
  {
    // Nothing on the server or in the shared messages points at the screens.
    files: ['server/**/*.ts', 'shared/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ regex: '(^~/|/app/)', message: 'The server does not know the screens.' }] }] },
  },
)
