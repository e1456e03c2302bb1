// Compiles the AssemblyScript kernels of the core into modules that hold their bytes. node scripts/build-kernels.mjs
// [--check] They are kept in the repository, so that nothing has to be fetched or compiled where audio runs; --check
// says when they are stale.
import asc from 'assemblyscript/asc';
import { readFileSync, writeFileSync } from 'node:fs';

const KERNELS = [
  ['echoLoop', 'ECHO_LOOP_BYTES'],
  ['network', 'NETWORK_BYTES'],
  ['convolution', 'CONVOLUTION_BYTES'],
  ['filterCascade', 'FILTER_CASCADE_BYTES'],
  ['tapSum', 'TAP_SUM_BYTES'],
  ['oversample', 'OVERSAMPLE_BYTES'],
  ['sincRead', 'SINC_READ_BYTES'],
  ['lineRead', 'LINE_READ_BYTES'],
  ['diffuser', 'DIFFUSER_BYTES'],
  ['mixBlock', 'MIX_BLOCK_BYTES'],
  ['corners', 'CORNERS_BYTES'],
  ['fir', 'FIR_BYTES'],
];
const FOLDER = 'src/core/dsp/kernels';
const OPTIONS = [
  '-O3',
  '--noAssert',
  '--runtime',
  'stub',
  '--enable',
  'simd',
  '--importMemory',
  '--outFile',
  'kernel.wasm',
];

/** Those that gain by multiplying and adding in one go are built for it as well, and it is the loader that chooses. */
const FUSED = ['echoLoop', 'convolution', 'oversample', 'lineRead', 'filterCascade', 'network', 'fir'];

let stale = false;
for (const [file, name, ...flags] of [
  ...KERNELS,
  ...KERNELS.filter(([file]) => FUSED.includes(file)).map(([file, name]) => [
    file,
    name.replace('_BYTES', '_FUSED_BYTES'),
    '--enable',
    'relaxed-simd',
  ]),
]) {
  const source = `${FOLDER}/${file}/kernel.as.ts`;
  const target = `${FOLDER}/${file}/${flags.length > 0 ? 'fusedBytes' : 'bytes'}.ts`;
  let bytes;
  const { error, stderr } = await asc.main([source, ...OPTIONS, ...flags], {
    writeFile: (file, contents) => void (file === 'kernel.wasm' && (bytes = contents)),
  });
  if (error) throw new Error(`${source}: ${stderr.toString()}`);
  const rows = [...bytes].reduce(
    (lines, byte, i) => (i % 32 === 0 ? [...lines, `${byte}`] : [...lines.slice(0, -1), `${lines.at(-1)}, ${byte}`]),
    [],
  );
  const text = `/** Made from ${source.split('/').pop()} by scripts/build-kernels.mjs. */\nexport const ${name} = Uint8Array.of(\n  ${rows.join(',\n  ')},\n);\n`;
  if (!process.argv.includes('--check')) writeFileSync(target, text);
  else if (readFileSync(target, 'utf8') !== text) {
    process.stderr.write(`${target} is not what ${source} makes: run npm run build:kernels.\n`);
    stale = true;
  }
}
process.exitCode = stale ? 1 : 0;
