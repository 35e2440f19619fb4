import { posix } from 'node:path';
import react from 'eslint-plugin-react-hooks';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

/** What each layer may not import: arrows run core ← contract ← server, web. */
const closed = (...groups) => ({
  'no-restricted-imports': ['error', { patterns: groups.map(([group, message]) => ({ group, message })) }],
});
const noServer = [['@dellum/server', '@nestjs/*', 'kysely', 'pg'], 'The server stays out of this layer.'];
const noWeb = [['@dellum/web', 'react', 'react-*', '@chakra-ui/*'], 'The interface stays out of this layer.'];

/** Folders in their order, lowest first: each imports only from those before its own group. */
const ordered = (base, groups, ...also) =>
  groups.flatMap((group, at) =>
    group.map((folder) => {
      const above = groups
        .slice(at)
        .flat()
        .filter((other) => other !== folder);
      const paths = above.map((other) => `${posix.relative(folder, other)}/*`).flatMap((path) => [path, `../${path}`]);
      return {
        files: [`${base}/${folder}/**`],
        rules: closed([paths, 'A folder imports only from those that stand before it in eslint.config.js.'], ...also),
      };
    }),
  );

const serverFolders = [
  ['database', 'problems', 'threads'],
  ['access', 'changes', 'counts', 'jobs'],
  ['api', 'ledger', 'structure'],
  ['entries', 'people'],
  ['carries', 'compiled', 'houses', 'live'],
  ['outside'],
  ['arrangements', 'sources'],
  ['catalogs', 'linked'],
  ['entering', 'ranges', 'sheets'],
  ['records'],
  ['exchange'],
  ['adopting', 'intakes'],
  ['programs'],
  ['bindings', 'figures', 'forms', 'ledgerRead', 'metrics', 'requests', 'upkeep', 'workers'],
];

const webFolders = [
  ['data', 'theme'],
  ['frame', 'live', 'picker'],
  [
    'features/arrangements',
    'features/filters',
    'features/houses',
    'features/intakes',
    'features/people',
    'features/programs',
    'features/requests',
    'grid',
  ],
  ['features/acts', 'features/entries'],
  ['features/exchange', 'features/linked', 'features/ranges', 'features/seek', 'features/trial'],
  ['features/adopting'],
  ['features/map', 'features/upkeep', 'shell'],
  ['features/bindings'],
  ['features/catalogs', 'features/sheets'],
  ['features/figures', 'features/forms', 'features/records', 'features/sources'],
];
const noNode = [['node:*'], 'The browser has no Node.'];

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
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: {
      parserOptions: {
        projectService: {
          allowDefaultProject: [
            'vitest.config.ts',
            'apps/web/vite.config.ts',
            'apps/web/firstVisit.ts',
            'packages/core/test/judgeTable.d.ts',
          ],
        },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  { files: ['packages/core/src/**'], rules: closed([['@dellum/*', 'node:*'], 'The core imports nothing of the rest.'], noServer, noWeb) },
  { files: ['packages/contract/src/**'], rules: closed([['node:*'], 'The contract runs in the browser, too.'], noServer, noWeb) },
  { files: ['apps/server/src/**'], rules: { ...closed(noWeb), '@typescript-eslint/consistent-type-imports': 'off' } },
  ...ordered('apps/server/src', serverFolders, noWeb),
  {
    files: ['apps/web/src/**'],
    extends: [react.configs.flat.recommended],
    rules: {
      ...closed(noNode, noServer),
      // A hint for the React Compiler, which is not used.
      'react-hooks/incompatible-library': 'off',
    },
  },
  ...ordered('apps/web/src', webFolders, noNode, noServer),
  {
    files: ['apps/web/src/grid/**'],
    rules: closed([['@dellum/*', '../features/*', '../data/*', '../shell/*'], 'The grid knows no catalogs.'], noServer),
  },
);
