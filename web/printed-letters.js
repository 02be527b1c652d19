// The letters of what is printed, which Python sets: they cover the scripts that a PDF's own fonts lack.
import { copyFile, mkdir } from 'node:fs/promises';
import { basename } from 'node:path';

const OUT = '../src/fardo/static/fonts';
const FONTS = [
  'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
  '@expo-google-fonts/kosugi/Kosugi_400Regular.ttf',
  '@expo-google-fonts/zcool-xiaowei/400Regular/ZCOOLXiaoWei_400Regular.ttf',
  '@expo-google-fonts/gowun-dodum/400Regular/GowunDodum_400Regular.ttf',
];

await mkdir(OUT, { recursive: true });
for (const font of FONTS) await copyFile(`node_modules/${font}`, `${OUT}/${basename(font)}`);
