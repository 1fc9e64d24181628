import tseslint from 'typescript-eslint'
import vue from 'eslint-plugin-vue'

/** What each folder may not import. Core and world know nothing of ours; nobody reaches past a core folder's door. */
const forbid = (files, patterns) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: patterns.map(([what, message]) =>
          typeof what === 'string' ? { regex: what, message } : { group: what, message },
        ),
      },
    ],
  },
})
const to = (...names) =>
  names.flatMap((name) => [`**/${name}/**`, `~~/${name}/**`, `**/../${name}`])

/** The folders of `database`, from the ground up: each may know those before it. */
const rooms = [
  'labels',
  'readers',
  'sign-ups',
  'account',
  'jobs',
  'sending',
  'people',
  'segments',
  'letters',
  'mailings',
  'results',
  'sequences',
  'imports',
  'exports',
]
const byItsDoor = ['/(database|cases)/[a-z-]+/', 'This folder is entered by its door.']

export default tseslint.config(
  { ignores: ['.nuxt/**', '.output/**', 'public/s/**', 'node_modules/**', '.data/**', 'data/**'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      // Prettier has the say on layout.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/attributes-order': 'off',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
    },
  },
  forbid(
    ['core/**/*.ts'],
    [
      [
        to('database', 'cases', 'engine', 'server', 'app', 'world', 'demo', 'shared'),
        'core imports nothing of ours.',
      ],
      [
        [
          'vue',
          'nuxt',
          'h3',
          'node:fs',
          'node:fs/*',
          'node:net',
          'node:http',
          'node:https',
          'better-sqlite3',
        ],
        'core has no interface, files or network.',
      ],
    ],
  ),
  forbid(
    ['database/**/*.ts'],
    [
      [
        to('cases', 'engine', 'server', 'app', 'world', 'demo', 'shared'),
        'database imports core only.',
      ],
    ],
  ),
  ...rooms.map((room, floor) =>
    forbid(
      [`database/${room}/**/*.ts`],
      [
        [
          to('cases', 'engine', 'server', 'app', 'world', 'demo', 'shared'),
          'database imports core only.',
        ],
        ['^\\.\\./[a-z-]+/', 'A folder of database is entered by its door.'],
        ...(floor < rooms.length - 1
          ? [
              [
                `^\\.\\./(${rooms.slice(floor + 1).join('|')})$`,
                'A folder of database knows only those below it.',
              ],
            ]
          : []),
      ],
    ),
  ),
  forbid(['demo/**/*.ts', 'bench/**/*.ts', 'tests/**/*.ts'], [byItsDoor]),
  forbid(
    ['cases/**/*.ts'],
    [
      byItsDoor,
      [
        to('engine', 'server', 'app', 'world', 'demo', 'shared'),
        'cases imports database and core only.',
      ],
    ],
  ),
  forbid(
    ['engine/**/*.ts'],
    [
      byItsDoor,
      [
        to('server', 'app', 'world', 'demo', 'shared'),
        'engine imports cases, database and core only.',
      ],
    ],
  ),
  forbid(
    ['server/**/*.ts'],
    [
      byItsDoor,
      [
        to('engine', 'app', 'world', 'demo'),
        'server imports cases, database, core and shared only.',
      ],
    ],
  ),
  forbid(
    ['world/**/*.ts'],
    [
      [
        to('core', 'database', 'cases', 'engine', 'server', 'app', 'demo', 'shared'),
        'world knows nothing of Satchel’s insides.',
      ],
    ],
  ),
  forbid(
    ['embed/**/*.ts'],
    [
      [
        to('database', 'cases', 'engine', 'server', 'app', 'world', 'demo', 'shared'),
        'embed imports core only: it stands on other people’s pages.',
      ],
    ],
  ),
  forbid(
    ['shared/**/*.ts'],
    [
      [
        to('database', 'cases', 'engine', 'server', 'app', 'world', 'demo'),
        'shared imports core only.',
      ],
    ],
  ),
  {
    files: ['{core,database,cases,engine,server,world,demo,shared}/**/*.test.ts'],
    rules: { 'no-restricted-imports': 'off' },
  },
  // `import type` of a server door leaves nothing behind in the page.
  {
    files: ['app/**/*.{ts,vue}'],
    rules: {
      'no-restricted-imports': 'off',
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: to('database', 'cases', 'engine', 'world', 'demo'),
              message: 'app imports core, shared, and types of server only.',
            },
            {
              group: to('server'),
              message: 'app imports the types of server only.',
              allowTypeImports: true,
            },
            {
              group: ['**/core/delivery', '**/core/letters/rendering'],
              message: 'These doors are for servers; import their types only.',
              allowTypeImports: true,
            },
          ],
        },
      ],
    },
  },
  // What changes anything on the server goes by one door, which keeps the order and what is not saved yet.
  {
    files: ['app/**/*.{ts,vue}'],
    ignores: [
      'app/composables/changes.ts',
      'app/composables/ask.ts',
      'app/made-up.ts',
      'app/middleware/**',
    ],
    rules: {
      'no-restricted-globals': [
        'error',
        { name: 'fetch', message: 'Ask by `request`, change by `act` or `changeAt`.' },
        { name: '$fetch', message: 'Ask by `request`, change by `act` or `changeAt`.' },
        { name: 'XMLHttpRequest', message: 'Ask by `request`, change by `act` or `changeAt`.' },
        { name: 'navigateTo', message: 'Go by `goTo`, which goes in any case.' },
      ],
      'no-restricted-properties': [
        'error',
        ...['$fetch', 'fetch', 'sendBeacon'].flatMap((property) =>
          ['window', 'globalThis', 'navigator'].map((object) => ({ object, property })),
        ),
      ],
    },
  },
  // A test looks into whatever came.
  { files: ['tests/**/*.ts'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
)
