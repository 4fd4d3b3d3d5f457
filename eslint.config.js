import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Places of web: none of them imports another. */
const PLACES = ['account', 'line', 'bench', 'orders', 'library', 'ledger', 'practice', 'plan'];

/** @param {{ regex: string, message: string }[]} patterns */
const forbid = (patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });

const noDefaultExport = {
  selector: 'ExportDefaultDeclaration',
  message: 'Name what you export.',
};

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.decurio/**', 'docs/**'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'no-restricted-syntax': ['error', noDefaultExport],
      eqeqeq: 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true }],
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: forbid([
      { regex: '^@decurio/', message: 'core imports nothing of ours.' },
      { regex: '(^|/)(contract|server|web|e2e|scripts)/', message: 'core imports nothing of ours.' },
      { regex: '^(node:|fs$|path$|http$)', message: 'core does no I/O.' },
    ]),
  },
  {
    files: ['core/**/*.test.ts', 'core/testing/**/*.ts'],
    rules: forbid([{ regex: '^@decurio/', message: 'core imports nothing of ours.' }]),
  },
  {
    files: ['contract/**/*.ts'],
    rules: forbid([
      { regex: '^@decurio/(?!core$)', message: 'contract imports only core.' },
      { regex: '(^|/)(core|server|web|e2e|scripts)/', message: 'contract imports only core, by its front door.' },
    ]),
  },
  {
    files: ['contract/**/*.test.ts'],
    rules: forbid([
      { regex: '^@decurio/(?!core$)', message: 'contract imports only core.' },
      {
        regex: '(^|/)(core/(?!testing/)|server|web|e2e|scripts)',
        message: "contract's tests may also use core's testing room.",
      },
    ]),
  },
  {
    files: ['server/**/*.ts'],
    rules: forbid([
      {
        regex: '(^|/)(core|contract|web|e2e)/',
        message: 'server imports core and contract by their front doors, and nothing of web.',
      },
    ]),
  },
  {
    files: ['server/**/*.test.ts', 'server/testing/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
  ...[...PLACES, 'ui', 'state', 'workers'].map((place) => ({
    files: [`web/${place}/**/*.{ts,tsx}`],
    rules: forbid([
      {
        regex: `^(\\.\\./)+(${PLACES.filter((other) => other !== place).join('|')})(/|$)`,
        message: 'A place imports no other place. What two places share lives in web/ui or web/state.',
      },
      {
        regex: '(^|/)(core|contract|server|e2e|scripts)/',
        message: 'web imports core and contract by their front doors.',
      },
    ]),
  })),
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { ...hooks.configs.recommended.rules },
  },
  {
    files: ['**/*.config.{js,ts}', 'eslint.config.js', 'web/css.d.ts'],
    rules: { 'no-restricted-syntax': 'off' },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        clearTimeout: 'readonly',
        Buffer: 'readonly',
        URL: 'readonly',
        Response: 'readonly',
        console: 'readonly',
        performance: 'readonly',
        AbortSignal: 'readonly',
      },
    },
  },
  {
    files: ['**/*.test.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off', 'max-lines': 'off' },
  },
);
