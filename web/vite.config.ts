import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: {
    outDir: '../src/fardo/static',
    emptyOutDir: true,
    assetsInlineLimit: 0, // the page's own policy takes nothing from inside a style sheet
    target: 'es2022',
    chunkSizeWarningLimit: 800, // the library for three dimensions, loaded only where a shape is shown
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8740' } },
});
