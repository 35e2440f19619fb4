import react from 'eslint-plugin-react-hooks';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

/** What each layer may not import: arrows run core ← contract ← server, web. */
const closed = (...groups) => ({ 'no-restricted-imports': ['error', { patterns: groups.map(([group, message]) => ({ group, message })) }] });
const noServer = [['@dellum/server', '@nestjs/*', 'kysely', 'pg'], 'The server stays out of this layer.'];
const noWeb = [['@dellum/web', 'react', 'react-*', '@chakra-ui/*'], 'The interface stays out of this layer.'];

export default defineConfig(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/dist-test/**', '.data/**', 'test-results/**'] },
  ts.configs.recommended,
  {
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      eqeqeq: ['error', 'always'],
      'no-console': 'error',
    },
  },
  { files: ['packages/core/src/**'], rules: closed([['@dellum/*', 'node:*'], 'The core imports nothing of the rest.'], noServer, noWeb) },
  { files: ['packages/contract/src/**'], rules: closed([['node:*'], 'The contract runs in the browser, too.'], noServer, noWeb) },
  { files: ['apps/server/src/**'], rules: { ...closed(noWeb), '@typescript-eslint/consistent-type-imports': 'off' } },
  { files: ['apps/web/src/**'], extends: [react.configs.flat.recommended], rules: {
      ...closed([['node:*'], 'The browser has no Node.'], noServer),
      // A hint for the React Compiler, which is not used.
      'react-hooks/incompatible-library': 'off',
    } },
  { files: ['apps/web/src/grid/**'], rules: closed([['@dellum/*', '../features/*'], 'The grid knows no catalogs.'], noServer) },
);
