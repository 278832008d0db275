import path from 'node:path';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { ownWords } from './words/ownWords.ts';
import { templateWords } from './words/templateWords.ts';

const root = path.dirname(fileURLToPath(import.meta.url));

/** The owners' page: a bundle of its own, of nothing but what it shows. It shares no file with the application inside. */
export default defineConfig({
  root: path.join(root, 'web', 'door'),
  base: '/door/',
  publicDir: false,
  plugins: [
    vue({ template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [templateWords()] } } }),
    ownWords(root, path.join(root, 'web', 'door', 'main.ts')),
  ],
  // every component here is written with setup alone
  define: { __VUE_OPTIONS_API__: 'false' },
  resolve: { alias: { '@core': path.join(root, 'core') } },
  build: {
    outDir: path.join(root, 'dist', 'web', 'door'),
    emptyOutDir: true,
    // the content security policy lets fonts and scripts come from files only
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
});
