// Makes the built client quick to load: its page names the fonts, so that they come along with the code, and all that
// compresses well lies compressed beside itself, so that the server does that once and not at each load. node
// scripts/finish-client.mjs
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const CLIENT = 'dist';
const COMPRESSED = ['.js', '.html', '.css', '.json', '.svg', '.ttf', '.ico'];
const SMALLEST_BYTES = 1000;
/** Those that the first view is written in. */
const FONTS =
  /(HankenGrotesk_400Regular|HankenGrotesk_600SemiBold|Newsreader_400Regular_Italic|Feather)\.[0-9a-f]+\.ttf$/;
/** The highest two make a twentieth less of it in ten times the time. */
const BROTLI_QUALITY = 9;

const files = readdirSync(CLIENT, { recursive: true })
  .map((name) => join(CLIENT, name))
  .filter((file) => statSync(file).isFile());

const page = join(CLIENT, 'index.html');
const fonts = files
  .filter((file) => FONTS.test(file))
  .map((file) => `<link rel="preload" as="font" type="font/ttf" crossorigin href="${file.slice(CLIENT.length)}" />`);
if (fonts.length !== 4) throw new Error(`Four fonts were expected in ${CLIENT}, not ${fonts.length}.`);
writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `${fonts.join('')}</head>`));

await Promise.all(
  files
    .filter((file) => COMPRESSED.includes(extname(file)))
    .map(async (file) => {
      const bytes = readFileSync(file);
      if (bytes.length < SMALLEST_BYTES) return;
      const params = {
        [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
      };
      writeFileSync(`${file}.br`, await promisify(brotliCompress)(bytes, { params }));
      writeFileSync(`${file}.gz`, await promisify(gzip)(bytes, { level: constants.Z_BEST_COMPRESSION }));
    }),
);
