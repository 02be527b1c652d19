import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { copyFile, mkdir } from 'node:fs/promises';
import { basename } from 'node:path';
import { defineConfig, type Plugin } from 'vite';

const OUT = '../src/fardo/static';
const FONTS = [
  'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
  '@expo-google-fonts/kosugi/Kosugi_400Regular.ttf',
  '@expo-google-fonts/zcool-xiaowei/400Regular/ZCOOLXiaoWei_400Regular.ttf',
  '@expo-google-fonts/gowun-dodum/400Regular/GowunDodum_400Regular.ttf',
];

/** The letters of what is printed, which Python sets: they cover the scripts that a PDF's own fonts lack. */
const printedLetters: Plugin = {
  name: 'printed-letters',
  apply: 'build',
  async closeBundle() {
    await mkdir(`${OUT}/fonts`, { recursive: true });
    for (const font of FONTS) await copyFile(`node_modules/${font}`, `${OUT}/fonts/${basename(font)}`);
  },
};

export default defineConfig({
  plugins: [tailwindcss(), svelte(), printedLetters],
  build: {
    outDir: OUT,
    emptyOutDir: true,
    assetsInlineLimit: 0, // the page's own policy takes nothing from inside a style sheet
    target: 'es2022',
    chunkSizeWarningLimit: 800, // the library for three dimensions, loaded only where a shape is shown
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8740' } },
});
