import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import tseslint from 'typescript-eslint'

/** Where tolerances, names of faces, vectors in plan and free names are at home. */
const HOMES = [
  '**/*.test.ts',
  'core/values/tolerance.ts',
  'core/solid/face-name.ts',
  'core/solid/vec2.ts',
  'core/testing/**',
]
const ONE_HOME = [
  {
    selector: "CallExpression[callee.property.name='split'] > Literal[value=/^[~#]$/]",
    message: 'Names of faces are taken apart in core/solid/face-name.ts.',
  },
  {
    selector: "TemplateElement[value.raw='~']",
    message: 'Names of faces are put together in core/solid/face-name.ts.',
  },
  {
    selector:
      "CallExpression[callee.object.name='Math'][callee.property.name='hypot'][arguments.length=2] > BinaryExpression[left.property.value=0][right.property.value=0]",
    message: 'How far apart two points lie in plan: gapOf of core/solid/vec2.ts.',
  },
  {
    selector: "WhileStatement CallExpression[callee.property.name='has'] > TemplateLiteral",
    message: 'The next free name: numberedName or freeName of core/values/names.ts.',
  },
]
const TOLERANCES = {
  selector: 'Literal[raw=/^[\\d.]+e-\\d+$/]',
  message: 'Tolerances have their names, in core/values/tolerance.ts.',
}

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
    // A promise that nobody waits for is said to be so: void. One program of all types, which takes two thirds of the time of four.
    files: [
      'core/**/*.ts',
      'server/**/*.ts',
      'cli/**/*.ts',
      'web/src/**/*.{ts,tsx}',
      'demo/**/*.ts',
      'e2e/**/*.ts',
      'scripts/**/*.ts',
    ],
    languageOptions: { parserOptions: { project: './tsconfig.lint.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: true, attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
    },
  },
  {
    // What has one home is not written anew.
    files: ['core/**/*.ts', 'web/src/**/*.{ts,tsx}'],
    ignores: HOMES,
    rules: { 'no-restricted-syntax': ['error', ...ONE_HOME] },
  },
  { files: ['core/**/*.ts'], ignores: HOMES, rules: { 'no-restricted-syntax': ['error', ...ONE_HOME, TOLERANCES] } },
  {
    // Figures in findings and on screen are said in the project's unit, by the functions of core/values/units.ts.
    files: ['core/study/findings/*.ts'],
    ignores: ['core/study/findings/thin-body.ts', 'core/study/findings/pictures-disagree.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...ONE_HOME,
        TOLERANCES,
        {
          selector: "CallExpression[callee.property.name='toFixed']",
          message: 'A figure is said by showQuantity or showExact, in the unit of the project.',
        },
      ],
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    ignores: [...HOMES, 'web/src/common/tell.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...ONE_HOME,
        {
          selector: "CallExpression[callee.name=/^show(Number|Quantity|Volume)$/] > Literal[value='m']",
          message: 'A figure is shown as the project shows it, not in metres.',
        },
        {
          selector: "JSXAttribute[name.name='placeholder'] Literal[value=/\\d/]",
          message: 'An example is said in the unit of the project: EXAMPLES of core/values/examples.ts.',
        },
        {
          selector: "CallExpression[callee.object.name='toast'][callee.property.name='error']",
          message: 'What could not be done is said by tellFault of web/src/common/tell.ts, in the unit of the project.',
        },
      ],
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
