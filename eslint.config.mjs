import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '**/*.dothop.d.*.ts',
      '**/dist/',
      '**/node_modules/',
      'out/',
      'coverage/',
      'packages/create/template/',
    ],
  },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked, ...tseslint.configs.stylisticTypeChecked],
    languageOptions: {
      parserOptions: {
        project: [
          'docs/tsconfig.json',
          'packages/*/tsconfig.json',
          'examples/*/tsconfig.json',
          'tsconfig.tests.json',
          'tsconfig.tools.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/consistent-type-exports': 'error',
      '@typescript-eslint/array-type': ['error', { default: 'array' }],
      // Those of the core are names of numbers, which the compiler puts in their place.
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/no-unnecessary-condition': ['error', { allowConstantLoopConditions: true }],
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
      eqeqeq: 'error',
    },
  },
  { files: ['**/vite.config.ts', 'docs/.vitepress/**'], rules: { 'no-restricted-exports': 'off' } },
);
