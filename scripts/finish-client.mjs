// Makes the built client quick to load: its fonts are packed, its page names them, so that they come along with the code,
// and all that compresses well has a compressed copy beside it, so that the server does that once and not at each load.
// node scripts/finish-client.mjs
import { convert } from 'fontverter';
import { readdirSync, readFileSync, statSync, unlinkSync, writeFileSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const CLIENT = 'dist';
const COMPRESSED = ['.js', '.html', '.css', '.json', '.svg', '.ico'];
const SMALLEST_BYTES = 1000;
/** Those that the first view is written in. */
const FONTS =
  /(HankenGrotesk_400Regular|HankenGrotesk_600SemiBold|Newsreader_400Regular_Italic|Feather)\.[0-9a-f]+\.woff2$/;

const filesOf = () =>
  readdirSync(CLIENT, { recursive: true })
    .map((name) => join(CLIENT, name))
    .filter((file) => statSync(file).isFile());

// WOFF2 is a third smaller than a font compressed as any other file.
const packed = filesOf().filter((file) => extname(file) === '.ttf');
for (const file of packed) {
  writeFileSync(file.replace(/ttf$/, 'woff2'), await convert(readFileSync(file), 'woff2'));
  unlinkSync(file);
}
const files = filesOf();
for (const file of files.filter((one) => extname(one) === '.js')) {
  const code = readFileSync(file, 'utf8');
  const named = packed.reduce(
    (text, font) => text.replaceAll(basename(font), basename(font).replace(/ttf$/, 'woff2')),
    code,
  );
  if (named !== code) writeFileSync(file, named);
}

const page = join(CLIENT, 'index.html');
const fonts = files
  .filter((file) => FONTS.test(file))
  .map((file) => `<link rel="preload" as="font" type="font/woff2" crossorigin href="${file.slice(CLIENT.length)}" />`);
if (fonts.length !== 4) throw new Error(`Four fonts were expected in ${CLIENT}, not ${fonts.length}.`);
writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `${fonts.join('')}</head>`));

await Promise.all(
  files
    .filter((file) => COMPRESSED.includes(extname(file)))
    .map(async (file) => {
      const bytes = readFileSync(file);
      if (bytes.length < SMALLEST_BYTES) return;
      const params = {
        [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
      };
      writeFileSync(`${file}.br`, await promisify(brotliCompress)(bytes, { params }));
      writeFileSync(`${file}.gz`, await promisify(gzip)(bytes, { level: constants.Z_BEST_COMPRESSION }));
    }),
);
