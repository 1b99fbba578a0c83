import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import english from './scripts/englishRule.mjs'
import ts from 'typescript-eslint'

const folders = [
  'core',
  'analysis',
  'simulation',
  'simulators',
  'server',
  'web',
  'demo',
  'e2e',
  'bench'
]

/**
 * The arrows of docs/architecture.md: which folders the files of a folder may import from. Nothing points back.
 */
const mayImport = {
  core: [],
  analysis: ['core'],
  simulation: ['core'],
  simulators: ['core', 'simulation', 'analysis'],
  server: ['core', 'analysis', 'simulation'],
  web: ['core', 'simulation'],
  demo: ['core', 'simulation', 'analysis'],
  e2e: ['core', 'analysis', 'server', 'simulators'],
  bench: ['core', 'analysis', 'simulation', 'demo', 'server', 'simulators']
}

/** Tests may reach for whatever they check against. */
const testFiles = ['**/*.test.ts', '**/*.test.tsx', '**/testing/**']

/** How deep folders lie in each other at most. A path up leaves a folder only from its own depth: hence a rule for each. */
const DEPTHS = [1, 2, 3, 4, 5, 6]

const importRules = (folder) => {
  const barred = folders.filter((other) => other !== folder && !mayImport[folder].includes(other))
  const pure = {
    regex: '^(node:|react|konva|antd|fastify|mysql2|@techstark)',
    message: 'core/ is pure computation: no I/O, no framework. Only core/cli reads files.'
  }
  return DEPTHS.map((depth) => {
    const out = {
      regex: `^(\\.\\./){${depth}}(${barred.join('|')})(/|$)`,
      message: `${folder}/ may import only from ${[folder, ...mayImport[folder]].join(', ')} (docs/architecture.md).`
    }
    return {
      files: [`${folder}/${'*/'.repeat(depth - 1)}*.{ts,tsx}`],
      ignores: folder === 'core' ? ['core/cli/**', ...testFiles] : testFiles,
      rules: {
        'no-restricted-imports': ['error', { patterns: folder === 'core' ? [out, pure] : [out] }]
      }
    }
  })
}

/** Of what scripts use. */
const NODE_GLOBALS = [
  'process',
  'console',
  'URL',
  'TextEncoder',
  'TextDecoder',
  'structuredClone',
  'fetch',
  'Headers',
  'ReadableStream',
  'Request',
  'Response',
  'TextDecoderStream',
  'setTimeout'
]

export default ts.config(
  { ignores: ['dist/', 'node_modules/', '.data/', 'test-results/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['**/*.{ts,tsx,mts}'],
    languageOptions: {
      parserOptions: {
        project: ['core/tsconfig.json', 'web/tsconfig.json', 'tsconfig.json', 'e2e/tsconfig.json'],
        tsconfigRootDir: import.meta.dirname
      }
    },
    rules: {
      // Fixtures of tests that need no others: Playwright reads from the first argument which they need.
      'no-empty-pattern': ['error', { allowObjectPatternsAsParameters: true }],
      'no-duplicate-imports': ['error', { allowSeparateTypeImports: true }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/no-base-to-string': 'error',
      '@typescript-eslint/no-deprecated': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      // Buttons of the component library wait for what they were given to do.
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } }
      ],
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
      '@typescript-eslint/only-throw-error': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true }
      ],
      '@typescript-eslint/unbound-method': 'error'
    }
  },
  {
    files: ['**/*.mjs', '*.js'],
    languageOptions: { globals: Object.fromEntries(NODE_GLOBALS.map((name) => [name, 'readonly'])) }
  },
  {
    files: ['web/public/*.js'],
    languageOptions: {
      globals: { self: 'readonly', caches: 'readonly', fetch: 'readonly', Response: 'readonly' }
    }
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs['recommended-latest'].rules,
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'JSXOpeningElement[name.name=/Outlined$/]:not(:has(> JSXAttribute[name.name=/^aria-(hidden|label)$/]))',
          message: 'An icon is read out by its English name: give it aria-hidden, or a label.'
        }
      ]
    }
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/cli/**', ...testFiles],
    rules: {
      'no-restricted-globals': [
        'error',
        'document',
        'window',
        'process',
        'setTimeout',
        'setInterval',
        'fetch'
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core/ has no clock.' }
      ]
    }
  },
  {
    files: [
      '{core,analysis,simulation,simulators,server,web,demo}/**/*.{ts,tsx}',
      'scripts/{install,start,buildWeb}.mjs'
    ],
    ignores: ['core/messages/**', ...testFiles],
    plugins: { wardoptic: { rules: { english } } },
    rules: { 'wardoptic/english': 'error' }
  },
  ...folders.flatMap(importRules),
  {
    files: testFiles,
    rules: { '@typescript-eslint/no-explicit-any': 'off' }
  }
)
