// Writes the licences of everything that the built screens hold, as they stand in their packages: fonts and scripts.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';

const SHIPPED = [
  'svelte',
  'bits-ui',
  '@lucide/svelte',
  'three',
  'openapi-fetch',
  '@fontsource-variable/atkinson-hyperlegible-next',
  '@fontsource-variable/atkinson-hyperlegible-mono',
  '@expo-google-fonts/gowun-dodum',
  '@expo-google-fonts/kosugi',
  '@expo-google-fonts/zcool-xiaowei',
  'dejavu-fonts-ttf',
];

const told = new Map();
const wanted = [...SHIPPED];
while (wanted.length) {
  const name = wanted.pop();
  const path = `node_modules/${name}`;
  if (told.has(name) || !existsSync(path)) continue;
  const found = JSON.parse(readFileSync(`${path}/package.json`, 'utf8'));
  wanted.push(...Object.keys(found.dependencies ?? {}));
  const files = readdirSync(path).filter((file) => /^(licen[cs]e|copying|notice|ofl)/i.test(file));
  const words = files.map((file) => readFileSync(`${path}/${file}`, 'utf8').trim()).join('\n\n');
  told.set(name, `${name} ${found.version} (${found.license ?? 'see below'})\n\n${words}`);
}
for (const name of SHIPPED) if (!told.has(name)) throw new Error(`${name} is not here; run npm ci first`);
const head = 'Fonts and scripts that the screens of Fardo are built with, each under its own licence.';
const all = [...told].sort(([a], [b]) => a.localeCompare(b)).map(([, words]) => words);
writeFileSync('../src/fardo/static/notices.txt', `${head}\n\n${all.join(`\n\n${'-'.repeat(80)}\n\n`)}\n`);
