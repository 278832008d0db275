import path from 'node:path';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import vuetify from 'vite-plugin-vuetify';

const root = path.dirname(fileURLToPath(import.meta.url));

export default defineConfig({
  root: path.join(root, 'web'),
  // the formatter breaks lines between elements; a break there is a space, as in any page
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } }), vuetify({ autoImport: true })],
  worker: { format: 'es' },
  resolve: { alias: { '@core': path.join(root, 'core') } },
  build: {
    outDir: path.join(root, 'dist', 'web'),
    emptyOutDir: true,
    // the content security policy lets fonts and scripts come from files only
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
});
