import path from 'node:path';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import vuetify from 'vite-plugin-vuetify';
import { defineConfig } from 'vitest/config';
import { ownWords } from './words/ownWords.ts';
import { templateWords } from './words/templateWords.ts';

const root = path.dirname(fileURLToPath(import.meta.url));
const alias = { '@core': path.join(root, 'core') };

/** Tests that need nothing but the processor. */
const PURE = {
  // a small machine has two
  maxWorkers: 2,
  pool: 'threads',
  setupFiles: 'tests/properties.ts',
  // a limit against hanging, not a measure of speed
  testTimeout: 300_000,
  expect: { poll: { timeout: 120_000 } },
} as const;

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          ...PURE,
          name: 'unit',
          include: [
            'core/**/*.test.ts',
            'words/**/*.test.ts',
            'tests/oracle/**/*.test.ts',
            'tests/types/**/*.test.ts',
            'server/**/*.unit.test.ts',
          ],
          environment: 'node',
          // nothing in the core keeps a state of its own: its files share what is loaded
          isolate: false,
        },
      },
      {
        // as in the application's own build: a screen brings the components that it uses, and no others
        plugins: [
          vue({ template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [templateWords()] } } }),
          vuetify({ autoImport: true }),
          ownWords(root, path.join(root, 'web', 'door', 'main.ts')),
        ],
        resolve: { alias },
        test: {
          ...PURE,
          name: 'screens',
          include: ['web/**/*.test.ts'],
          environment: 'node',
          // what is loaded is loaded once; the page and the session are set back between tests
          isolate: false,
          setupFiles: ['tests/properties.ts', 'tests/screens/setup.ts'],
          server: { deps: { inline: ['vuetify'] } },
          css: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          isolate: false,
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts', 'tests/stories/**/*.test.ts'],
          exclude: ['server/**/*.unit.test.ts', 'node_modules'],
          environment: 'node',
          globalSetup: ['tests/integration/globalSetup.ts'],
          setupFiles: ['tests/properties.ts'],
          // each file has a database of its own; two at a time suit a small machine
          maxWorkers: 2,
          testTimeout: 300_000,
          hookTimeout: 300_000,
          expect: { poll: { timeout: 120_000 } },
        },
      },
    ],
  },
});
