import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import tseslint from 'typescript-eslint'

// What the compiler does not hold: no `any`, no `!` on outside data, hooks by their rules. The house's arrows are in .dependency-cruiser.cjs.
export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'test-results/**', 'playwright-report/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-constant-condition': ['error', { checkLoops: false }],
      eqeqeq: 'error',
      'max-lines': ['error', { max: 330, skipBlankLines: true, skipComments: true }],
    },
  },
  { files: ['server/src/db/entities.ts'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  {
    files: ['**/*.mjs', '**/*.cjs', '*.js'],
    languageOptions: { globals: globals.node },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  {
    // A promise that nobody waits for is said to be so: void.
    files: [
      'core/**/*.ts',
      'server/**/*.ts',
      'cli/**/*.ts',
      'web/src/**/*.{ts,tsx}',
      'demo/**/*.ts',
      'e2e/**/*.ts',
      'scripts/**/*.ts',
    ],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: true, attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
    },
  },
  // The compiler's own rules are left out: three.js objects are changed in place by nature, and no compiler is used.
  { files: ['web/public/*.js', 'scripts/bench/drag.mjs'], languageOptions: { globals: globals.browser } },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
)
