import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

const typed = ['{core,contract,server,web,demo}/src/**/*.{ts,tsx}'];
const rows = ['ReleaseRow', 'GroupSetRow', 'WikiPageRow'].map((name) => ({ from: 'file', name })); // plain data without methods

export default ts.config(
  { ignores: ['**/dist', '**/dist-types', '**/node_modules', '.data', 'e2e/test-results', '**/*.d.mts'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-extraneous-class': 'off', // Nest's modules are classes without members
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-syntax': [
        'error',
        {
          selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']",
          message: 'Rich text is rendered from its JSON.',
        },
      ],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'The time is an argument in core.' },
        { object: 'Math', property: 'random', message: 'Randomness comes from a seed in core.' },
      ],
      'no-restricted-globals': ['error', 'process', 'Buffer', 'fetch', 'window', 'document', 'setTimeout'],
    },
  },
  // The innermost loops of a deal look up numbers in arrays millions of times: there an index that is known to be there is asserted.
  {
    files: ['core/src/dealing/{search,start,wishes,weigh,table,packed,units}.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  { files: ['server/**/*.ts', 'demo/**/*.ts', 'e2e/**/*.ts'], languageOptions: { globals: globals.node } },
  // Nest reads types of decorated parameters at run time; there `import type` would take them away.
  { files: ['server/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
    languageOptions: { globals: globals.browser },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Literal[value=/^\\/api\\//], TemplateElement[value.raw=/^\\/api\\//]',
          message: 'apiAddress knows whether the page sits in.',
        },
        {
          selector: "JSXAttribute[name.name='dangerouslySetInnerHTML']",
          message: 'Rich text is rendered from its JSON.',
        },
        {
          // A save whose state nobody looks at cannot show that it was refused.
          selector:
            "VariableDeclarator[id.type='ArrayPattern'][id.elements.length=1][init.callee.name=/^use(?!MarkSeen|Save|Edit)\\w+Mutation$/]",
          message: 'Acts go through useAct, which tells a refusal; drafts through useAutosave.',
        },
      ],
    },
  },
  {
    files: ['ops/**/*.mjs', 'bench/**/*.mjs', 'docs/**/*.mjs', 'e2e/**/*.mjs', '*.js', '*.cjs'],
    languageOptions: { globals: globals.node },
  },
  // What only the types can tell: a promise that nobody waits for, an assertion or a condition that says nothing.
  ...ts.configs.strictTypeCheckedOnly.map((config) => ({ ...config, files: typed })),
  {
    files: typed,
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-confusing-void-expression': 'off', // a short arrow that acts is no answer, and reads as none
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-spread': ['error', { allow: ['string', ...rows] }], // by code points, which is meant
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off', // rows are plain data without methods
      '@typescript-eslint/no-deprecated': ['error', { allow: ['Radio', 'Checkbox'] }], // of React Aria; their successors need another markup
    },
  },
  {
    // Answers are read in tests as they come, whatever they turn out to be.
    files: ['{core,contract,server,web,demo}/src/**/*.test.{ts,tsx}', '*/src/test/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      '@typescript-eslint/restrict-template-expressions': 'off',
    },
  },
  // A file, and a page's function, that can be read at one look. Stories told in order and lists of data may be longer.
  {
    ignores: ['e2e/*.spec.ts', 'ops/mutations.mjs'],
    rules: { 'max-lines': ['error', 350] },
  },
  {
    files: [
      'core/src/**/*.ts',
      'contract/src/**/*.ts',
      'server/src/**/*.ts',
      'web/src/**/*.{ts,tsx}',
      'demo/src/**/*.ts',
    ],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: { 'max-lines-per-function': ['error', 200] },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { files: ['e2e/**/*.ts'], rules: { 'no-empty-pattern': 'off' } }, // Playwright reads which fixtures a test takes from the pattern
  prettier,
);
