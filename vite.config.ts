import path from 'node:path';
import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';
import { templateWords } from './words/templateWords.ts';

const root = path.dirname(fileURLToPath(import.meta.url));

export default defineConfig({
  root: path.join(root, 'web'),
  // the formatter breaks lines between elements; a break there is a space, as in any page
  plugins: [
    vue({ template: { compilerOptions: { whitespace: 'preserve', nodeTransforms: [templateWords()] } } }),
    vuetify({ autoImport: true }),
    VitePWA({
      // a new version waits until the person at the bench says so: nothing reloads under wet hands
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Lavacrum',
        short_name: 'Lavacrum',
        description: 'Planner, bench companion and logbook for liquid-cooled PCs',
        start_url: '/today',
        display: 'standalone',
        background_color: '#e6eae8',
        theme_color: '#1b2625',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        // every address is the one page, except what only the server knows
        navigateFallback: '/index.html',
        // and the owners' page, which is no part of the application
        navigateFallbackDenylist: [/^\/api\//, /^\/door/],
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  worker: { format: 'es' },
  resolve: { alias: { '@core': path.join(root, 'core') } },
  build: {
    outDir: path.join(root, 'dist', 'web'),
    emptyOutDir: true,
    // the content security policy lets fonts and scripts come from files only
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    // what most pages share comes in few files: a page of a hundred small ones opens more slowly than it reads
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // first of all
            {
              name: 'ahead',
              test: /web[\\/](app[\\/]firstQuestions|base[\\/]http[\\/]ahead|workshop[\\/]machine-list[\\/]linesPath)\.|core[\\/]workshop[\\/]machine-list[\\/]pages\./,
              priority: 2,
            },
            {
              name: 'frame',
              test: /node_modules[\\/](@vue|vue|vue-router|pinia|vuetify|@vuetify|@formatjs|intl-messageformat|idb|@mdi)[\\/]/,
              minShareCount: 36,
            },
            { name: 'common', test: /(core|web)[\\/]/, minShareCount: 36 },
          ],
        },
      },
    },
  },
});
