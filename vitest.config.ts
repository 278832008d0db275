import path from 'node:path';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

const root = path.dirname(fileURLToPath(import.meta.url));
const alias = { '@core': path.join(root, 'core') };

export default defineConfig({
  test: {
    projects: [
      {
        plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } })],
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['core/**/*.test.ts', 'tests/oracle/**/*.test.ts', 'web/**/*.test.ts', 'server/**/*.unit.test.ts'],
          environment: 'node',
          server: { deps: { inline: ['vuetify'] } },
          css: false,
          // a limit against hanging, not a measure of speed
          testTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts'],
          exclude: ['server/**/*.unit.test.ts', 'node_modules'],
          environment: 'node',
          globalSetup: ['tests/integration/globalSetup.ts'],
          // each file has a database of its own; two at a time suit a small machine
          maxWorkers: 2,
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
