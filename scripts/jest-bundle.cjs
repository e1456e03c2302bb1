// A test of the core with all that it imports, in one piece: audio loops that reach for each other through Jest's
// modules take a third longer.
const { buildSync } = require('esbuild');
const { createHash } = require('node:crypto');
const { readdirSync, readFileSync } = require('node:fs');
const { join } = require('node:path');
const { NEAR } = require('./jest-esbuild.cjs');

/** The imports of a test are not known to the cache: any change to the core invalidates it. */
function stateOf(folder, hash) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) stateOf(path, hash);
    else hash.update(path).update(readFileSync(path));
  }
  return hash;
}
const state = stateOf(join(__dirname, '../src/core'), createHash('sha1').update(readFileSync(__filename))).digest(
  'hex',
);

module.exports = {
  getCacheKey: (_src, file, o) => createHash('sha1').update(state).update(file).update(o.configString).digest('hex'),
  process(_src, file) {
    const { outputFiles } = buildSync({
      entryPoints: [file],
      bundle: true,
      write: false,
      format: 'cjs',
      platform: 'node',
      packages: 'external',
      target: 'node20',
      sourcemap: 'inline',
      banner: { js: NEAR },
      tsconfig: join(__dirname, '../tsconfig.json'),
    });
    return { code: outputFiles[0].text };
  },
};
