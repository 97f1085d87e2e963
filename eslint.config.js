import globals from 'globals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'coverage', 'demo/public', 'demo/snippets'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      'max-lines': ['error', { max: 250, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      'no-nested-ternary': 'error',
      eqeqeq: 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
    },
  },
  {
    files: ['src/core/**', 'src/checks/**', 'src/formats/**', 'src/facts/**/fact.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'process',
        'console',
        'setTimeout',
        'fetch',
        'performance',
      ],
      'no-restricted-imports': ['error', { patterns: ['node:*'] }],
      'no-restricted-properties': ['error', { object: 'Date', property: 'now' }],
    },
  },
  {
    files: ['src/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.property.name="flatMap"]',
          message: 'Use flatMap or mapPresent of core/lists.',
        },
      ],
    },
  },
  {
    files: ['test/**', '**/*.test.ts'],
    rules: { 'max-lines-per-function': 'off', 'max-lines': 'off' },
  },
  // A list, a line a check: it grows with them.
  { files: ['src/checks/index.ts'], rules: { 'max-lines': 'off' } },
  { files: ['**/*.js'], languageOptions: { globals: globals.node } },
);
